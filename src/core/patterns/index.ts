/**
 * The schools: each pattern says what it asks for at each place, in the slots of `slots.ts`, which says how they come together.
 * `scheme.ts` gathers what they need, `pattern-list.ts` lists them, `rule-program.ts` and what it calls make rules of the slots.
 */

export { type Arrival, arrivalLocking, arrivalsOf } from './arrival-locking';
export { aspectFindings } from './aspect-findings';
export { assumedPosition, isPositionAssumed } from './assumed-position';
export { unspokenAtFirst } from './caution-at-first';
export { BY_TRAINS, commandedOf, isCommanded, rivalRoutes } from './commanded';
export { contactLoads } from './contact-loads';
export { foulingBlocks, holdingBlocks, isWatched, isWatchedBlock } from './detector-locking';
export { divergingHeld } from './diverging-held';
export { type Flank, type FlankGuard, flanksOf } from './flank';
export { flankProtection, type Guard, guardsOf, liesFor } from './flank-protection';
export { besidesOf, expectedOf, needsOf, type PutTerm } from './gather';
export { groupOf } from './groups';
export * as names from './names';
export { onePulseStation, spotsBefore } from './one-pulse-station';
export { isOption, OPTIONS, type OptionView, optionsAt } from './options';
export { overlap, overlapOf, rivalsIn } from './overlap';
export { overtakingLoop } from './overtaking-loop';
export { calledName, OWN, type OwnRuleFault, problemOf, standsAlone, withOwnRules } from './own-rules';
export { isChosen } from './pattern';
export { patternFindings } from './pattern-findings';
export { CHOOSABLE, chosenOutputs, cutsOff, holdsNothing, isWired, PATTERNS } from './pattern-list';
export { isDriven, pointsOf } from './points-of';
export { GIVEN_FOR_MS, type Post, postsOf, rivalsOf } from './posts';
export { releaseAlone } from './release-alone';
export { RELEASED_BY, type ReleasePoint, releasePoint } from './released';
export { routeLocking } from './route-locking';
export { rulesOfSignals, writeRules } from './rule-program';
export { compileScheme, type NamedRoute, type Scheme } from './scheme';
export { setRoutes } from './set-routes';
export { takesTurns } from './takes-turns';
export { rulesOf, sayThrow, sayWhen, throwRules } from './throw-rules';
export { trainsSetRoutes } from './trains-set-routes';
export { twoRoadBlock } from './two-road-block';
export { TWO_ROAD_PATTERNS } from './two-road-pattern';
export { allRoads, isTwoRoads, type Road, type TwoRoads } from './two-roads';
