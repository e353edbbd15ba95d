/** Trains, motion, detectors and turnout motors: what the track does when rules and people command it. */

export {
  entriesBetween,
  type Footprint,
  faceToFace,
  footprintOf,
  inOneBlock,
  turnoutsUnder,
  whyNotTurnBack,
} from './footprint';
export { Plant, type PlantEvent, type PowerOf, type Tolerance } from './plant';
export { PlantProcess, POSITIONS, type Process, type Puts } from './process';
export { RollingTrain } from './rolling-train';
export { layTape, stepOn, type TapeEntry, turnTape } from './tape';
export { type WayTo, wayTo } from './way-to';
