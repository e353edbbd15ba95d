import type { Compiled } from './compile';

/**
 * Byte code: one word an operation, its operands behind it. It stands in the interpreter's own file so that build tools
 * put the numbers into the switch, which engines then turn into a jump table.
 */
export enum Op {
  Const = 0,
  Load = 1,
  Previous = 2,
  Not = 3,
  And = 4,
  Or = 5,
  Is = 6,
  Choose = 7,
  SR = 8,
  RS = 9,
  TON = 10,
  TOF = 11,
  TP = 12,
  RTrig = 13,
  FTrig = 14,
  Store = 15,
}

const NEVER = 0x7fffffff;

/**
 * Runs a compiled program scan by scan: the referee that every faster evaluator must agree with. Times are whole
 * milliseconds since power-up. A timer counts from the scan that saw its edge, and ends at the first scan at which its
 * whole time has passed: a hold is never shorter than promised, and at most one scan longer.
 */
export class Interpreter {
  readonly values: Int32Array;
  private readonly before: Int32Array;
  private readonly state: Int32Array;
  private readonly stack: Int32Array;
  private lastInputs: Int32Array;
  private now = 0;
  private deadline = NEVER;
  private settled = false;
  /** Scans that were skipped because nothing could change. */
  skipped = 0;

  constructor(
    readonly compiled: Compiled,
    private readonly skipSettled = true,
  ) {
    this.values = new Int32Array(compiled.slotCount);
    this.before = new Int32Array(compiled.slotCount);
    this.state = compiled.state.slice();
    this.stack = new Int32Array(compiled.stackDepth);
    this.lastInputs = new Int32Array(compiled.inputs);
  }

  /** Sets an input for the scans to come. Booleans are 0 and 1, enumerations the index of the value. */
  setInput(slot: number, value: number): void {
    if (slot >= this.compiled.inputs) throw new RangeError(`Slot ${slot} is no input.`);
    this.values[slot] = value;
  }

  valueOf(name: string): number {
    const slot = this.compiled.slots.get(name);
    if (slot === undefined) throw new RangeError(`There is no “${name}” in the program.`);
    return this.values[slot]!;
  }

  /** One scan at time `nowMs`. Returns false when it was skipped, since nothing could have changed. */
  scan(nowMs: number): boolean {
    this.now = nowMs;
    if (this.skipSettled && this.settled && nowMs < this.deadline && this.sameInputs()) {
      this.skipped += 1;
      return false;
    }
    this.lastInputs.set(this.values.subarray(0, this.compiled.inputs));
    this.deadline = NEVER;
    this.settled = !this.run();
    return true;
  }

  private sameInputs(): boolean {
    const { values, lastInputs } = this;
    for (let i = 0; i < lastInputs.length; i++) if (values[i] !== lastInputs[i]) return false;
    return true;
  }

  /** Evaluates every rule; true when any value or memory changed, so that the next scan may change more. */
  private run(): boolean {
    const { values, before, state, stack, now } = this;
    const code = this.compiled.code;
    let changed = false;
    let top = -1;
    for (let pc = 0; pc < code.length; ) {
      switch (code[pc++]) {
        case Op.Const:
          stack[++top] = code[pc++]!;
          break;
        case Op.Load:
          stack[++top] = values[code[pc++]!]!;
          break;
        case Op.Previous:
          stack[++top] = before[code[pc++]!]!;
          break;
        case Op.Not:
          stack[top] = stack[top]! ^ 1;
          break;
        case Op.And: {
          const n = code[pc++]!;
          let all = 1;
          for (let i = 0; i < n; i++) all &= stack[top--]!;
          stack[++top] = all;
          break;
        }
        case Op.Or: {
          const n = code[pc++]!;
          let any = 0;
          for (let i = 0; i < n; i++) any |= stack[top--]!;
          stack[++top] = any;
          break;
        }
        case Op.Is: {
          const right = stack[top--]!;
          stack[top] = stack[top] === right ? 1 : 0;
          break;
        }
        case Op.Choose: {
          const otherwise = stack[top--]!;
          const then = stack[top--]!;
          stack[top] = stack[top] ? then : otherwise;
          break;
        }
        case Op.SR:
        case Op.RS: {
          const setWins = code[pc - 1] === Op.SR;
          const at = code[pc++]!;
          const reset = stack[top--]!;
          const set = stack[top]!;
          const q = setWins ? set | ((reset ^ 1) & state[at]!) : (reset ^ 1) & (set | state[at]!);
          if (q !== state[at]) {
            state[at] = q;
            changed = true;
          }
          stack[top] = q;
          break;
        }
        case Op.TON:
        case Op.TOF:
        case Op.TP: {
          const op = code[pc - 1]!;
          const at = code[pc]!;
          const ms = code[pc + 1]!;
          pc += 2;
          stack[top] = this.timer(op, stack[top]!, at, ms, now);
          break;
        }
        case Op.RTrig:
        case Op.FTrig: {
          const rising = code[pc - 1] === Op.RTrig;
          const at = code[pc++]!;
          const input = stack[top]!;
          const last = state[at]!;
          if (input !== last) {
            state[at] = input;
            changed = true;
          }
          stack[top] = rising ? input & (last ^ 1) : last & (input ^ 1);
          break;
        }
        case Op.Store: {
          const slot = code[pc++]!;
          const value = stack[top--]!;
          if (values[slot] !== value) {
            values[slot] = value;
            changed = true;
          }
          break;
        }
      }
    }
    for (let i = 0; i < values.length; i++) {
      if (before[i] !== values[i]) {
        before[i] = values[i]!;
        changed = true;
      }
    }
    return changed;
  }

  /**
   * State of a timer: [input of the last scan, when it began to count, whether it counts].
   * A timer that starts “on” behaves as if its input had been on until power-up.
   */
  private timer(op: number, input: number, at: number, ms: number, now: number): number {
    const { state } = this;
    const last = state[at]!;
    state[at] = input;
    if (op === Op.TON) {
      if (!input) return 0;
      if (!last) state[at + 1] = now;
      return this.elapsed(state[at + 1]!, ms, now) ? 1 : 0;
    }
    if (op === Op.TOF) {
      if (input) return 1;
      if (last) {
        state[at + 1] = now;
        state[at + 2] = 1;
      }
      if (state[at + 2] && this.elapsed(state[at + 1]!, ms, now)) state[at + 2] = 0;
      return state[at + 2]!;
    }
    if (input && !last && !state[at + 2]) {
      state[at + 1] = now;
      state[at + 2] = 1;
    }
    if (state[at + 2] && this.elapsed(state[at + 1]!, ms, now)) state[at + 2] = 0;
    return state[at + 2]!;
  }

  /** Whether a time has passed; when not, remembers the moment as one at which a scan must not be skipped. */
  private elapsed(since: number, ms: number, now: number): boolean {
    if (now - since >= ms) return true;
    this.deadline = Math.min(this.deadline, since + ms);
    return false;
  }
}
