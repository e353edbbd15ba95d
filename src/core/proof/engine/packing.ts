import { moduleBytes, signed, startWasm, unsigned, Wasm, type WasmFunction, type WasmProgram } from '../../logic';

const BYTES = 4;
const PAGE = 65_536;
const load = (word: number) => [Wasm.const, 0, Wasm.load, 2, ...unsigned(BYTES * word)];
const store = (word: number) => [Wasm.store, 2, ...unsigned(BYTES * word)];

/** A word of memory whose value is part of a state: by its number there, and where it stands in the packed state. */
export interface Field {
  from: number;
  word: number;
  shift: number;
  mask: number;
}

/**
 * Small numbers that stand in words of memory, packed into few 32-bit words, none across two of them. Packing and unpacking are
 * straight-line WebAssembly, since a proof does them for every step.
 */
export class Packing {
  private used = 0;
  private readonly fields: Field[] = [];

  /** How many words a packed state takes. */
  get words(): number {
    return 1 + (this.fields[this.fields.length - 1]?.word ?? 0);
  }

  /** Makes a word of memory part of the state; it holds numbers from 0 up to but not including `values`. */
  field(from: number, values: number): Field {
    const bits = Math.max(1, 32 - Math.clz32(Math.max(1, values - 1)));
    const fits = this.used + bits <= 32;
    const word = this.fields.length === 0 ? 0 : this.words - (fits ? 1 : 0);
    const shift = fits ? this.used : 0;
    this.used = shift + bits;
    const field = { from, word, shift, mask: bits === 32 ? -1 : (1 << bits) - 1 };
    this.fields.push(field);
    return field;
  }

  /** Functions `pack`, which packs the fields to one word of their memory and those after it, and `unpack`, which restores them from another. */
  functions(packTo: number, unpackFrom: number): WasmFunction[] {
    const constant = (value: number) => [Wasm.const, ...signed(value)];
    const words = Array.from({ length: this.words }, (_, word) => this.fields.filter((field) => field.word === word));
    const pack = words.flatMap((fields, word) => {
      const parts = fields.flatMap(({ from, shift, mask }, i) => [
        ...[...load(from), ...constant(mask), Wasm.and, ...constant(shift), Wasm.shiftLeft],
        ...(i === 0 ? [] : [Wasm.or]),
      ]);
      return fields.length === 0 ? [] : [Wasm.const, 0, ...parts, ...store(packTo + word)];
    });
    const unpack = words.flatMap((fields, word) => [
      ...[...load(unpackFrom + word), Wasm.localSet, 0],
      ...fields.flatMap(({ from, shift, mask }) => [
        ...[Wasm.const, 0, Wasm.localGet, 0, ...constant(shift), Wasm.shiftRight, ...constant(mask), Wasm.and],
        ...store(from),
      ]),
    ]);
    return [
      { parameters: 0, results: 0, locals: 0, exportAs: 'pack', body: pack },
      { parameters: 0, results: 0, locals: 1, exportAs: 'unpack', body: unpack },
    ];
  }

  /** A memory of its own for fields that stand in its first `count` words, with the packed state behind them, and the one to go back to. */
  start(count: number): PackingMachine {
    const functions = this.functions(count, count + this.words);
    const pages = Math.ceil((BYTES * (count + 2 * this.words)) / PAGE);
    const machine = startWasm<Omit<PackingMachine, 'fields' | 'packed' | 'origin'> & WasmProgram>(
      moduleBytes(functions, [], pages),
    );
    const memory = new Int32Array(machine.memory.buffer);
    return {
      fields: memory.subarray(0, count),
      packed: memory.subarray(count, count + this.words),
      origin: memory.subarray(count + this.words, count + 2 * this.words),
      pack: machine.pack,
      unpack: machine.unpack,
    };
  }
}

export interface PackingMachine {
  fields: Int32Array;
  /** Where `pack` writes, and from where `unpack` reads. */
  packed: Int32Array;
  origin: Int32Array;
  pack(): void;
  unpack(): void;
}
