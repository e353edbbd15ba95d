import type { TenthUm } from '../measure';
import { type LayoutDocument, type LineEnd, remembered, type Turnout } from '../survey';

/** One line as drawn: a row, and a map from its distances to x that is linear and never turns back. */
export interface DrawnLine {
  line: string;
  /** 0 is the reference line; negative rows lie above it. */
  row: number;
  /** x at distance 0 and at the full length, in tenths of a micrometre of the reference line's ruler. */
  xAtStart: TenthUm;
  xAtEnd: TenthUm;
  length: TenthUm;
  /** |Δx| / length: 1 is true to the ruler. */
  stretch: number;
  /** What each end hangs on: another line's row, for the slanting lead to it. */
  startOn?: { row: number };
  endOn?: { row: number };
  /** How far from each end the first thing stands on it: a lead must be over before that. */
  clearFromStart: TenthUm;
  clearFromEnd: TenthUm;
  /** Joined to an end of a line that lies elsewhere on the sheet; drawn cut, and marked on both sides. */
  cutAtStart?: string;
  cutAtEnd?: string;
}

export interface Drawing {
  lines: Map<string, DrawnLine>;
  from: TenthUm;
  to: TenthUm;
  firstRow: number;
  lastRow: number;
}

/** The x of a distance on a drawn line. */
export function xOf(drawn: DrawnLine, at: TenthUm): TenthUm {
  return drawn.length === 0 ? drawn.xAtStart : drawn.xAtStart + ((drawn.xAtEnd - drawn.xAtStart) * at) / drawn.length;
}

/** The distance on a drawn line at an x, held within the line. */
export function distanceAt(drawn: DrawnLine, x: TenthUm): TenthUm {
  const span = drawn.xAtEnd - drawn.xAtStart;
  if (span === 0) return 0;
  return Math.round(Math.min(drawn.length, Math.max(0, ((x - drawn.xAtStart) * drawn.length) / span)));
}

const READS = ['lines', 'joins', 'turnouts', 'features', 'referenceLine'] as const;

/**
 * The straightened drawing, computed from the document alone. x is true on the reference line; a line held at both ends
 * is stretched between them; a line held at one end runs on at true length. Rows are packed nearest to the line they leave.
 */
export const straighten = remembered(READS, drawStraight);

type Tracks = Pick<LayoutDocument, (typeof READS)[number]>;

