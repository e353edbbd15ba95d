/**
 * Every reachable state of plant and rule program. `placements.ts` turns a train’s way into a list of events, `model.ts` joins
 * trains, turnouts and program into one machine, `explore.ts` finds all its states, `counterexample.ts` tells a way to hazard in words,
 * `write-promela.ts` writes the same machine for another checker.
 */
export { countBlockSteps } from './block-steps';
export type { CounterexampleStep } from './counterexample';
export { Explorer } from './explore';
export { ProofModel } from './model';
export { UNNOTICED } from './moves';
export { type Placement, PlacementsOfTrain } from './placements';
export { hazardFlag } from './promela-text';
export { meet } from './proof-train';
export {
  type Explain,
  PROPERTY_WORDS,
  type Proof,
  type ProofProgress,
  ProofRun,
  type Property,
  proofKey,
  type Verdict,
} from './prove';
export { STANDING_TICKS } from './standing-start';
export { StateSet } from './state-set';
export { type Steered, steerCounterexample } from './steer';
export { STANDARD_SWITCHES, SWITCH_IDS, SWITCHES, type Switch } from './switches';
export { writePlantPromela } from './write-plant-promela';
export { writePromela } from './write-promela';
