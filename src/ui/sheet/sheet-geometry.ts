import type { TenthUm } from '@/core/measure';
import { type Drawing, type DrawnLine, distanceAt, xOf } from '@/core/track';

export interface Point {
  x: number;
  y: number;
}

/** What part of the drawing is shown, and how large. */
export interface View {
  /** Tenths of a micrometre at the left edge of the track area. */
  from: TenthUm;
  /** Screen pixels per tenth of a micrometre. */
  scale: number;
}

export const GUTTER = 66;
export const RIGHT_PAD = 40;
/** Pixels of slope for each row that a lead climbs. */
const SLOPE = 30;
/** A lead takes at most this share of its line. */
const MOST_OF_LINE = 0.42;

/** The view that shows a whole drawing in a width. */
export function fitView(drawing: Drawing, width: number): View {
  const span = Math.max(drawing.to - drawing.from, 1);
  return { from: drawing.from, scale: Math.max(1e-7, (width - GUTTER - RIGHT_PAD) / span) };
}

/** A long layout opens at its start, at a scale at which things can be told apart: 4 pixels for 10 cm. */
const LEAST_FIRST_SCALE = 4e-6;

/** The view a layout opens with: the whole of it, unless that would be too small to read. */
export function firstView(fit: View): View {
  return fit.scale >= LEAST_FIRST_SCALE ? fit : { from: fit.from, scale: LEAST_FIRST_SCALE };
}

/** Zooms about a screen x, within sensible bounds: from half the fit to 40 px per centimetre. */
export function zoomView(view: View, fit: View, factor: number, aboutX: number): View {
  const scale = Math.min(Math.max(view.scale * factor, fit.scale * 0.5), 4e-4);
  const held = view.from + (aboutX - GUTTER) / view.scale;
  return { scale, from: held - (aboutX - GUTTER) / scale };
}

/** Where everything on the sheet is drawn: a drawing seen through a view. */
export class SheetGeometry {
  constructor(
    readonly drawing: Drawing,
    readonly view: View,
    readonly top: number,
    readonly pitch: number,
    /** Width of the sheet it is seen on; nothing is left out on one without end, as on paper. */
    readonly width = Number.POSITIVE_INFINITY,
  ) {}

  /** Whether anything between two screen x is on the sheet or less than a third of its width off it; only that is drawn. */
  isNear(a: number, b = a): boolean {
    const beyond = this.width / 3;
    return Math.max(a, b) > -beyond && Math.min(a, b) < this.width + beyond;
  }
  /** Whether any part of a stretch of a line is. */
  hasNear({ line, from, to }: { line: string; from: TenthUm; to: TenthUm }): boolean {
    const drawn = this.drawn(line);
    return this.isNear(this.x(xOf(drawn, from)), this.x(xOf(drawn, to)));
  }
  x(value: TenthUm): number {
    return GUTTER + (value - this.view.from) * this.view.scale;
  }
  /** The reference distance at a screen x. */
  valueAt(x: number): TenthUm {
    return this.view.from + (x - GUTTER) / this.view.scale;
  }
  rowY(row: number): number {
    return this.top + (row - this.drawing.firstRow) * this.pitch;
  }
  get bottom(): number {
    return this.rowY(this.drawing.lastRow);
  }

  drawn(line: string): DrawnLine {
    const found = this.drawing.lines.get(line);
    if (!found) throw new Error(`Line “${line}” is not drawn.`);
    return found;
  }

  /** Towards larger x as distances grow. */
  ascends(line: string): boolean {
    const drawn = this.drawn(line);
    return drawn.xAtEnd >= drawn.xAtStart;
  }

  /** Pixels of slope from a line's end to its own row; over before the first thing that stands on the line. */
  private leadPx(drawn: DrawnLine, end: 'start' | 'end'): number {
    const on = end === 'start' ? drawn.startOn : drawn.endOn;
    if (!on || on.row === drawn.row) return 0;
    const perLength = drawn.stretch * this.view.scale;
    if (drawn.slants) return (drawn.length * perLength) / 2;
    const clear = (end === 'start' ? drawn.clearFromStart : drawn.clearFromEnd) * perLength;
    return Math.max(
      2,
      Math.min(MOST_OF_LINE * drawn.length * perLength, SLOPE * Math.abs(on.row - drawn.row), clear - 3),
    );
  }

  /** Where a distance of a line is drawn, on its row or on the slope that leads to it. */
  at(line: string, distance: TenthUm): Point {
    const drawn = this.drawn(line);
    const x = this.x(xOf(drawn, distance));
    const y = this.rowY(drawn.row);
    for (const [on, end, which] of [
      [drawn.startOn, drawn.xAtStart, 'start'],
      [drawn.endOn, drawn.xAtEnd, 'end'],
    ] as const) {
      const lead = this.leadPx(drawn, which);
      const along = Math.abs(x - this.x(end));
      if (on && lead > 0 && along < lead) return { x, y: this.rowY(on.row) + (y - this.rowY(on.row)) * (along / lead) };
    }
    return { x, y };
  }

  /** The two ends of the level part of a line, its leads left out. */
  flat(line: string): [Point, Point] {
    const drawn = this.drawn(line);
    const sign = this.ascends(line) ? 1 : -1;
    const y = this.rowY(drawn.row);
    return [
      { x: this.x(drawn.xAtStart) + sign * this.leadPx(drawn, 'start'), y },
      { x: this.x(drawn.xAtEnd) - sign * this.leadPx(drawn, 'end'), y },
    ];
  }

  /** The path of a stretch of a line, bends of its leads included. */
  path(line: string, from: TenthUm, to: TenthUm): string {
    const drawn = this.drawn(line);
    const perPx = drawn.stretch === 0 || this.view.scale === 0 ? 0 : 1 / (this.view.scale * drawn.stretch);
    const bends = [this.leadPx(drawn, 'start') * perPx, drawn.length - this.leadPx(drawn, 'end') * perPx].filter(
      (bend) => bend > Math.min(from, to) && bend < Math.max(from, to),
    );
    const stops = [from, ...(from <= to ? bends : bends.reverse()), to];
    return stops
      .map((stop, i) => {
        const { x, y } = this.at(line, stop);
        return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join('');
  }

  /** The place on track nearest to a screen point, if one is within reach. */
  nearest(point: Point, reachPx: number): { line: string; at: TenthUm } | undefined {
    let best: { line: string; at: TenthUm; off: number } | undefined;
    for (const drawn of this.drawing.lines.values()) {
      const at = distanceAt(drawn, this.valueAt(point.x));
      const here = this.at(drawn.line, at);
      const off = Math.hypot(here.x - point.x, here.y - point.y);
      if (off <= reachPx && (!best || off < best.off)) best = { line: drawn.line, at, off };
    }
    return best;
  }
}

/** The x-range of some stretches, through every lane. */
export function bandOf(
  geometry: SheetGeometry,
  pieces: { line: string; from: number; to: number }[],
): { x: number; width: number } {
  const xs = pieces.flatMap((p) => [p.from, p.to].map((at) => geometry.x(xOf(geometry.drawn(p.line), at))));
  const low = Math.min(...xs);
  return { x: low, width: Math.max(...xs) - low };
}
