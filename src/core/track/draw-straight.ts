import type { TenthUm } from '../measure';
import type { LayoutDocument, LineEnd, Turnout } from '../survey';
import { type Drawing, type DrawnLine, xOf } from './drawing';
import { RowPacking } from './row-packing';

/** What a drawing depends on, beside the places nearest to the ends of its lines. */
export const READS = ['lines', 'joins', 'turnouts', 'crossings', 'referenceLine'] as const;
export type Tracks = Pick<LayoutDocument, (typeof READS)[number]>;

/** The ends of the lines that hang on a turnout: its legs, the straight one among them where the turnout ends its own line. */
const legsAt = ({ legs, straight }: Turnout): readonly LineEnd[] => (straight ? [...legs, straight] : legs);

/** Lays out one line after the other, from those that are drawn to those that hang on them. */
export class DrawStraight {
  private readonly drawn = new Map<string, DrawnLine>();
  private readonly rows = new RowPacking();
  private readonly lengths: ReadonlyMap<string, TenthUm>;
  /** Rows that somebody chose. */
  private readonly hints: ReadonlyMap<string, number | undefined>;
  private readonly turnoutsOn = new Map<string, Turnout[]>();
  /** The turnout on which an end of a line hangs. */
  private readonly hangingOn = new Map<string, Turnout>();

  /** `nearest`: of each line the lowest and the highest place at which something stands. */
  constructor(
    private readonly document: Tracks,
    private readonly nearest: ReadonlyMap<string, readonly [TenthUm, TenthUm]>,
  ) {
    this.lengths = new Map(document.lines.map((line) => [line.id, line.length.tenthUm]));
    this.hints = new Map(document.lines.map((line) => [line.id, line.drawing?.row]));
    for (const turnout of document.turnouts) {
      this.turnoutsOn.set(turnout.line, [...(this.turnoutsOn.get(turnout.line) ?? []), turnout]);
      for (const leg of legsAt(turnout)) this.hangingOn.set(`${leg.line} ${leg.end}`, turnout);
    }
  }

  drawing(): Drawing {
    const order = [...this.document.lines].sort(
      (a, b) => Number(b.id === this.document.referenceLine) - Number(a.id === this.document.referenceLine),
    );
    for (const line of order) {
      if (this.drawn.has(line.id)) continue;
      this.put(
        line.id,
        0,
        line.length.tenthUm,
        this.drawn.size === 0 ? 0 : this.rows.last + 2,
        this.drawn.size === 0 ? 0 : 1,
        {},
      );
      this.grow([line.id]);
    }
    markCuts(this.document, this.drawn);
    const all = [...this.drawn.values()];
    return {
      lines: this.drawn,
      from: Math.min(0, ...all.map((l) => Math.min(l.xAtStart, l.xAtEnd))),
      to: Math.max(0, ...all.map((l) => Math.max(l.xAtStart, l.xAtEnd))),
      firstRow: this.rows.first,
      lastRow: this.rows.last,
    };
  }

