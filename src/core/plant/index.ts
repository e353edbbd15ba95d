/** Trains, motion, detectors and turnout motors: what the track does when rules and people command it. */
export { Plant, type PlantEvent, type PowerOf, type Spread } from './plant';
export { PlantProcess, POSITIONS, type Process, type ReadAs } from './process';
export { RollingTrain } from './rolling-train';
export { entriesBetween, faceToFace, inOneBlock, type Stance, stanceOf, turnoutsUnder, whyNotTurnBack } from './stance';
export { layTape, stepOn, type TapeEntry, turnTape } from './tape';
export { type WayTo, wayTo } from './way-to';
