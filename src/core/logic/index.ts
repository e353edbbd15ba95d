/**
 * The rule language: `expr.ts` is the tree, `write-text.ts` and `read-text.ts` its text form, `compile.ts` orders
 * it, `interpret.ts` and, faster, `emit-wasm.ts` run it, `why.ts` explains a present value. It knows nothing of trains.
 */
export * from './compile';
export { decidingFacts, type Fact } from './deciding-facts';
export * from './emit-wasm';
export * from './emitted';
export * from './evaluator';
export * from './expr';
export * from './interpret';
export * from './read-text';
export { moduleBytes, signed, unsigned, Wasm, type WasmFunction } from './wasm-bytes';
export * from './why';
export * from './write-text';
