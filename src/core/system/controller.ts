import { type Evaluator, evaluatorOf, Interpreter } from '../logic';
import type { System } from './system';
import type { TerminalKind } from './terminals';

/** How a controller runs its program; the values are the same, byte for byte. */
export interface Running {
  /** Scans in which nothing can change are left out; they are, unless this is false. */
  skipSettled?: boolean;
  /** By the interpreter, the referee, in place of emitted code. */
  interpreted?: boolean;
}

/**
 * The one thing that scans a program: inputs in, rules, outputs out. What it is connected to, a simulated plant or a bus, sets its inputs before
 * a scan and reads its values after it.
 */
export class Controller {
  readonly evaluator: Evaluator;
  /** Momentary inputs that were worked: true in the scan to come, or, if not fresh, false again. */
  private worked: { slot: number; fresh: boolean }[] = [];
  private readonly detectors: ReadonlySet<number>;

  constructor(
    readonly system: System,
    { skipSettled = true, interpreted = false }: Running = {},
  ) {
    const { compiled, terminals } = system;
    this.detectors = new Set(terminals.ofKind('detector').map(({ slot }) => slot));
    this.evaluator = interpreted ? new Interpreter(compiled, skipSettled) : evaluatorOf(compiled, skipSettled);
  }

  /** How many scans there were that were not left out. */
  scans = 0;

  get values(): Int32Array {
    return this.evaluator.values;
  }

  /** Sets an input until it is set again: 0 or 1, or the number of a value. */
  set(slot: number, value: number): void {
    this.evaluator.setInput(slot, value);
  }
  /** Works an input for one scan. A detector then has again what it notices, which whoever sets inputs brings. */
  pulse(slot: number): void {
    this.worked.push({ slot, fresh: true });
  }
  /** Some input is to be true for the next scan, or false again. */
  get isWorked(): boolean {
    return this.worked.length > 0;
  }
  /** Brings momentary inputs to what they are in the scan to come. To be called once everything else has been set. */
  setWorked(): void {
    for (const one of this.worked) {
      if (one.fresh || !this.detectors.has(one.slot)) this.evaluator.setInput(one.slot, one.fresh ? 1 : 0);
      if (one.fresh) one.fresh = false;
      else one.slot = -1;
    }
    if (this.worked.some(({ slot }) => slot < 0)) this.worked = this.worked.filter(({ slot }) => slot >= 0);
  }

  /** One scan. False when it was left out, since nothing could have changed. */
  scan(nowMs: number): boolean {
    const scanned = this.evaluator.scan(nowMs);
    if (scanned) this.scans += 1;
    return scanned;
  }

  /** The value of a terminal. Throws a RangeError where there is none. */
  valueOf(kind: TerminalKind, of: number, which = ''): number {
    return this.values[this.system.terminals.slot(kind, of, which)]!;
  }
  /** A request for the points of a motor would do nothing now. */
  isLocked(motor: number): boolean {
    const slot = this.system.locks[motor];
    return slot !== undefined && this.values[slot] === 1;
  }
  isOn(kind: TerminalKind, of: number, which = ''): boolean {
    const found = this.system.terminals.find(kind, of, which);
    return found !== undefined && this.values[found.slot] === 1;
  }
}
