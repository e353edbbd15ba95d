import type { BlockView } from '@/core/design';
import { fromMm } from '@/core/measure';
import type { TrainFrame } from '@/core/simulation';
import type { Placed } from './plan-labels';
import type { SheetGeometry } from './sheet-geometry';

/** A stretch of one row of the drawing. */
export interface Extent {
  y: number;
  from: number;
  to: number;
}

/** Rows of the drawing are farther apart than this. */
const ONE_ROW = 4;
const EDGE = 3;

const overlap = (a: Extent, b: Extent): number =>
  Math.abs(a.y - b.y) > ONE_ROW ? 0 : Math.max(0, Math.min(a.to, b.to) - Math.max(a.from, b.from));

/** Where a stretch of track is drawn, as far as it lies on one row. */
function drawn(geometry: SheetGeometry, line: string, from: number, to: number): Extent | undefined {
  const [a, b] = [geometry.at(line, from), geometry.at(line, to)];
  return Math.abs(a.y - b.y) > ONE_ROW ? undefined : { y: a.y, from: Math.min(a.x, b.x), to: Math.max(a.x, b.x) };
}

/** Where a train is drawn, row by row; what meets on one row is one. */
export function trainExtents(geometry: SheetGeometry, { spans }: Pick<TrainFrame, 'spans'>): Extent[] {
  const joined: Extent[] = [];
  const parts = spans.flatMap(
    ({ line, from, to }) => drawn(geometry, line, fromMm(Math.max(0, from)), fromMm(Math.max(0, to))) ?? [],
  );
  for (const part of parts.sort((a, b) => a.y - b.y || a.from - b.from)) {
    const last = joined.at(-1);
    if (last && Math.abs(last.y - part.y) <= ONE_ROW && part.from <= last.to + 1) last.to = Math.max(last.to, part.to);
    else joined.push({ ...part });
  }
  return joined;
}

/** A name’s plate steps along its block to where trains cover least of it: in its place if it can, else to one end. */
export function stepAside(
  geometry: SheetGeometry,
  { x, y, width }: NonNullable<ReturnType<Placed['plates']['get']>>,
  block: BlockView,
  trains: Extent[],
): Extent {
  const at = (middle: number): Extent => ({ y, from: middle - width / 2, to: middle + width / 2 });
  const own = block.pieces
    .flatMap(({ line, from, to }) => drawn(geometry, line, from, to) ?? [])
    .filter((piece) => Math.abs(piece.y - y) <= ONE_ROW && piece.to - piece.from > width + 2 * EDGE);
  const ends = own.flatMap(({ from, to }) => [from + EDGE + width / 2, to - EDGE - width / 2]);
  const covered = (middle: number) => trains.reduce((sum, train) => sum + overlap(at(middle), train), 0);
  return at([x, ...ends].reduce((best, middle) => (covered(middle) < covered(best) - 0.5 ? middle : best)));
}

/** The widest part of a stretch that no plate lies on. */
export function freePart(extent: Extent, plates: Extent[]): Extent {
  let parts = [extent];
  for (const plate of plates)
    parts = parts.flatMap((part) =>
      overlap(part, plate) === 0
        ? [part]
        : [
            { ...part, to: Math.min(part.to, plate.from) },
            { ...part, from: Math.max(part.from, plate.to) },
          ],
    );
  return parts.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
}
