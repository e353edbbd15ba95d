import type { Compiled } from './compile';
import { emitWasm, layoutOf } from './emit-wasm';
import { Evaluator } from './evaluator';
import { Interpreter } from './interpret';

export interface WasmProgram {
  memory: WebAssembly.Memory;
  /** After a scan, the earliest moment at which a timer that counts will end. */
  deadline: WebAssembly.Global<'i32'>;
  /** One scan; 0 when it changed nothing. */
  scan(nowMs: number): number;
}

/** Starts an emitted module. Throws a CompileError where a page's policy forbids WebAssembly. */
export function startWasm<T extends WasmProgram = WasmProgram>(bytes: Uint8Array): T {
  const module = new WebAssembly.Module(bytes as Uint8Array<ArrayBuffer>);
  return new WebAssembly.Instance(module).exports as unknown as T;
}

/** Runs a program as emitted WebAssembly, with the same result as the interpreter to the last bit. */
export class Emitted extends Evaluator {
  readonly values: Int32Array;
  readonly before: Int32Array;
  readonly state: Int32Array;
  private readonly wasm: WasmProgram;

  constructor(compiled: Compiled, skipSettled = true) {
    super(compiled, skipSettled);
    this.wasm = startWasm(emitWasm(compiled));
    const { buffer } = this.wasm.memory;
    const layout = layoutOf(compiled);
    this.values = new Int32Array(buffer, layout.values, compiled.slotCount);
    this.before = new Int32Array(buffer, layout.before, compiled.slotCount);
    this.state = new Int32Array(buffer, layout.state, compiled.state.length);
    this.state.set(compiled.state);
  }

  protected run(nowMs: number): boolean {
    const changed = this.wasm.scan(nowMs);
    this.deadline = this.wasm.deadline.value;
    return changed !== 0;
  }
}

/** The fastest evaluator that may be used here: emitted code, or the interpreter where a policy forbids it. */
export function evaluatorOf(compiled: Compiled, skipSettled = true): Evaluator {
  try {
    return new Emitted(compiled, skipSettled);
  } catch (error) {
    if (error instanceof WebAssembly.CompileError) return new Interpreter(compiled, skipSettled);
    throw error;
  }
}
