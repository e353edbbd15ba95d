import { type Ground, meet, type ProofTrain } from './proof-train';

/** How two trains on one piece of track lie to each other: not on one, or which of them lies at smaller distances. */
export const [APART, FIRST_IS_LOWER, SECOND_IS_LOWER] = [0, 1, 2] as const;
export const ORDERS = 3;

/** The number of a pair of trains, the lower first: every pair among the lower trains comes before. */
export const twoOf = (first: number, second: number): number => (second * (second - 1)) / 2 + first;

export interface Touch {
  order: number;
  /** They can touch without anybody’s leave. */
  possible: boolean;
  /** They lie across each other: whatever comes after is no longer possible. */
  certain: boolean;
}

const CLEAR: Touch = { order: APART, possible: false, certain: false };
const ACROSS: Touch = { order: APART, possible: true, certain: true };

/**
 * Whether two trains touch, where each is somewhere within its placement: on two tracks that foul each other, or on one piece of
 * track. There they keep their order, given from before or, for `mover`, by the end at which it came in.
 */
export function touchOf(
  one: ProofTrain,
  p: number,
  two: ProofTrain,
  q: number,
  before: number,
  firstMoved: boolean,
): Touch {
  const [mine, theirs] = [one.placements[p]!, two.placements[q]!];
  if (foul(mine.zonesThroughout, theirs.zonesThroughout)) return ACROSS;
  let found: Touch = foul(mine.zones, theirs.zones) ? { ...CLEAR, possible: true } : CLEAR;
  if (!meet(one.pieces, p, two.pieces, q)) return found;
  for (const own of one.grounds[p]!) {
    for (const other of two.grounds[q]!) {
      if (own.piece !== other.piece) continue;
      const order = before !== APART ? before : orderOf(own, other, firstMoved);
      if (order === APART) return ACROSS;
      const [lower, higher] = order === FIRST_IS_LOWER ? [own, other] : [other, own];
      if (lower.high[0] >= higher.low[1]) return ACROSS;
      const near = (lower.up || !higher.up) && lower.high[1] > higher.low[0];
      found = { order, possible: found.possible || near, certain: false };
    }
  }
  return found;
}

const foul = (mine: number[], theirs: number[]): boolean => mine.some((zone) => theirs.includes(zone ^ 1));

/** The order of two trains that have just come onto one piece; APART when they can only lie across each other. */
function orderOf(mine: Ground, theirs: Ground, firstMoved: boolean): number {
  const firstLower = mine.high[0] < theirs.low[1];
  const secondLower = theirs.high[0] < mine.low[1];
  if (firstLower && secondLower) {
    const mover = firstMoved ? mine : theirs;
    return mover.up === firstMoved ? FIRST_IS_LOWER : SECOND_IS_LOWER;
  }
  return firstLower ? FIRST_IS_LOWER : secondLower ? SECOND_IS_LOWER : APART;
}
