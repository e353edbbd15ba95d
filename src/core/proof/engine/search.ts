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
  /** Adds a state to which a step leads from the current one; its number, and whether it is new as `isNew`. */
  add(packed: Int32Array): number {
    const number = this.set.add(packed);
    this.isNew = number >= 0;
    return number < 0 ? ~number : number;
  }
  isNew = false;
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
