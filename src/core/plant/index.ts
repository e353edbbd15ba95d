/** Trains, motion, detectors and turnout motors: what the track does when rules and people command it. */
export * from './plant';
export * from './rolling-train';
export * from './stance';
export * from './tape';
export * from './turnout-motor';
export * from './way-to';
