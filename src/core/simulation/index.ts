/** Plant and rule program in one seeded, deterministic loop, with its trace hash. */

export type { Command, TimedCommand } from './command';
export { HARM_IDS, HARMS, type HarmId, harmOfEvent, harmsNow, stanceNow } from './harms';
export { Random } from './random';
export type { KeptRun, KeptRunRow, Recording } from './recording';
export { Rehearsal, type RehearsalEvent, replay, TICK_MS } from './rehearsal';
export {
  frameOf,
  PathRecorder,
  type PathSample,
  type RehearsalFrame,
  SAMPLE_TICKS,
  type Sample,
  shownTo,
  type TrainFrame,
  tickSeconds,
} from './rehearsal-frame';
export { firstDifference, type RunSummary, summariseRun } from './run-summary';
export {
  EVENT_KINDS,
  type EventKind,
  eventKind,
  eventTrains,
  isMishap,
  type SpokenEvent,
  sayEvent,
} from './spoken-event';
export { freeOf, isSaid, type Telling, takenOf, tellingsOf } from './tell-direction';
export { TraceHash } from './trace-hash';
