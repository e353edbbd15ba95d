import { type Ground, meet, type ProofTrain } from './proof-train';

/**
 * How two trains on one piece of track lie to each other: not on one, or which of them lies at smaller distances; a bit for each, since on a
 * ring each can be the lower one on one of two pieces.
 */
export const [APART, FIRST_IS_LOWER, SECOND_IS_LOWER, EITHER] = [0, 1, 2, 3] as const;
export const ORDERS = 4;

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
 * track. There they keep their order, given from before or, for the one that has moved, by the end at which it came in. On a ring they can come
 * onto a second piece the other way about; they have run through each other only where no piece has the order from before.
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
      const order = orderOf(own, other, before, firstMoved);
      if (order === APART) return ACROSS;
      const [lower, higher] = order === FIRST_IS_LOWER ? [own, other] : [other, own];
      const near = (lower.up || !higher.up) && lower.high[1] > higher.low[0];
      found = { order: found.order | order, possible: found.possible || near, certain: false };
    }
  }
  const kept = before === APART || found.order === APART || (found.order & before) !== 0;
  return kept ? found : ACROSS;
}

const foul = (mine: number[], theirs: number[]): boolean => mine.some((zone) => theirs.includes(zone ^ 1));

/** The order of two trains on one piece; APART when they can only lie across each other. */
function orderOf(mine: Ground, theirs: Ground, before: number, firstMoved: boolean): number {
  const can =
    (mine.high[0] < theirs.low[1] ? FIRST_IS_LOWER : APART) | (theirs.high[0] < mine.low[1] ? SECOND_IS_LOWER : APART);
  if (can !== EITHER) return can;
  if (before === FIRST_IS_LOWER || before === SECOND_IS_LOWER) return before;
  const mover = firstMoved ? mine : theirs;
  return mover.up === firstMoved ? FIRST_IS_LOWER : SECOND_IS_LOWER;
}
