import type { TenthUm } from '../measure';
import { type LayoutDocument, type LineEnd, remembered, type Turnout } from '../survey';

/** Where a line goes on that is drawn cut: what is there in words, none where it is the line itself, and the place. */
export interface GoesOn {
  at: string;
  line: string;
  place: TenthUm;
}

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
  cutAtStart?: GoesOn;
  cutAtEnd?: GoesOn;
  /** Joined to an end that points the same way: it comes round there, as a reverse loop does. */
  roundAtStart?: { x: TenthUm; row: number };
  roundAtEnd?: { x: TenthUm; row: number };
  /** It leads from one row to the next on a slope, and has none of its own: it lies halfway between them. */
  slants?: boolean;
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

/** The ends of the lines that hang on a turnout: its legs, the straight one among them where the turnout ends its own line. */
const legsAt = ({ legs, straight }: Turnout): readonly LineEnd[] => (straight ? [...legs, straight] : legs);

const READS = ['lines', 'joins', 'turnouts', 'crossings', 'referenceLine'] as const;
type Tracks = Pick<LayoutDocument, (typeof READS)[number]>;

/**
 * The straightened drawing, computed from the document alone. x is true on the reference line; a line held at both ends
 * is stretched between them; a line held at one end runs on at true length. Rows are packed nearest to the line they leave.
 */
export const straighten = (document: Tracks & Pick<LayoutDocument, 'features'>): Drawing =>
  straightenTracks(document, JSON.stringify([...nearestToEnds(document)]));

const straightenTracks = remembered(READS, (document, nearest: string) =>
  drawStraight(document, new Map(JSON.parse(nearest))),
);

/** Of each line the lowest and the highest place at which something stands; all else on it moves nothing of the drawing. */
function nearestToEnds({
  turnouts,
  features,
}: Pick<LayoutDocument, 'turnouts' | 'features'>): Map<string, [TenthUm, TenthUm]> {
  const nearest = new Map<string, [TenthUm, TenthUm]>();
  const count = (line: string, at: TenthUm) => {
    const known = nearest.get(line);
    if (!known) nearest.set(line, [at, at]);
    else if (at < known[0]) known[0] = at;
    else if (at > known[1]) known[1] = at;
  };
  for (const { line, at } of turnouts) count(line, at.tenthUm);
  for (const { kind, line, at } of features)
    if (kind === 'gap' || kind === 'mark' || kind === 'signal') count(line, at.tenthUm);
  return nearest;
}

