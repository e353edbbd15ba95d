import { numberIn, StateSet } from '../engine/state-set';

/** In place of a print: none was taken, or the rules never settled. */
const NOT_TAKEN = -1;
const UNSETTLED = -2;

/** How the rules take steps, each way by its number: its print, what was shown, turnouts that began to move, and those that were locked in the first scan. */
export class Effects {
  /** Words of bits of turnouts. */
  readonly turnoutWords: number;
  private readonly set: StateSet;
  private readonly now: Int32Array;

  constructor(turnouts: number) {
    this.turnoutWords = Math.max(1, Math.ceil(turnouts / 32));
    this.set = new StateSet(2 + 2 * this.turnoutWords);
    this.now = new Int32Array(this.set.words);
  }

  /** Of the step that is being taken: */
  begin(): void {
    this.now.fill(0);
  }
  /** a turnout begins to move, */
  moves(turnout: number): void {
    this.now[2 + (turnout >> 5)]! |= 1 << (turnout & 31);
  }
  /** or is locked in the first scan. */
  locks(turnout: number): void {
    this.now[2 + this.turnoutWords + (turnout >> 5)]! |= 1 << (turnout & 31);
  }
  /** The number of how it goes, with its print, if one was taken, and the list of what was shown. */
  end(print: number | undefined, shown: number): number {
    this.now[0] = print ?? NOT_TAKEN;
    this.now[1] = shown;
    return numberIn(this.set, this.now);
  }
  endUnsettled(shown: number): number {
    return this.end(UNSETTLED, shown);
  }

  /** The print (`Independence`); below 0 without one. */
  printIn(effect: number): number {
    return this.set.word(effect, 0);
  }
  hasNoPrint(effect: number): boolean {
    return this.set.word(effect, 0) === NOT_TAKEN;
  }
  neverSettles(effect: number): boolean {
    return this.set.word(effect, 0) === UNSETTLED;
  }
  /** What signals showed and how turnouts lay at each scan, as a list of displays. */
  shownIn(effect: number): number {
    return this.set.word(effect, 1);
  }
  /** Turnouts that began to move, as bits of one word after the other. */
  movedIn(effect: number, word: number): number {
    return this.set.word(effect, 2 + word);
  }
  /** Whether a turnout was locked in the first scan. */
  wasLocked(effect: number, motor: number): boolean {
    return ((this.set.word(effect, 2 + this.turnoutWords + (motor >> 5)) >> (motor & 31)) & 1) === 1;
  }

  get bytes(): number {
    return this.set.bytes;
  }
}
