import type { Dropouts } from '../survey';

/**
 * The chance that in one passing a drop-out outlasts the hold, so that the block reads free for a moment under the train:
 * 1 − (1 − e^(−hold / mean))^n for n drop-outs that do not depend on each other. That their lengths fall off like that, short ones often and long
 * ones seldom, is common practice, no source.
 */
export function chanceShown(holdMs: number, { meanMs, perPassing }: Dropouts): number {
  return 1 - (1 - Math.exp(-holdMs / meanMs)) ** perPassing;
}

/** Nobody sets a hold more finely, in ms. */
const STEP_MS = 50;

/** The shortest hold, in ms, with which a drop-out shows at most once in so many passings: the same formula, solved for the hold. */
export function shortestHoldMs({ meanMs, perPassing, inPassings }: Dropouts): number {
  const exact = -meanMs * Math.log(1 - (1 - 1 / inPassings) ** (1 / perPassing));
  return Math.max(0, Math.ceil(exact / STEP_MS - 1e-9) * STEP_MS);
}