function drawStraight(document: Tracks, nearest: ReadonlyMap<string, [TenthUm, TenthUm]>): Drawing {
  const drawn = new Map<string, DrawnLine>();
  const lengths = new Map(document.lines.map((line) => [line.id, line.length.tenthUm]));
  const hints = new Map(document.lines.map((line) => [line.id, line.drawing?.row]));
  const rows = new RowPacking();

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
    const [lowest, highest] = nearest.get(line) ?? [length, 0];
    const clearFromStart = Math.min(length, lowest);
    const clearFromEnd = Math.min(length, length - highest);
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
    for (const leg of legsAt(turnout)) hangingOn.set(`${leg.line} ${leg.end}`, turnout);
  }
  const xOfTips = (turnout: Turnout) => {
    const on = drawn.get(turnout.line);
    return on && { x: xOf(on, turnout.at.tenthUm), row: on.row, ascending: on.xAtEnd >= on.xAtStart };
  };

  /** Lays out every line that can be reached from those already drawn, nearest first. */
  const grow = (queue: string[]) => {
    for (let at = 0; at < queue.length; at++) {
      const parent = drawn.get(queue[at]!)!;
      for (const turnout of inNestingOrder(parent)) {
        for (const leg of legsAt(turnout)) {
          if (!drawn.has(leg.line)) queue.push(...hang(leg, turnout, leg));
        }
      }
      for (const { a, b } of document.crossings) {
        const [mine, other] = a.line === parent.line ? [a, b] : [b, a];
        if (mine.line !== parent.line || drawn.has(other.line)) continue;
        const x = xOf(parent, mine.at.tenthUm);
        alongside(other.line, other.at.tenthUm, x, true, parent.row, 1);
        queue.push(other.line);
      }
      for (const join of document.joins) {
        const [mine, other] = join.a.line === parent.line ? [join.a, join.b] : [join.b, join.a];
        if (mine.line === parent.line && !drawn.has(other.line)) queue.push(runOn(parent, mine, other));
      }
    }
  };

  /** A line that is met at a place of it, beside the one that it is met from. */
  const alongside = (line: string, at: TenthUm, x: TenthUm, ascending: boolean, near: number, side: -1 | 0 | 1) => {
    const [before, beyond] = [at, lengths.get(line)! - at];
    put(line, ascending ? x - before : x + before, ascending ? x + beyond : x - beyond, near, side || 1, {}, x);
  };
  /** Whether what a turnout leads to comes back to the same line; the length of it. */
  const comesBack = (turnout: Turnout) =>
    turnout.legs.some((leg) => hangingOn.get(otherEnd(leg))?.line === turnout.line);
  /** Tracks that come back lie nearest, the shorter inside the longer; of the others the one that begins last, so that none crosses another. */
  const inNestingOrder = (parent: DrawnLine): Turnout[] => {
    const key = (turnout: Turnout) => {
      const back = comesBack(turnout);
      const rightwards = (turnout.facing === 'up') === parent.xAtEnd >= parent.xAtStart;
      const x = xOf(parent, turnout.at.tenthUm);
      return { back, order: back ? (lengths.get(turnout.legs[0]!.line) ?? 0) : rightwards ? -x : x };
    };
    return [...(turnoutsOn.get(parent.line) ?? [])]
      .map((turnout) => ({ turnout, ...key(turnout) }))
      .sort((a, b) => Number(b.back) - Number(a.back) || a.order - b.order || (a.turnout.id < b.turnout.id ? -1 : 1))
      .map(({ turnout }) => turnout);
  };

  /** Draws the track that a turnout leads to, and the line on which that ends if it is not there yet; what is new is returned. */
  const hang = (leg: LineEnd, turnout: Turnout, own: LineEnd): string[] => {
    const tips = xOfTips(turnout)!;
    const length = lengths.get(leg.line)!;
    const rightwards = (turnout.facing === 'up') === tips.ascending;
    const other = hangingOn.get(otherEnd(leg));
    /** Legs leave to one side and to the other by turns. */
    const leftOfTrack = (turnout.hand === 'left') !== (turnout.legs.indexOf(own) % 2 === 1);
    const side = own === turnout.straight ? 0 : leftOfTrack === rightwards ? -1 : 1;
    const beside: string[] = [];
    if (other && !drawn.has(other.line) && other.line !== leg.line) {
      const x = tips.x + (rightwards ? length : -length);
      alongside(other.line, other.at.tenthUm, x, (other.facing === 'down') === rightwards, tips.row, side);
      beside.push(other.line);
    }
    const otherTips = other && xOfTips(other);
    const fits = otherTips && (rightwards ? otherTips.x > tips.x : otherTips.x < tips.x);
    const xFar = fits ? otherTips.x : tips.x + (rightwards ? length : -length);
    const near = { row: tips.row };
    const farOn = fits ? { row: otherTips.row } : undefined;
    if (fits && Math.abs(otherTips.row - tips.row) === 1) {
      slant(leg, tips, otherTips);
      return [leg.line, ...beside];
    }
    if (leg.end === 'start') put(leg.line, tips.x, xFar, tips.row, side, { startOn: near, endOn: farOn }, tips.x);
    else put(leg.line, xFar, tips.x, tips.row, side, { startOn: farOn, endOn: near }, tips.x);
    if (other && !fits) {
      const cut = drawn.get(leg.line)!;
      const there = { at: other.name, line: other.line, place: other.at.tenthUm };
      if (leg.end === 'start') cut.cutAtEnd = there;
      else cut.cutAtStart = there;
    }
    return [leg.line, ...beside];
  };
  const slant = (leg: LineEnd, near: { x: TenthUm; row: number }, far: { x: TenthUm; row: number }) => {
    const [first, last] = leg.end === 'start' ? [near, far] : [far, near];
    const length = lengths.get(leg.line)!;
    drawn.set(leg.line, {
      line: leg.line,
      row: (near.row + far.row) / 2,
      xAtStart: first.x,
      xAtEnd: last.x,
      length,
      clearFromStart: length,
      clearFromEnd: length,
      stretch: length ? Math.abs(last.x - first.x) / length : 1,
      startOn: { row: first.row },
      endOn: { row: last.row },
      slants: true,
    });
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
      const comesRound = mine.line !== other.line && outward(one, mine) === outward(two, other) && one.row !== two.row;
      if (comesRound) {
        const there = { x: other.end === 'start' ? two.xAtStart : two.xAtEnd, row: two.row };
        if (mine.end === 'start') one.roundAtStart = there;
        else one.roundAtEnd = there;
        continue;
      }
      if (x === (other.end === 'start' ? two.xAtStart : two.xAtEnd)) continue;
      const there = {
        at: mine.line === other.line ? '' : nameOf(other.line),
        line: other.line,
        place: other.end === 'start' ? 0 : two.length,
      };
      if (mine.end === 'start') one.cutAtStart = there;
      else one.cutAtEnd = there;
    }
  }
}

const otherEnd = ({ line, end }: LineEnd): string => `${line} ${end === 'start' ? 'end' : 'start'}`;
/** Which way along x an end of a drawn line points. */
const outward = (drawn: DrawnLine, { end }: LineEnd): boolean => (end === 'end') === drawn.xAtEnd >= drawn.xAtStart;

/** Rows looked at on either side of the line a track leaves. */
const REACH = 16;
/** What crossing another line costs, in rows; and what lying on the wrong side does. */
const CROSSING_COST = 11;
const WRONG_SIDE_COST = 12;

/**
 * Interval packing: each line takes the free row that is nearest to the line it leaves, on its own side and without
 * crossing others where it can.
 */
class RowPacking {
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
