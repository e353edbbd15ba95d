import { BITS_OF_DEED, bitsOfFootprints } from '../hazards/hazard-bits';
import type { ProofTrain } from './proof-train';
import { ORDERS, touchOf } from './touch';

/** What two trains are to each other, in one number: the hazards that lie in it above, then whether all ends with it, and their order. */
const [ORDER, ENDS, HAZARDS_FROM, KNOWN] = [3, 4, 3, 1 << 31];
/** Beyond so many pairs of placements nothing is kept. */
const MOST_KEPT = 1 << 22;

/** What comes of two trains, wherever each of them is; worked out once for each of these. */
export class Meetings {
  private readonly kept: Int32Array | undefined;

  constructor(
    private readonly first: ProofTrain,
    private readonly second: ProofTrain,
  ) {
    const count = first.placements.length * second.placements.length * ORDERS * 2;
    if (count <= MOST_KEPT) this.kept = new Int32Array(count);
  }

  /** For a placement of each, the order in which they stood before, and which of them has just moved. */
  at(p: number, q: number, order: number, firstMoved: boolean): number {
    const { kept } = this;
    if (!kept) return this.workOut(p, q, order, firstMoved);
    const place = ((p * this.second.placements.length + q) * ORDERS + order) * 2 + (firstMoved ? 1 : 0);
    if (kept[place] === 0) kept[place] = this.workOut(p, q, order, firstMoved);
    return kept[place]!;
  }

  private workOut(p: number, q: number, order: number, firstMoved: boolean): number {
    const { first, second } = this;
    const touch = touchOf(first, p, second, q, order, firstMoved);
    const hazards =
      bitsOfFootprints(first.footprints[p]!, second.footprints[q]!) | (touch.possible ? BITS_OF_DEED.touches : 0);
    return KNOWN | (hazards << HAZARDS_FROM) | (touch.certain ? ENDS : 0) | touch.order;
  }
}

export const orderIn = (meeting: number): number => meeting & ORDER;
export const endsIn = (meeting: number): boolean => (meeting & ENDS) !== 0;
export const hazardsIn = (meeting: number): number => (meeting & ~KNOWN) >> HAZARDS_FROM;
