import { numberIn, StateSet } from '../engine/state-set';

/**
 * What signals show and how turnouts lie, all at once, as a number: one byte each, signals first. And what was shown at one scan
 * after the other, as the number of a list: what comes first, and the list of the rest, so that lists that end alike share that end.
 */
export class DisplayedAspects {
  /** No list, or nothing more in it. */
  static readonly NONE = -1;
  private readonly set: StateSet;
  private readonly lists = new StateSet(2);
  private readonly pair = new Int32Array(2);
  private readonly words: Int32Array;
  private readonly now: Uint8Array;

  constructor(
    private readonly signals: number,
    turnouts: number,
  ) {
    this.words = new Int32Array(Math.max(1, Math.ceil((signals + turnouts) / 4)));
    this.now = new Uint8Array(this.words.buffer);
    this.set = new StateSet(this.words.length);
  }

  /** The number of what is shown now, read from memory. */
  take(memory: Int32Array, aspectSlots: readonly number[], turnouts: Int32Array): number {
    for (let s = 0; s < aspectSlots.length; s++) this.now[s] = memory[aspectSlots[s]!]!;
    for (let t = 0; t < turnouts.length; t++) this.now[aspectSlots.length + t] = turnouts[t]!;
    return numberIn(this.set, this.words);
  }
  /** By number: a signal’s aspect, or after all of them how a turnout lies. */
  thing(displayed: number, thing: number): number {
    return (this.set.word(displayed, thing >> 2) >>> ((thing & 3) * 8)) & 255;
  }
  lies(displayed: number, motor: number): number {
    return this.thing(displayed, this.signals + motor);
  }

  /** The number of a list of the first so many. */
  listOf(displays: Int32Array, count: number): number {
    let list = DisplayedAspects.NONE;
    for (let i = count - 1; i >= 0; i--) {
      this.pair[0] = displays[i]!;
      this.pair[1] = list;
      list = numberIn(this.lists, this.pair);
    }
    return list;
  }
  first(list: number): number {
    return this.lists.word(list, 0);
  }
  rest(list: number): number {
    return this.lists.word(list, 1);
  }

  get bytes(): number {
    return this.set.bytes + this.lists.bytes;
  }
}
