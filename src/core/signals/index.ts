/** Signals on the track: the routes ahead of each through points, and the traffic sections that one direction holds. */

export { type SignalsOn, signalsAlong } from './along';
export { type Conflict, conflictNow, conflictsOf } from './conflicts';
export { type LettingIn, lettingIn, standsOn } from './letting-in';
export { END_OF_TRACK, mustStopBefore } from './obligation';
export { canBothBeSet, type Route, readSignals, type SignalReading } from './routes';
export { signalFindings } from './signal-findings';
export { findTrafficSections, saySide, type TrafficSection, type TrafficSections } from './traffic-sections';
export { type Warning, warningsOf } from './warning';
export { type WaysRun, waysRun } from './ways-run';
