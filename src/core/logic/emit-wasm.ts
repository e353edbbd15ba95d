import type { Compiled } from './compile';
import { NEVER } from './evaluator';
import { Op } from './interpret';
import { moduleBytes, signed, unsigned, Wasm, type WasmFunction } from './wasm-bytes';

/** Words of memory of an emitted program: where its values, its memory and the rest begin, in bytes. */
export interface WasmLayout {
  values: number;
  before: number;
  state: number;
  /** One word for each timer, in the order of `Compiled.timers`: whether it may end now. Only read when untimed. */
  mayEnd: number;
  /** Where room for anything else begins. */
  end: number;
}

const PAGE = 65_536;
/** Rules in one function: engines compile several small ones better than one huge one. */
const CODE_WORDS_A_FUNCTION = 2400;
const GLOBALS = ['now', 'deadline', 'changed'];
const [NOW, DEADLINE, CHANGED] = [0, 1, 2];
const { localGet, localSet, localTee, globalGet, globalSet, and, or, xor, add, sub, eqz } = Wasm;

export function layoutOf(compiled: Compiled): WasmLayout {
  const before = 4 * compiled.slotCount;
  const state = before + 4 * compiled.slotCount;
  const mayEnd = state + 4 * compiled.state.length;
  return { values: 0, before, state, mayEnd, end: mayEnd + 4 * compiled.timers.length };
}

const load = (at: number) => [Wasm.const, 0, Wasm.load, 2, ...unsigned(at)];
/** Stores the value of a local. */
const store = (at: number, local: number) => [Wasm.const, 0, localGet, local, Wasm.store, 2, ...unsigned(at)];
const orChanged = [globalGet, CHANGED, or, globalSet, CHANGED];

export interface EmitOptions {
  /** A timer that counts ends when its word in `mayEnd` says so and at no other time. */
  untimed?: boolean;
  /** Exported functions on the same memory, and how many bytes they use from the end of the layout on. */
  beside?: { functions: WasmFunction[]; bytes: number };
}

/**
 * A rule program as WebAssembly: the byte code of `compile.ts`, operation by operation, as straight-line code on one memory.
 * `scan(now)` makes one scan at a time in ms and returns whether anything changed; inside there is one function for each kind of timer.
 */
export function emitWasm(compiled: Compiled, options: EmitOptions = {}): Uint8Array<ArrayBufferLike> {
  const layout = layoutOf(compiled);
  const timerFunctions = options.untimed ? [tonUntimed(), tofUntimed(), tpUntimed()] : [ton(), tof(), tp()];
  const chunks = chunksOf(compiled, layout);
  const first = timerFunctions.length;
  const scan: WasmFunction = {
    parameters: 1,
    results: 1,
    locals: 1,
    exportAs: 'scan',
    body: [
      ...[localGet, 0, globalSet, NOW, ...constant(NEVER), globalSet, DEADLINE, ...constant(0), globalSet, CHANGED],
      ...chunks.flatMap((_, i) => [Wasm.call, ...unsigned(first + i)]),
      ...rememberPrevious(compiled, layout),
      ...[globalGet, CHANGED],
    ],
  };
  const { functions = [], bytes = 0 } = options.beside ?? {};
  const pages = Math.max(1, Math.ceil((layout.end + bytes) / PAGE));
  return moduleBytes([...timerFunctions, ...chunks, scan, ...functions], GLOBALS, pages);
}

