import type { Aspect } from '../kinds';
import type { Footprint } from '../plant';
import { HAZARD_IDS, HAZARDS, type HazardId, hazardOfEvent, type RehearsalEvent } from '../simulation';

/** The bit of each hazard in `ProofModel.hazards`. */
const BIT = Object.fromEntries(HAZARD_IDS.map((id, i) => [id, 1 << i])) as Record<HazardId, number>;

/** The hazards of a set of bits, in order. */
export const hazardsOf = (bits: number): HazardId[] => HAZARD_IDS.filter((id) => bits & BIT[id]);

const STOP: Aspect = { id: 'stop', means: '', stopsIn: 0, lit: [] };
const passes = { kind: 'passes', train: 0, signal: 0, aspect: STOP } as const;
/** What a step of the proof can do to trains, each as the event that a rehearsal would tell of it. */
const DEEDS = {
  touches: { kind: 'collision', train: 0, other: 1 },
  leavesTheTrack: { kind: 'mishap', train: 0, mishap: { kind: 'off the end' } },
  meetsWrongPoints: { kind: 'mishap', train: 0, mishap: { kind: 'points wrong', turnout: 0 } },
  pointsMoveUnder: { kind: 'points moved under', train: 0, turnout: 0 },
  passesFallen: { ...passes, dropped: true },
  passesUnannounced: { ...passes, dropped: false },
} satisfies Record<string, RehearsalEvent>;
type Deed = keyof typeof DEEDS;
const deeds = Object.entries(DEEDS) as [Deed, RehearsalEvent][];

/** The hazard that each is, by the one table. */
export const HAZARD_OF = Object.fromEntries(deeds.map(([deed, event]) => [deed, hazardOfEvent(event)!])) as Record<
  Deed,
  HazardId
>;
export const BIT_OF = Object.fromEntries(deeds.map(([deed]) => [deed, BIT[HAZARD_OF[deed]]])) as Record<Deed, number>;

/** The hazards that lie in how two trains stand, as bits. */
export const bitsOfFootprints = (a: Footprint, b: Footprint): number =>
  HAZARD_IDS.reduce((bits, id) => (HAZARDS[id].footprints?.(a, b) ? bits | BIT[id] : bits), 0);

type OfSignals = NonNullable<(typeof HAZARDS)[HazardId]['ofSignals']>;
/** The hazards that lie in what signals show. */
export const hazardsOfSignals = (so: OfSignals): HazardId[] => HAZARD_IDS.filter((id) => HAZARDS[id].ofSignals === so);
const bitsOfSignals = (so: OfSignals) => hazardsOfSignals(so).reduce((bits, id) => bits | BIT[id], 0);
export const BITS_OF_TWO_AT_ONCE = bitsOfSignals('two at once');
export const BITS_OF_OVER_A_TRAIN = bitsOfSignals('over a train');

/** The hazards that are no matter of the track but of the rules, as bits. */
export const BITS_OF_RULES = HAZARD_IDS.reduce((bits, id) => (HAZARDS[id].ofRules ? bits | BIT[id] : bits), 0);
