/** One document through every stage: the scheme, its rule program, and all findings. */
export type { AspectMatrix, Some } from './aspect-matrix';
export { type AutomaticView, allAutomatic } from './automatic-view';
export { reasonBlock } from './block-reason';
export { type Cause, causesIn } from './cause';
export { checkDesign, type Design } from './check-design';
export { comparePoints, type PointsDivision } from './compare-points';
export { type Cycle, type CycleStep, exploreCycle, rehearseCycle, roundOf } from './cycle';
export {
  type BlockView,
  type DesignView,
  type DistrictView,
  viewDesign,
} from './design-view';
export { FAILURES, type FailOutcome, type FailRow, type FailSum, sumOf } from './fail-direction';
export { type FailureFix, type FailureFixes, triedOnFailure } from './failure-fixes';
export { type Ended, type HowManyTrains, howManyTrains, type SoManyTrains, withTrains } from './how-many-trains';
export { type InterlockingCheck, interlockingChecks } from './interlocking-checks';
export type { KeptRun, KeptRunRow } from './kept-run';
export { leftOut } from './left-out';
export { type ConflictCell, type FlankCell, type LockingRow, lockingTable } from './locking-table';
export { type NewNumber, type Numbering, numberSignals, numberTracks } from './number-signals';
export { type OwnRuleRow, ownRuleList } from './own-rule-list';
export { type OwnScheme, ownSchemes } from './own-schemes';
export { type PointsView, viewPoints } from './points-view';
export { type AutomationProposal, type AutomationProposals, proposeAutomation } from './propose-automation';
export { type HeldPoints, type LockProposal, type LockProposals, proposeLocks } from './propose-locks';
export {
  type ProposedSignal,
  placeProposed,
  proposeSignals,
  type SignalProposal,
} from './propose-signals';
export { type Room, roomForTrains } from './room-for-trains';
export type { RuleOf, RulesAbout, RulesRead, TextFault } from './rule-desk';
export { costOf, type SchemeFigures, schemeFigures } from './scheme-figures';
export { sharedText } from './shared-text';
export { type SignalPlace, sightMm, signalPlace } from './signal-place';
export { type SignalView, viewSignal } from './signal-view';
export { type SpotPlace, spotPlace } from './spot-place';
export { type StandsAt, standsAt, worstOn } from './stands-at';
export { blockOfStart, startBehind, startIn } from './start-place';
export { type TrackTurnout, trackTurnouts } from './track-turnouts';
export { Bench, type Trial, type Tried, tryByHand } from './trial';
export { sayTogether, type TriedFix, type TriedFixes, triedFixes } from './tried-fixes';
export { type Standing, waitingPlaces } from './waiting-places';
