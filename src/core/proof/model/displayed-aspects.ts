import { grown, numberIn, StateSet } from '../engine/state-set';

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
  /** Signals that do not show stop, as bits: by the number of what is shown, and of a list those of all that is in it. */
  private readonly signalWords: number;
  private clear: Int32Array;
  private clearInList: Int32Array;

  /** `stops`: of each aspect, by its number, whether it orders trains to stop at the signal. */
  constructor(
    private readonly signals: number,
    turnouts: number,
    private readonly stops: readonly boolean[],
  ) {
    this.words = new Int32Array(Math.max(1, Math.ceil((signals + turnouts) / 4)));
    this.now = new Uint8Array(this.words.buffer);
    this.set = new StateSet(this.words.length);
    this.signalWords = Math.max(1, Math.ceil(signals / 32));
    this.clear = new Int32Array(64 * this.signalWords);
    this.clearInList = new Int32Array(64 * this.signalWords);
  }

  /** The number of what is shown now, read from memory. */
  take(memory: Int32Array, aspectSlots: readonly number[], turnouts: Int32Array): number {
    for (let s = 0; s < aspectSlots.length; s++) this.now[s] = memory[aspectSlots[s]!]!;
    for (let t = 0; t < turnouts.length; t++) this.now[aspectSlots.length + t] = turnouts[t]!;
    const known = this.set.size;
    const number = numberIn(this.set, this.words);
    if (number === known) this.noteClear(number);
    return number;
  }
  private noteClear(displayed: number): void {
    const at = displayed * this.signalWords;
    if (at + this.signalWords > this.clear.length) this.clear = grown(this.clear);
    for (let s = 0; s < this.signals; s++) if (!this.stops[this.now[s]!]) this.clear[at + (s >> 5)]! |= 1 << (s & 31);
  }

  /** By number: a signal’s aspect, or after all of them how a turnout lies. */
  thing(displayed: number, thing: number): number {
    return (this.set.word(displayed, thing >> 2) >>> ((thing & 3) * 8)) & 255;
  }
  lies(displayed: number, motor: number): number {
    return this.thing(displayed, this.signals + motor);
  }
  /** A signal shows another aspect than stop. */
  isClear(displayed: number, signal: number): boolean {
    return ((this.clear[displayed * this.signalWords + (signal >> 5)]! >> (signal & 31)) & 1) === 1;
  }
  /** It does so anywhere in a list. */
  isClearInList(list: number, signal: number): boolean {
    return ((this.clearInList[list * this.signalWords + (signal >> 5)]! >> (signal & 31)) & 1) === 1;
  }

  /** The number of a list of the first so many. */
  listOf(displays: Int32Array, count: number): number {
    let list = DisplayedAspects.NONE;
    for (let i = count - 1; i >= 0; i--) {
      this.pair[0] = displays[i]!;
      this.pair[1] = list;
      const known = this.lists.size;
      const rest = list;
      list = numberIn(this.lists, this.pair);
      if (list === known) this.noteClearInList(list, displays[i]!, rest);
    }
    return list;
  }
  private noteClearInList(list: number, first: number, rest: number): void {
    const words = this.signalWords;
    if ((list + 1) * words > this.clearInList.length) this.clearInList = grown(this.clearInList);
    for (let w = 0; w < words; w++)
      this.clearInList[list * words + w] =
        this.clear[first * words + w]! | (rest < 0 ? 0 : this.clearInList[rest * words + w]!);
  }
  first(list: number): number {
    return this.lists.word(list, 0);
  }
  rest(list: number): number {
    return this.lists.word(list, 1);
  }

  get bytes(): number {
    return this.set.bytes + this.lists.bytes + this.clear.byteLength + this.clearInList.byteLength;
  }
}
