import type { TenthUm } from '../measure';

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