  private put(
    line: string,
    xAtStart: TenthUm,
    xAtEnd: TenthUm,
    near: number,
    side: -1 | 1 | 0,
    parents: Partial<DrawnLine>,
    leavesAt = xAtStart,
  ): void {
    const length = this.lengths.get(line)!;
    const low = Math.min(xAtStart, xAtEnd);
    const high = Math.max(xAtStart, xAtEnd);
    const row = this.rows.place(low, high, near, side, this.hints.get(line), leavesAt);
    const [lowest, highest] = this.nearest.get(line) ?? [length, 0];
    const clearFromStart = Math.min(length, lowest);
    const clearFromEnd = Math.min(length, length - highest);
    this.drawn.set(line, {
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
  }

  private xOfTips(turnout: Turnout) {
    const on = this.drawn.get(turnout.line);
    return on && { x: xOf(on, turnout.at.tenthUm), row: on.row, ascending: on.xAtEnd >= on.xAtStart };
  }

  /** Lays out every line that can be reached from those already drawn, nearest first. */
  private grow(queue: string[]): void {
    for (let at = 0; at < queue.length; at++) {
      const parent = this.drawn.get(queue[at]!)!;
      for (const turnout of this.inNestingOrder(parent)) {
        for (const leg of legsAt(turnout)) {
          if (!this.drawn.has(leg.line)) queue.push(...this.hang(leg, turnout, leg));
        }
      }
      for (const { a, b } of this.document.crossings) {
        const [mine, other] = a.line === parent.line ? [a, b] : [b, a];
        if (mine.line !== parent.line || this.drawn.has(other.line)) continue;
        const x = xOf(parent, mine.at.tenthUm);
        this.alongside(other.line, other.at.tenthUm, x, true, parent.row, 1);
        queue.push(other.line);
      }
      for (const join of this.document.joins) {
        const [mine, other] = join.a.line === parent.line ? [join.a, join.b] : [join.b, join.a];
        if (mine.line === parent.line && !this.drawn.has(other.line)) queue.push(this.runOn(parent, mine, other));
      }
    }
  }

  /** A line that is met at a place of it, beside the one that it is met from. */
  private alongside(line: string, at: TenthUm, x: TenthUm, ascending: boolean, near: number, side: -1 | 0 | 1): void {
    const [before, beyond] = [at, this.lengths.get(line)! - at];
    this.put(line, ascending ? x - before : x + before, ascending ? x + beyond : x - beyond, near, side || 1, {}, x);
  }

  /** Whether what a turnout leads to comes back to the same line. */
  private comesBack(turnout: Turnout): boolean {
    return turnout.legs.some((leg) => this.hangingOn.get(otherEnd(leg))?.line === turnout.line);
  }

  /** Tracks that come back lie nearest, the shorter inside the longer; of the others the one that begins last, so that none crosses another. */
  private inNestingOrder(parent: DrawnLine): Turnout[] {
    const key = (turnout: Turnout) => {
      const back = this.comesBack(turnout);
      const rightwards = (turnout.facing === 'up') === parent.xAtEnd >= parent.xAtStart;
      const x = xOf(parent, turnout.at.tenthUm);
      return { back, order: back ? (this.lengths.get(turnout.legs[0]!.line) ?? 0) : rightwards ? -x : x };
    };
    return [...(this.turnoutsOn.get(parent.line) ?? [])]
      .map((turnout) => ({ turnout, ...key(turnout) }))
      .sort((a, b) => Number(b.back) - Number(a.back) || a.order - b.order || (a.turnout.id < b.turnout.id ? -1 : 1))
      .map(({ turnout }) => turnout);
  }

  /** Draws the track that a turnout leads to, and the line on which that ends if it is not there yet; what is new is returned. */
  private hang(leg: LineEnd, turnout: Turnout, own: LineEnd): string[] {
    const tips = this.xOfTips(turnout)!;
    const length = this.lengths.get(leg.line)!;
    const rightwards = (turnout.facing === 'up') === tips.ascending;
    const other = this.hangingOn.get(otherEnd(leg));
    /** Legs leave to one side and to the other by turns. */
    const leftOfTrack = (turnout.hand === 'left') !== (turnout.legs.indexOf(own) % 2 === 1);
    const side = own === turnout.straight ? 0 : leftOfTrack === rightwards ? -1 : 1;
    const beside: string[] = [];
    if (other && !this.drawn.has(other.line) && other.line !== leg.line) {
      const x = tips.x + (rightwards ? length : -length);
      this.alongside(other.line, other.at.tenthUm, x, (other.facing === 'down') === rightwards, tips.row, side);
      beside.push(other.line);
    }
    const otherTips = other && this.xOfTips(other);
    const fits = otherTips && (rightwards ? otherTips.x > tips.x : otherTips.x < tips.x);
    const xFar = fits ? otherTips.x : tips.x + (rightwards ? length : -length);
    const near = { row: tips.row };
    const farOn = fits ? { row: otherTips.row } : undefined;
    if (fits && Math.abs(otherTips.row - tips.row) === 1) {
      this.slant(leg, tips, otherTips);
      return [leg.line, ...beside];
    }
    if (leg.end === 'start') this.put(leg.line, tips.x, xFar, tips.row, side, { startOn: near, endOn: farOn }, tips.x);
    else this.put(leg.line, xFar, tips.x, tips.row, side, { startOn: farOn, endOn: near }, tips.x);
    if (other && !fits) {
      const cut = this.drawn.get(leg.line)!;
      const there = { at: other.name, line: other.line, place: other.at.tenthUm };
      if (leg.end === 'start') cut.cutAtEnd = there;
      else cut.cutAtStart = there;
    }
    return [leg.line, ...beside];
  }

  private slant(leg: LineEnd, near: { x: TenthUm; row: number }, far: { x: TenthUm; row: number }): void {
    const [first, last] = leg.end === 'start' ? [near, far] : [far, near];
    const length = this.lengths.get(leg.line)!;
    this.drawn.set(leg.line, {
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
  }

  private runOn(parent: DrawnLine, mine: LineEnd, other: LineEnd): string {
    const length = this.lengths.get(other.line)!;
    const x = mine.end === 'start' ? parent.xAtStart : parent.xAtEnd;
    const rightwards = (mine.end === 'end') === parent.xAtEnd >= parent.xAtStart;
    const xFar = x + (rightwards ? length : -length);
    const on = { row: parent.row };
    if (other.end === 'start') this.put(other.line, x, xFar, parent.row, 0, { startOn: on });
    else this.put(other.line, xFar, x, parent.row, 0, { endOn: on });
    return other.line;
  }
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
