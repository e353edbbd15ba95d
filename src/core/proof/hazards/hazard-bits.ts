import type { Footprint } from '../../plant';
import {
  DEEDS,
  type Deed,
  type Displayed,
  HAZARD_IDS,
  HAZARDS,
  type HazardId,
  hazardsDisplayed,
  hazardsOfFootprints,
} from '../../simulation';

/** The bit of each hazard in `ProofModel.hazards`. */
const BIT = Object.fromEntries(HAZARD_IDS.map((id, i) => [id, 1 << i])) as Record<HazardId, number>;
const bitsOf = (ids: readonly HazardId[]): number => ids.reduce((bits, id) => bits | BIT[id], 0);

/** The hazards of a set of bits, in order. */
export const hazardsOf = (bits: number): HazardId[] => HAZARD_IDS.filter((id) => bits & BIT[id]);

/** The hazards that each thing that a step does to a train is, by the one table. */
export const HAZARDS_OF_DEED = Object.fromEntries(
  DEEDS.map((deed) => [
    deed,
    HAZARD_IDS.filter((id) => {
      const { found } = HAZARDS[id];
      return found.in === 'events' && found.explored === deed;
    }),
  ]),
) as Record<Deed, HazardId[]>;
export const BITS_OF_DEED = Object.fromEntries(DEEDS.map((deed) => [deed, bitsOf(HAZARDS_OF_DEED[deed])])) as Record<
  Deed,
  number
>;

/** The hazards that lie in how two trains stand, as bits. */
export const bitsOfFootprints = (a: Footprint, b: Footprint): number => bitsOf(hazardsOfFootprints(a, b));

/** Those that lie in what signals show. */
export const bitsDisplayed = (what: Displayed): number => bitsOf(hazardsDisplayed(what));

/** Those that are no matter of the track but of the rules. */
export const BITS_OF_RULES = bitsOf(HAZARD_IDS.filter((id) => HAZARDS[id].found.in === 'rules'));

/** The explorer has something that finds it. Of one without, nothing is ever said but that it was not looked at. */
export function isLookedFor(id: HazardId): boolean {
  const { found } = HAZARDS[id];
  return found.in === 'events' ? found.explored !== 'not looked at' : found.in !== 'nothing';
}
