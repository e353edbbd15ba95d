import type { ProofRun, Property } from '../../src/core/proof';

/** Each property that fails, and whether a rehearsal that is driven there comes to it. */
export const confirmedOf = (proof: ProofRun): { property: Property; confirmed: boolean }[] =>
  proof.failing.map((property) => ({ property, confirmed: proof.steer(property).confirmed }));
