import type { TenthUm } from '../measure';

/** Rows looked at on either side of the line a track leaves. */
const REACH = 16;
/** What crossing another line costs, in rows; and what lying on the wrong side does. */
const CROSSING_COST = 11;
const WRONG_SIDE_COST = 12;

/**
 * Interval packing: each line takes the free row that is nearest to the line it leaves, on its own side and without
 * crossing others where it can.
 */
export class RowPacking {
  private taken = new Map<number, [TenthUm, TenthUm][]>();
  /** Where tracks lead off from row to row, and over which rows between. */
  private leads: { at: TenthUm; first: number; last: number }[] = [];
  first = 0;
  last = 0;

  place(
    low: TenthUm,
    high: TenthUm,
    near: number,
    side: -1 | 0 | 1,
    hint: number | undefined,
    leavesAt: TenthUm,
  ): number {
    const row =
      hint !== undefined && this.free(hint, low, high) ? hint : this.cheapest(low, high, near, side, leavesAt);
    this.taken.set(row, [...(this.taken.get(row) ?? []), [low, high]]);
    if (Math.abs(row - near) > 1)
      this.leads.push({ at: leavesAt, first: Math.min(row, near), last: Math.max(row, near) });
    this.first = Math.min(this.first, row);
    this.last = Math.max(this.last, row);
    return row;
  }

  private cheapest(low: TenthUm, high: TenthUm, near: number, side: -1 | 0 | 1, leavesAt: TenthUm): number {
    let best = { row: this.last + 1, cost: Number.POSITIVE_INFINITY };
    for (let step = side === 0 ? 0 : 1; step <= REACH; step++) {
      for (const direction of side === -1 ? [-1, 1] : [1, -1]) {
        const row = near + direction * step;
        if (!this.free(row, low, high)) continue;
        let crossed = this.leads.filter(
          ({ at, first, last }) => at > low && at < high && row > first && row < last,
        ).length;
        for (let r = near + direction; r !== row && step > 0; r += direction)
          if (!this.free(r, leavesAt - 1, leavesAt + 1)) crossed += 1;
        const cost = step + CROSSING_COST * crossed + (direction === -side ? WRONG_SIDE_COST : 0);
        if (cost < best.cost) best = { row, cost };
      }
    }
    return best.row;
  }

  private free(row: number, low: TenthUm, high: TenthUm): boolean {
    return (this.taken.get(row) ?? []).every(([from, to]) => high <= from || low >= to);
  }
}
