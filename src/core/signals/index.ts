/** Signals on the track: the ways ahead of each through points, and the stretches that one direction holds. */
export { type SignalsOn, signalsAlong } from './along';
export { type Conflict, conflictNow, conflictsOf } from './conflicts';
export { type LettingIn, lettingIn, standsOn } from './letting-in';
export { END_OF_TRACK, mustStopBefore } from './obligation';
export { signalFindings } from './signal-findings';
export { findStretches, type Stretch, type Stretches } from './stretches';
export { type Warning, warningsOf } from './warning';
export { canBothBeSet, readSignals, type SignalReading, type Way } from './ways';
