import { signed, unsigned, Wasm, type WasmFunction } from '../logic';

const BYTES = 4;
const load = (address: number) => [Wasm.const, 0, Wasm.load, 2, ...unsigned(address)];

/** A word of memory whose value is part of a state. */
interface Field {
  address: number;
  shift: number;
  mask: number;
}

/**
 * Small numbers that stand in words of memory, packed into few 32-bit words, none across two of them. Packing and unpacking are
 * straight-line WebAssembly, since a proof does them for every step.
 */
export class Packing {
  private used = 0;
  private readonly fields: Field[][] = [[]];

  /** How many words a packed state takes. */
  get words(): number {
    return this.fields.length;
  }

  /** Makes the word at a byte address part of the state; it holds numbers from 0 up to but not including `values`. */
  field(address: number, values: number): void {
    const bits = Math.max(1, 32 - Math.clz32(Math.max(1, values - 1)));
    if (this.used + bits > 32) {
      this.fields.push([]);
      this.used = 0;
    }
    const mask = bits === 32 ? -1 : (1 << bits) - 1;
    this.fields[this.fields.length - 1]!.push({ address, shift: this.used, mask });
    this.used += bits;
  }

  /** Functions `pack`, which packs the fields to one address, and `unpack`, which restores them from another. */
  functions(packTo: number, unpackFrom: number): WasmFunction[] {
    const constant = (value: number) => [Wasm.const, ...signed(value)];
    const pack = this.fields.flatMap((fields, word) => {
      const parts = fields.flatMap(({ address, shift, mask }, i) => [
        ...[...load(address), ...constant(mask), Wasm.and, ...constant(shift), Wasm.shiftLeft],
        ...(i === 0 ? [] : [Wasm.or]),
      ]);
      return [Wasm.const, 0, ...parts, Wasm.store, 2, ...unsigned(packTo + BYTES * word)];
    });
    const unpack = this.fields.flatMap((fields, word) => [
      ...[...load(unpackFrom + BYTES * word), Wasm.localSet, 0],
      ...fields.flatMap(({ address, shift, mask }) => [
        ...[Wasm.const, 0, Wasm.localGet, 0, ...constant(shift), Wasm.shiftRight, ...constant(mask), Wasm.and],
        ...[Wasm.store, 2, ...unsigned(address)],
      ]),
    ]);
    return [
      { parameters: 0, results: 0, locals: 0, exportAs: 'pack', body: pack },
      { parameters: 0, results: 0, locals: 1, exportAs: 'unpack', body: unpack },
    ];
  }
}
