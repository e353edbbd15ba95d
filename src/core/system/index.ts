/**
 * The compiled System: what a document comes to, for everybody who explains, tries, rehearses, proves, wires or runs it.
 * `system.ts` is what it holds, `terminals.ts` every value of its program that means something outside, `controller.ts` what scans it,
 * `key.ts` by what two of them are the same.
 */
export type { Automatic } from './automatic';
export { Controller, type Running } from './controller';
export { Digest } from './digest';
export { ownRuleFindings } from './own-rule-findings';
export { type PlantParameters, plantParameters, type TrainParameters, trainParameters } from './plant-parameters';
export { isAskedOtherwise, lockOf, type Refusal, refusalOf, thrownBy } from './refusal';
export { type Commanded, compileSystem, type Release, System } from './system';
export { type Terminal, type TerminalKind, Terminals } from './terminals';
