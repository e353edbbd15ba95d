import type { Compiled } from '../../logic';
import { bitsOf } from '../engine/bits';
import { numberIn, StateSet } from '../engine/state-set';
import { readersOf } from './byte-code';
import type { DisplayedAspects } from './displayed-aspects';

/**
 * What a step has to do with, as a number: the rules that read anything which it changes in any of its scans, and the signals and
 * turnouts that it changes. Motors count as rules: each reads how its turnout lies, which changes whenever its drive does.
 */
export class Independence {
  /** Words of bits of signals and turnouts (`DisplayedAspects.thing`). */
  readonly thingWords: number;
  /** For each word of memory the rules that read it, as bits. */
  private readonly readers: Int32Array;
  private readonly readerWords: number;
  /** Words that some rule reads. */
  private readonly watched: Int32Array;
  private readonly was: Int32Array;
  private readonly now: Int32Array;
  private readonly set: StateSet;

  /** How turnouts lie stands in memory behind the program. */
  constructor(
    compiled: Compiled,
    turnouts: number,
    private readonly things: number,
  ) {
    const motors = compiled.order.length;
    const readers = [...readersOf(compiled), ...Array.from({ length: turnouts }, (_, t) => [motors + t])];
    this.readerWords = Math.max(1, Math.ceil((motors + turnouts) / 32));
    this.readers = Int32Array.from(readers.flatMap((rules) => bitsOf(rules, this.readerWords)));
    this.watched = Int32Array.from(readers.flatMap((rules, word) => (rules.length > 0 ? [word] : [])));
    this.thingWords = Math.max(1, Math.ceil(things / 32));
    this.was = new Int32Array(readers.length);
    this.now = new Int32Array(this.readerWords + this.thingWords);
    this.set = new StateSet(this.now.length);
  }

  /** Memory as it is before a step, settled. */
  before(memory: Int32Array): void {
    this.was.set(memory.subarray(0, this.was.length));
  }
  /** Begins the print of a step from there. */
  begin(): void {
    this.now.fill(0);
  }
  /** A word is touched by the step itself. */
  touch(word: number): void {
    for (let w = 0; w < this.readerWords; w++) this.now[w]! |= this.readers[word * this.readerWords + w]!;
  }
  /** Memory as it is after a scan. */
  after(memory: Int32Array): void {
    const { was, watched } = this;
    for (let i = 0; i < watched.length; i++) {
      const word = watched[i]!;
      if (memory[word] !== was[word]) this.touch(word);
    }
  }
  /** The whole print, given what was shown before the step and at each of so many scans. */
  end(displays: DisplayedAspects, before: number, shown: Int32Array, count: number): number {
    for (let k = 0; k < count; k++) {
      const displayed = shown[k]!;
      if (displayed === before) continue;
      for (let i = 0; i < this.things; i++)
        if (displays.thing(displayed, i) !== displays.thing(before, i))
          this.now[this.readerWords + (i >> 5)]! |= 1 << (i & 31);
    }
    return numberIn(this.set, this.now);
  }

  /**
   * Two steps from one state have nothing to do with each other: no rule and no motor reads anything that changes in the one and
   * anything that changes in the other. Within one scan they then do what they do one after the other.
   */
  areApart(one: number, two: number): boolean {
    for (let w = 0; w < this.readerWords; w++) if (this.set.word(one, w) & this.set.word(two, w)) return false;
    return true;
  }
  /** Whether any of some signals and turnouts changes, given as bits from `at` on. */
  changesAny(print: number, bits: Int32Array, at: number): boolean {
    for (let w = 0; w < this.thingWords; w++)
      if (this.set.word(print, this.readerWords + w) & bits[at + w]!) return true;
    return false;
  }

  get bytes(): number {
    return this.set.bytes;
  }
}
