import { HARM_IDS, type HarmId } from '../simulation';

/** The bit of each harm in `ProofModel.harms`. */
export const BIT = Object.fromEntries(HARM_IDS.map((id, i) => [id, 1 << i])) as Record<HarmId, number>;

/** The harms of a set of bits, in order. */
export const harmsOf = (bits: number): HarmId[] => HARM_IDS.filter((id) => bits & BIT[id]);
