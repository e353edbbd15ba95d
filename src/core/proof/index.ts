/**
 * Every reachable state of plant and rule program. `engine/` searches states and knows no railway; `model/` joins trains, turnouts and rules into
 * one machine, each train a list of placements; `moves/` are the steps that it can take, `hazards/` what is looked for in each; `explore.ts` finds all its
 * states, `counterexample.ts` tells how a hazard comes about, `steer.ts` brings a rehearsal to it. `export/`, loaded by whoever wants it, writes the same
 * machine for another checker.
 */

export type { CounterexampleStep } from './counterexample';
export { StateSet } from './engine/state-set';
export { Explorer } from './explore';
export { countBlockSteps } from './model/block-steps';
export { ProofModel } from './model/model';
export type { Placement } from './model/placement';
export { PlacementsOfTrain } from './model/placements';
export { meet } from './model/proof-train';
export { STANDING_TICKS, standingStart } from './model/standing-start';
export { UNNOTICED } from './moves';
export {
  type Explain,
  type Moment,
  PROPERTY_WORDS,
  type Proof,
  type ProofProgress,
  ProofRun,
  type Property,
  proofKey,
  type Verdict,
} from './prove';
export { type Steered, steerCounterexample } from './steer';
export { STANDARD_SWITCHES, SWITCH_IDS, SWITCHES, type Switch } from './switches';
