import { grown, StateSet } from './state-set';

/** States found breadth first, each with the step by which it was found first: the shortest way to it. It knows neither what a state nor what a step is. */
export class Search {
  readonly set: StateSet;
  private next = 0;
  private parents = new Int32Array(1024).fill(-1);
  private steps = new Int32Array(1024);

  /** `first`: the packed state that everything begins with. */
  constructor(first: Int32Array) {
    this.set = new StateSet(first.length);
    this.set.add(first);
    this.noted = new Int32Array(64 * first.length);
    this.numbers = new Int32Array(65);
  }

  /** The state that is being followed, by its number. */
  get current(): number {
    return this.next;
  }
  get finished(): boolean {
    return this.next >= this.set.size;
  }
  get waiting(): number {
    return this.set.size - this.next;
  }
  get bytes(): number {
    return this.set.bytes + this.parents.byteLength + this.steps.byteLength;
  }

  /** Reads the current state. */
  read(into: Int32Array): void {
    this.set.read(this.next, into);
  }
  /** All that leads on from the current state has been added. */
  goOn(): void {
    this.next += 1;
  }
  /** Notes a state to which a step leads from the current one; returns how many were noted before. */
  note(packed: Int32Array): number {
    const { words } = this.set;
    if ((this.count + 1) * words > this.noted.length) {
      this.noted = grown(this.noted);
      this.numbers = new Int32Array(this.noted.length / words + 1);
    }
    for (let w = 0, at = this.count * words; w < words; w++) this.noted[at + w] = packed[w]!;
    return this.count++;
  }
  /** Adds all states noted since, which is quicker than one by one; returns how many. The number of each is then in `numbers`, ~number where it was known. */
  addNoted(): number {
    const { count } = this;
    this.set.addAll(this.noted, count, this.numbers);
    this.count = 0;
    return count;
  }
  numbers: Int32Array;
  private noted: Int32Array;
  private count = 0;

  /** Says by which step the new state of that number was found. */
  foundBy(number: number, step: number): void {
    if (number >= this.parents.length) {
      this.parents = grown(this.parents);
      this.steps = grown(this.steps);
    }
    this.parents[number] = this.next;
    this.steps[number] = step;
  }

  /** The steps from the first state to one. */
  path(to: number): number[] {
    const steps: number[] = [];
    for (let number = to; number > 0; number = this.parents[number]!) steps.push(this.steps[number]!);
    return steps.reverse();
  }
}