/** Locals 0 to 2 hold what an operation works on. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each operation.
function chunksOf(compiled: Compiled, layout: WasmLayout): WasmFunction[] {
  const { code, timers } = compiled;
  const chunks: WasmFunction[] = [];
  let body: number[] = [];
  const push = (...bytes: number[]) => {
    for (const byte of bytes) body.push(byte);
  };
  const close = () => {
    if (body.length > 0) chunks.push({ parameters: 0, results: 0, locals: 4, body });
    body = [];
  };
  const timerAt = new Map(timers.map((at, i) => [at, i]));
  const stateAt = (at: number) => layout.state + 4 * at;
  for (let pc = 0, started = 0; pc < code.length; ) {
    const op = code[pc++]!;
    switch (op) {
      case Op.Const:
        push(Wasm.const, ...signed(code[pc++]!));
        break;
      case Op.Load:
        push(...load(layout.values + 4 * code[pc++]!));
        break;
      case Op.Previous:
        push(...load(layout.before + 4 * code[pc++]!));
        break;
      case Op.Not:
        push(Wasm.const, 1, xor);
        break;
      case Op.And:
      case Op.Or: {
        const n = code[pc++]!;
        if (n === 0) push(Wasm.const, op === Op.And ? 1 : 0);
        for (let i = 1; i < n; i++) push(op === Op.And ? and : or);
        break;
      }
      case Op.Is:
        push(Wasm.eq);
        break;
      case Op.Choose:
        push(localSet, 2, localSet, 1, localSet, 0, localGet, 1, localGet, 2, localGet, 0, Wasm.select);
        break;
      case Op.SR:
      case Op.RS: {
        const at = stateAt(code[pc++]!);
        push(Wasm.const, 1, xor, localSet, 1, localSet, 0, ...load(at), localSet, 2);
        if (op === Op.SR) push(localGet, 0, localGet, 1, localGet, 2, and, or);
        else push(localGet, 1, localGet, 0, localGet, 2, or, and);
        push(localTee, 3, localGet, 2, xor, ...orChanged, ...store(at, 3), localGet, 3);
        break;
      }
      case Op.TON:
      case Op.TOF:
      case Op.TP: {
        const at = code[pc++]!;
        const ms = code[pc++]!;
        push(Wasm.const, ...signed(stateAt(at)), Wasm.const, ...signed(ms));
        push(Wasm.const, ...signed(layout.mayEnd + 4 * timerAt.get(at)!));
        push(Wasm.call, op - Op.TON);
        break;
      }
      case Op.RTrig:
      case Op.FTrig: {
        const at = stateAt(code[pc++]!);
        push(localSet, 0, ...load(at), localTee, 1, localGet, 0, xor, ...orChanged, ...store(at, 0));
        if (op === Op.RTrig) push(localGet, 0, localGet, 1, Wasm.const, 1, xor, and);
        else push(localGet, 1, localGet, 0, Wasm.const, 1, xor, and);
        break;
      }
      case Op.Store: {
        const at = layout.values + 4 * code[pc++]!;
        push(localTee, 0, ...load(at), xor, ...orChanged, ...store(at, 0));
        if (pc - started > CODE_WORDS_A_FUNCTION) {
          close();
          started = pc;
        }
        break;
      }
    }
  }
  close();
  return chunks;
}

/** Only what some PREVIOUS reads is remembered from scan to scan. */
function rememberPrevious(compiled: Compiled, layout: WasmLayout): number[] {
  return previousSlots(compiled).flatMap((slot) => {
    const [now, before] = [layout.values + 4 * slot, layout.before + 4 * slot];
    return [...load(now), localTee, 1, ...load(before), xor, ...orChanged, ...store(before, 1)];
  });
}

/** Slots that some PREVIOUS reads, in order. */
export function previousSlots(compiled: Compiled): number[] {
  const found = new Set<number>();
  for (let pc = 0; pc < compiled.code.length; ) {
    const op = compiled.code[pc++]!;
    if (op === Op.Previous) found.add(compiled.code[pc]!);
    pc += op === Op.Not || op === Op.Is || op === Op.Choose ? 0 : op >= Op.TON && op <= Op.TP ? 2 : 1;
  }
  return [...found].sort((a, b) => a - b);
}

