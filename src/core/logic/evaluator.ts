import type { Compiled } from './compile';

export const NEVER = 0x7fffffff;

/** The values and memories of a program at one moment. */
export interface Kept {
  values: Int32Array;
  before: Int32Array;
  state: Int32Array;
}

/**
 * Runs a compiled program scan by scan. Times are whole milliseconds since power-up. A timer counts from the scan that saw its
 * edge, and ends at the first scan at which its whole time has passed: a hold is never shorter than promised, and at most
 * one scan longer. A scan is skipped when inputs are the same, the one before changed nothing, and no timer ends.
 */
export abstract class Evaluator {
  abstract readonly values: Int32Array;
  /** What latches, edges and timers remember, laid out as in `Compiled.state`. */
  abstract readonly state: Int32Array;
  /** The values of the scan before, as PREVIOUS reads them; only slots that some PREVIOUS reads are kept. */
  abstract readonly before: Int32Array;
  /** The earliest moment at which a timer that counts will end. */
  protected deadline = NEVER;
  /** Some input has another value than at the last scan, or had one for a while. */
  private changed = true;
  private settled = false;
  /** Scans that were skipped because nothing could change. */
  skipped = 0;

  constructor(
    readonly compiled: Compiled,
    private readonly skipSettled: boolean,
  ) {}

  /** Evaluates every rule and sets the deadline; true when any value or memory changed, so that the next scan may change more. */
  protected abstract run(nowMs: number): boolean;

  /** Sets an input for the scans to come. Booleans are 0 and 1, enumerations the index of the value. */
  setInput(slot: number, value: number): void {
    if (slot >= this.compiled.inputs) throw new RangeError(`Slot ${slot} is no input.`);
    if (this.values[slot] === value) return;
    this.values[slot] = value;
    this.changed = true;
  }

  valueOf(name: string): number {
    const slot = this.compiled.slots.get(name);
    if (slot === undefined) throw new RangeError(`There is no “${name}” in the program.`);
    return this.values[slot]!;
  }

  /** One scan at time `nowMs`. Returns false when it was skipped, since nothing could have changed. */
  scan(nowMs: number): boolean {
    if (this.skipSettled && this.settled && nowMs < this.deadline && !this.changed) {
      this.skipped += 1;
      return false;
    }
    this.changed = false;
    this.deadline = NEVER;
    this.settled = !this.run(nowMs);
    return true;
  }

  /** Nothing will change before that moment unless an input does: until a timer ends, or not at all. */
  get restsUntil(): number {
    return this.settled ? this.deadline : 0;
  }

  /** All that it holds now, to go back to. */
  keep(): Kept {
    return { values: this.values.slice(), before: this.before.slice(), state: this.state.slice() };
  }
  goBackTo({ values, before, state }: Kept): void {
    this.values.set(values);
    this.before.set(before);
    this.state.set(state);
    this.settled = false;
  }
}
