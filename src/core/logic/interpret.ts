import type { Compiled } from './compile';
import { Evaluator } from './evaluator';

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

/** Runs the byte code word by word: the referee that every faster evaluator must agree with. */
export class Interpreter extends Evaluator {
  readonly values: Int32Array;
  readonly before: Int32Array;
  readonly state: Int32Array;
  private readonly stack: Int32Array;

  constructor(compiled: Compiled, skipSettled = true) {
    super(compiled, skipSettled);
    this.values = new Int32Array(compiled.slotCount);
    this.before = new Int32Array(compiled.slotCount);
    this.state = compiled.state.slice();
    this.stack = new Int32Array(compiled.stackDepth);
  }

  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each operation, in the one loop that runs every scan.
  protected run(now: number): boolean {
    const { values, before, state, stack } = this;
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