function drawStraight(document: Tracks): Drawing {
  const drawn = new Map<string, DrawnLine>();
  const lengths = new Map(document.lines.map((line) => [line.id, line.length.tenthUm]));
  const hints = new Map(document.lines.map((line) => [line.id, line.drawing?.row]));
  const rows = new RowPacking();
  const standing = new Map<string, TenthUm[]>();
  for (const thing of [
    ...document.turnouts,
    ...document.features.filter((f) => f.kind === 'gap' || f.kind === 'mark' || f.kind === 'signal'),
  ]) {
    standing.set(thing.line, [...(standing.get(thing.line) ?? []), thing.at.tenthUm]);
  }

  const put = (
    line: string,
    xAtStart: TenthUm,
    xAtEnd: TenthUm,
    near: number,
    side: -1 | 1 | 0,
    parents: Partial<DrawnLine>,
    leavesAt = xAtStart,
  ) => {
    const length = lengths.get(line)!;
    const low = Math.min(xAtStart, xAtEnd);
    const high = Math.max(xAtStart, xAtEnd);
    const row = rows.place(low, high, near, side, hints.get(line), leavesAt);
    const things = standing.get(line) ?? [];
    const clearFromStart = Math.min(length, ...things);
    const clearFromEnd = Math.min(length, ...things.map((at) => length - at));
    drawn.set(line, {
      line,
      row,
      xAtStart,
      xAtEnd,
      length,
      clearFromStart,
      clearFromEnd,
      stretch: length ? Math.abs(xAtEnd - xAtStart) / length : 1,
      ...parents,
    });
  };

  const turnoutsOn = new Map<string, Turnout[]>();
  const hangingOn = new Map<string, Turnout>();
  for (const turnout of document.turnouts) {
    turnoutsOn.set(turnout.line, [...(turnoutsOn.get(turnout.line) ?? []), turnout]);
    for (const leg of [turnout.diverging, turnout.second, turnout.straight])
      if (leg) hangingOn.set(`${leg.line} ${leg.end}`, turnout);
  }
  const xOfTips = (turnout: Turnout) => {
    const on = drawn.get(turnout.line);
    return on && { x: xOf(on, turnout.at.tenthUm), row: on.row, ascending: on.xAtEnd >= on.xAtStart };
  };

  /** Lays out every line that can be reached from those already drawn, nearest first. */
  const grow = (queue: string[]) => {
    for (let at = 0; at < queue.length; at++) {
      const parent = drawn.get(queue[at]!)!;
      const next = [...(turnoutsOn.get(parent.line) ?? [])].sort(
        (a, b) => a.at.tenthUm - b.at.tenthUm || (a.id < b.id ? -1 : 1),
      );
      for (const turnout of next) {
        for (const leg of [turnout.diverging, turnout.second, turnout.straight]) {
          if (leg && !drawn.has(leg.line)) queue.push(hang(leg, turnout, leg === turnout.straight));
        }
      }
      for (const join of document.joins) {
        const [mine, other] = join.a.line === parent.line ? [join.a, join.b] : [join.b, join.a];
        if (mine.line === parent.line && !drawn.has(other.line)) queue.push(runOn(parent, mine, other));
      }
    }
  };

  const hang = (leg: LineEnd, turnout: Turnout, straight: boolean): string => {
    const tips = xOfTips(turnout)!;
    const length = lengths.get(leg.line)!;
    const rightwards = (turnout.facing === 'up') === tips.ascending;
    const far: LineEnd = { line: leg.line, end: leg.end === 'start' ? 'end' : 'start' };
    const other = hangingOn.get(`${far.line} ${far.end}`);
    const otherTips = other && xOfTips(other);
    const fits = otherTips && (rightwards ? otherTips.x > tips.x : otherTips.x < tips.x);
    const xFar = fits ? otherTips.x : tips.x + (rightwards ? length : -length);
    const near = { row: tips.row };
    const farOn = fits ? { row: otherTips.row } : undefined;
    const leftOfTrack = turnout.hand === 'left';
    const side = straight ? 0 : leftOfTrack === rightwards ? -1 : 1;
    if (leg.end === 'start') put(leg.line, tips.x, xFar, tips.row, side, { startOn: near, endOn: farOn }, tips.x);
    else put(leg.line, xFar, tips.x, tips.row, side, { startOn: farOn, endOn: near }, tips.x);
    if (other && !fits) {
      const cut = drawn.get(leg.line)!;
      if (leg.end === 'start') cut.cutAtEnd = other.name;
      else cut.cutAtStart = other.name;
    }
    return leg.line;
  };

  const runOn = (parent: DrawnLine, mine: LineEnd, other: LineEnd): string => {
    const length = lengths.get(other.line)!;
    const x = mine.end === 'start' ? parent.xAtStart : parent.xAtEnd;
    const rightwards = (mine.end === 'end') === parent.xAtEnd >= parent.xAtStart;
    const xFar = x + (rightwards ? length : -length);
    const on = { row: parent.row };
    if (other.end === 'start') put(other.line, x, xFar, parent.row, 0, { startOn: on });
    else put(other.line, xFar, x, parent.row, 0, { endOn: on });
    return other.line;
  };

  const order = [...document.lines].sort(
    (a, b) => Number(b.id === document.referenceLine) - Number(a.id === document.referenceLine),
  );
  for (const line of order) {
    if (drawn.has(line.id)) continue;
    put(line.id, 0, line.length.tenthUm, drawn.size === 0 ? 0 : rows.last + 2, drawn.size === 0 ? 0 : 1, {});
    grow([line.id]);
  }
  markCuts(document, drawn);

  const all = [...drawn.values()];
  return {
    lines: drawn,
    from: Math.min(0, ...all.map((l) => Math.min(l.xAtStart, l.xAtEnd))),
    to: Math.max(0, ...all.map((l) => Math.max(l.xAtStart, l.xAtEnd))),
    firstRow: rows.first,
    lastRow: rows.last,
  };
}

/** Joined ends that do not meet on the sheet, a closed circuit's above all, are marked on both sides. */
function markCuts(document: Tracks, drawn: Map<string, DrawnLine>): void {
  const nameOf = (id: string) => document.lines.find((line) => line.id === id)?.name ?? id;
  for (const join of document.joins) {
    for (const [mine, other] of [
      [join.a, join.b],
      [join.b, join.a],
    ] as const) {
      const one = drawn.get(mine.line)!;
      const two = drawn.get(other.line)!;
      const x = mine.end === 'start' ? one.xAtStart : one.xAtEnd;
      if (x === (other.end === 'start' ? two.xAtStart : two.xAtEnd)) continue;
      const label = mine.line === other.line ? '' : nameOf(other.line);
      if (mine.end === 'start') one.cutAtStart = label;
      else one.cutAtEnd = label;
    }
  }
}

/** Rows looked at on either side of the line a track leaves. */
const REACH = 8;
/** What crossing another line costs, in rows; and what lying on the wrong side does. */
const CROSSING_COST = 5;
const WRONG_SIDE_COST = 0.5;

/**
 * Interval packing: each line takes the free row that is nearest to the line it leaves, on its own side and without
 * crossing others where it can.
 */
class RowPacking {
  private taken = new Map<number, [TenthUm, TenthUm][]>();
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
        let crossed = 0;
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
