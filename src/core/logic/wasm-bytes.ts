/** The few instructions of WebAssembly that scan programs need, by their numbers in the published core specification. */
export const Wasm = {
  if: 0x04,
  else: 0x05,
  end: 0x0b,
  return: 0x0f,
  call: 0x10,
  select: 0x1b,
  localGet: 0x20,
  localSet: 0x21,
  localTee: 0x22,
  globalGet: 0x23,
  globalSet: 0x24,
  load: 0x28,
  store: 0x36,
  const: 0x41,
  eqz: 0x45,
  eq: 0x46,
  ltSigned: 0x48,
  geSigned: 0x4e,
  add: 0x6a,
  sub: 0x6b,
  and: 0x71,
  or: 0x72,
  xor: 0x73,
  shiftLeft: 0x74,
  /** Zeros come in from the left. */
  shiftRight: 0x76,
  i32: 0x7f,
  none: 0x40,
} as const;

/** Unsigned number in LEB128, as modules write counts, indices and offsets. */
export function unsigned(value: number): number[] {
  const bytes: number[] = [];
  let rest = value >>> 0;
  do {
    const low = rest & 0x7f;
    rest >>>= 7;
    bytes.push(rest === 0 ? low : low | 0x80);
  } while (rest !== 0);
  return bytes;
}

/** Signed number in LEB128, as constants are written. */
export function signed(value: number): number[] {
  const bytes: number[] = [];
  let rest = value | 0;
  for (;;) {
    const low = rest & 0x7f;
    rest >>= 7;
    const done = (rest === 0 && (low & 0x40) === 0) || (rest === -1 && (low & 0x40) !== 0);
    bytes.push(done ? low : low | 0x80);
    if (done) return bytes;
  }
}

export interface WasmFunction {
  parameters: number;
  results: 0 | 1;
  /** 32-bit locals beyond the parameters. */
  locals: number;
  /** Instructions without the closing end. */
  body: number[];
  exportAs?: string;
}

const text = (value: string) => [...unsigned(value.length), ...[...value].map((letter) => letter.charCodeAt(0))];

/** A module of functions on 32-bit numbers, with mutable globals that start at 0 and one memory, both exported by name. */
export function moduleBytes(functions: WasmFunction[], globals: string[], memoryPages: number): Uint8Array {
  const section = (id: number, entries: number[][]): number[] => {
    const body = [...unsigned(entries.length)];
    for (const entry of entries) for (const byte of entry) body.push(byte);
    return [id, ...unsigned(body.length), ...body];
  };
  const repeat = (count: number) => Array.from({ length: count }, () => Wasm.i32 as number);
  const types = functions.map((f) => [
    0x60,
    ...unsigned(f.parameters),
    ...repeat(f.parameters),
    ...unsigned(f.results),
    ...repeat(f.results),
  ]);
  const exported = [
    [...text('memory'), 0x02, 0],
    ...globals.map((name, i) => [...text(name), 0x03, ...unsigned(i)]),
    ...functions.flatMap((f, i) => (f.exportAs ? [[...text(f.exportAs), 0x00, ...unsigned(i)]] : [])),
  ];
  const code = functions.map((f) => {
    const body = f.locals > 0 ? [1, ...unsigned(f.locals), Wasm.i32] : [0];
    for (const byte of f.body) body.push(byte);
    body.push(Wasm.end);
    const size = unsigned(body.length);
    return size.concat(body);
  });
  const parts = [
    [0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00],
    section(1, types),
    section(
      3,
      functions.map((_, i) => unsigned(i)),
    ),
    section(5, [[0x00, ...unsigned(memoryPages)]]),
    section(
      6,
      globals.map(() => [Wasm.i32, 0x01, Wasm.const, 0x00, Wasm.end]),
    ),
    section(7, exported),
    section(10, code),
  ];
  const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
