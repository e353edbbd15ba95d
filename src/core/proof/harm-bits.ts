import type { Aspect } from '../kinds';
import type { Stance } from '../plant';
import { HARM_IDS, HARMS, type HarmId, harmOfEvent, type RehearsalEvent } from '../simulation';

/** The bit of each harm in `ProofModel.harms`. */
const BIT = Object.fromEntries(HARM_IDS.map((id, i) => [id, 1 << i])) as Record<HarmId, number>;

/** The harms of a set of bits, in order. */
export const harmsOf = (bits: number): HarmId[] => HARM_IDS.filter((id) => bits & BIT[id]);

const STOP: Aspect = { id: 'stop', means: '', stopsIn: 0, lit: [] };
const passes = { kind: 'passes', train: 0, signal: 0, aspect: STOP } as const;
/** What a step of the proof can do to trains, each as the event that a rehearsal would tell of it. */
const DEEDS = {
  touches: { kind: 'collision', train: 0, other: 1 },
  leavesTheTrack: { kind: 'mishap', train: 0, mishap: { kind: 'off the end' } },
  meetsWrongPoints: { kind: 'mishap', train: 0, mishap: { kind: 'points wrong', turnout: 0 } },
  pointsMoveUnder: { kind: 'points moved under', train: 0, turnout: 0 },
  passesFallen: { ...passes, fell: true },
  passesUnannounced: { ...passes, fell: false },
} satisfies Record<string, RehearsalEvent>;
type Deed = keyof typeof DEEDS;
const deeds = Object.entries(DEEDS) as [Deed, RehearsalEvent][];

/** The harm that each is, by the one table. */
export const HARM_OF = Object.fromEntries(deeds.map(([deed, event]) => [deed, harmOfEvent(event)!])) as Record<
  Deed,
  HarmId
>;
export const BIT_OF = Object.fromEntries(deeds.map(([deed]) => [deed, BIT[HARM_OF[deed]]])) as Record<Deed, number>;

/** The harms that lie in how two trains stand, as bits. */
export const bitsOfStance = (a: Stance, b: Stance): number =>
  HARM_IDS.reduce((bits, id) => (HARMS[id].stances?.(a, b) ? bits | BIT[id] : bits), 0);

type OfSignals = NonNullable<(typeof HARMS)[HarmId]['ofSignals']>;
/** The harms that lie in what signals show. */
export const harmsOfSignals = (so: OfSignals): HarmId[] => HARM_IDS.filter((id) => HARMS[id].ofSignals === so);
const bitsOfSignals = (so: OfSignals) => harmsOfSignals(so).reduce((bits, id) => bits | BIT[id], 0);
export const BITS_OF_TWO_AT_ONCE = bitsOfSignals('two at once');
export const BITS_OF_OVER_A_TRAIN = bitsOfSignals('over a train');

/** The harms that are no matter of the track but of the rules, as bits. */
export const BITS_OF_RULES = HARM_IDS.reduce((bits, id) => (HARMS[id].ofRules ? bits | BIT[id] : bits), 0);
