/**
 * The rule language: `expr.ts` is the tree, `write-text.ts` and `read-text.ts` its text form, `compile.ts` orders
 * it, `interpret.ts` and, faster, `emit-wasm.ts` run it, `why.ts` explains a present value. It knows nothing of trains.
 */
export { alwaysOf } from './always';
export { type Compiled, compileProgram, RuleProgramError } from './compile';
export { allOf, anyOf, type Condition, sameExpr, Teller } from './conditions';
export { constantOf, memoriesIn, TOO_MANY } from './constant';
export { decidingFacts, type Fact } from './deciding-facts';
export { emitWasm, layoutOf, previousSlots } from './emit-wasm';
export { Emitted, evaluatorOf, startWasm, type WasmProgram } from './emitted';
export { Evaluator } from './evaluator';
export { type Explanation, explain } from './explain';
export {
  and,
  type Declaration,
  type Expr,
  is,
  longestTimerMs,
  name,
  namesIn,
  namesRead,
  not,
  or,
  type Program,
  previous,
  type Role,
  renamed,
  type TerminalMark,
  value,
  type Why,
  when,
} from './expr';
export { Interpreter, Op } from './interpret';
export { presentValue } from './present-value';
export { RuleTextError, readExpr, readProgram } from './read-text';
export { moduleBytes, signed, unsigned, Wasm, type WasmFunction } from './wasm-bytes';
export { sayValue, whyValue } from './why';
export { RESERVED, writeDeclaration, writeExpr, writeName, writeProgram } from './write-text';
