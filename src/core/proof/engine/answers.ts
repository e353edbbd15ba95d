import { StateSet } from './state-set';

/** How many are kept, at least and at most. */
const [FEWEST, MOST] = [1 << 10, 1 << 18];
const EMPTY = -1;

/**
 * Questions answered before: a few words, of which the first is not below 0, and two numbers in answer. Each has two places side
 * by side, and gives way to another that falls there, so that memory stays bounded.
 */
export class Answers {
  private readonly stride: number;
  private kept: Int32Array;
  private count = 0;

  constructor(private readonly words: number) {
    this.stride = words + 2;
    this.kept = new Int32Array(FEWEST * this.stride).fill(EMPTY);
  }

  /** Where the answer to a question stands, for `first` and `second`; below 0 when it is not known. */
  find(question: Int32Array): number {
    const { kept, stride, words } = this;
    const near = this.placeOf(question);
    for (let at = near; at <= near + stride; at += stride) {
      let w = 0;
      while (w < words && kept[at + w] === question[w]) w += 1;
      if (w === words) return at;
    }
    return EMPTY;
  }
  first(at: number): number {
    return this.kept[at + this.words]!;
  }
  second(at: number): number {
    return this.kept[at + this.words + 1]!;
  }

  keep(question: Int32Array, first: number, second: number): void {
    this.count += 1;
    if (this.count * this.stride > this.kept.length && this.kept.length < MOST * this.stride) this.grow();
    const at = this.freeFor(question);
    for (let w = 0; w < this.words; w++) this.kept[at + w] = question[w]!;
    this.kept[at + this.words] = first;
    this.kept[at + this.words + 1] = second;
  }

  private placeOf(question: Int32Array): number {
    const places = this.kept.length / this.stride;
    return (StateSet.hash(question, 0, this.words) & (places - 2)) * this.stride;
  }
  private freeFor(question: Int32Array): number {
    const known = this.find(question);
    if (known >= 0) return known;
    const near = this.placeOf(question);
    return this.kept[near] === EMPTY ? near : near + this.stride;
  }
  private grow(): void {
    const { kept, stride } = this;
    this.kept = new Int32Array(kept.length * 4).fill(EMPTY);
    for (let at = 0; at < kept.length; at += stride)
      if (kept[at] !== EMPTY) {
        const answer = kept.subarray(at, at + stride);
        this.kept.set(answer, this.freeFor(answer));
      }
  }

  get bytes(): number {
    return this.kept.byteLength;
  }
}