/** Parameters of a timer: input, address of its state [input of the last scan, since, counts], milliseconds, address of its may-end word. */
const [INPUT, STATE, MS, MAY_END, LAST, RESULT] = [0, 1, 2, 3, 4, 5];
const word = (local: number, offset: number) => [localGet, local, Wasm.load, 2, offset];
const put = (local: number, offset: number, value: number[]) => [localGet, local, ...value, Wasm.store, 2, offset];
const constant = (value: number) => [Wasm.const, ...signed(value)];
const timer = (body: number[]): WasmFunction => ({ parameters: 4, results: 1, locals: 2, body });
const takeInput = [...word(STATE, 0), localSet, LAST, ...put(STATE, 0, [localGet, INPUT])];
const startsCounting = put(STATE, 4, [globalGet, NOW]);
/** Whether the whole time has passed since it began to count; when not, the moment at which it will have counts as a deadline. */
const elapsed = [
  ...[globalGet, NOW, ...word(STATE, 4), sub, localGet, MS, Wasm.geSigned, localTee, RESULT, eqz],
  ...[Wasm.if, Wasm.none],
  ...[...word(STATE, 4), localGet, MS, add, localTee, LAST],
  ...[globalGet, DEADLINE, Wasm.ltSigned, Wasm.if, Wasm.none, localGet, LAST, globalSet, DEADLINE, Wasm.end],
  Wasm.end,
];
const when = (condition: number[], then: number[]) => [...condition, Wasm.if, Wasm.none, ...then, Wasm.end];
const rises = [localGet, INPUT, localGet, LAST, eqz, and];
const counts = word(STATE, 8);

function ton(): WasmFunction {
  return timer([
    ...takeInput,
    ...when([localGet, INPUT, eqz], [...constant(0), Wasm.return]),
    ...when([localGet, LAST, eqz], startsCounting),
    ...elapsed,
    ...[localGet, RESULT],
  ]);
}

/** What TOF and TP share once they know whether they count: the count ends when the time has passed. */
const runOut = [...when(counts, [...elapsed, ...when([localGet, RESULT], put(STATE, 8, constant(0)))]), ...counts];

function tof(): WasmFunction {
  return timer([
    ...takeInput,
    ...when([localGet, INPUT], [...constant(1), Wasm.return]),
    ...when([localGet, LAST], [...startsCounting, ...put(STATE, 8, constant(1))]),
    ...runOut,
  ]);
}

function tp(): WasmFunction {
  return timer([
    ...takeInput,
    ...when([...rises, ...counts, eqz, and], [...startsCounting, ...put(STATE, 8, constant(1))]),
    ...runOut,
  ]);
}

/** Marks that the memory of a timer has changed, so that another scan may change more. */
const moved = [...constant(1), ...orChanged];
const mayEnd = word(MAY_END, 0);
const changesInput = when([localGet, INPUT, localGet, LAST, xor], moved);

/** TON without a clock: its third word says that it has ended. */
function tonUntimed(): WasmFunction {
  return timer([
    ...takeInput,
    ...changesInput,
    ...when([localGet, INPUT, eqz], [...put(STATE, 8, constant(0)), ...constant(0), Wasm.return]),
    ...when([...mayEnd, ...counts, eqz, and], [...put(STATE, 8, constant(1)), ...moved]),
    ...counts,
  ]);
}

const runOutUntimed = [...when([...counts, ...mayEnd, and], [...put(STATE, 8, constant(0)), ...moved]), ...counts];

function tofUntimed(): WasmFunction {
  return timer([
    ...takeInput,
    ...changesInput,
    ...when([localGet, INPUT], [...put(STATE, 8, constant(0)), ...constant(1), Wasm.return]),
    ...when([localGet, LAST], put(STATE, 8, constant(1))),
    ...runOutUntimed,
  ]);
}

function tpUntimed(): WasmFunction {
  return timer([
    ...takeInput,
    ...changesInput,
    ...when([...rises, ...counts, eqz, and], put(STATE, 8, constant(1))),
    ...runOutUntimed,
  ]);
}
