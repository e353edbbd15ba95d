/** A controller and the simulated plant in one seeded, deterministic loop, with its trace hash. */

export { type Command, failuresIn, isCommand, sayCommand, type TimedCommand } from './commands';
export { EVENT_GROUPS, type EventGroup, type RehearsalEvent, sayEvent, type TimedEvent } from './events';
export { explainRun } from './explain-run';
export {
  DEEDS,
  type Deed,
  type Displayed,
  type FootprintHazardId,
  footprintNow,
  HAZARD_IDS,
  HAZARDS,
  type HazardId,
  hazardOfEvent,
  hazardsDisplayed,
  hazardsNow,
  hazardsOfFootprints,
} from './hazards';
export { Random } from './random';
export type { Recording } from './recording';
export { Rehearsal, replay, TICK_MS } from './rehearsal';
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
export { type Beat, type Member, type Opening, type SharedCommand, SharedRun } from './shared-run';
export { type SpokenEvent, spokenEvent } from './spoken-event';
export { freeOf, slotOf, type Telling, takenOf, tellingsOf } from './tell-direction';
