import { line as d3line } from 'd3';
import { memo } from 'react';
import type { BlockView } from '@/core/design';
import type { PathSample } from '@/core/simulation';
import { bandOf, type SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { trainColour } from '@/ui/sheet/trains-layer';
import type { BlockSpan, Stretch } from './sample-stretches';

/** A jump of more than this in one sample is a cut circuit or a change of ruler, not a move: 1 m. */
const JUMP = 1e7;

/** What all that is drawn in the graph has in common. A tick lies `pxPerTick` times its number down from the start of the run. */
export interface GraphFrame {
  geometry: SheetGeometry;
  width: number;
  pxPerTick: number;
  mainRow: number;
  /** Rows of track that are left out. */
  hidden: ReadonlySet<number>;
  /** How lines of each row are broken. */
  dashes: ReadonlyMap<number, string | undefined>;
}

/** The trains of one stretch: nose thick, tail thin, what lies between them tinted; another course thin and dotted. */
export const StretchCourses = memo(function StretchCourses({
  stretch,
  trains,
  frame,
  other = false,
}: {
  stretch: Stretch;
  trains: number;
  frame: GraphFrame;
  other?: boolean;
}) {
  const line = d3line<[number, number]>();
  return Array.from({ length: trains }, (_, train) =>
    piecesOf([stretch], train, frame).map((piece) => {
      const points = (pick: (s: PathSample) => number) =>
        piece.map((s): [number, number] => [px(frame.geometry.x(pick(s))), px(s.tick * frame.pxPerTick)]);
      const nose = points((s) => s.head);
      const key = `${train} ${piece[0]!.tick}`;
      if (other)
        return (
          <path key={key} d={line(nose)!} fill="none" stroke="var(--ink3)" strokeWidth="1.4" strokeDasharray="2 2" />
        );
      const tail = points((s) => s.tail);
      return (
        <g key={key} fill="none" stroke={trainColour(train)} strokeDasharray={frame.dashes.get(piece[0]!.row)}>
          <path
            d={`${line([...nose, ...[...tail].reverse()])}Z`}
            fill={trainColour(train)}
            stroke="none"
            opacity=".14"
          />
          <path d={line(nose)!} strokeWidth="2.2" />
          <path d={line(tail)!} strokeWidth="1" />
        </g>
      );
    }),
  );
});

const px = (value: number) => Math.round(value * 10) / 10;

/** A train’s samples on the sheet, split where it jumps or changes its row, so that no line is drawn across. */
export function piecesOf(stretches: readonly Stretch[], train: number, frame: GraphFrame): PathSample[][] {
  const { geometry, width, hidden } = frame;
  const pieces: PathSample[][] = [];
  let last: PathSample | undefined;
  for (const stretch of stretches) {
    for (const { trains } of stretch.samples) {
      const sample = trains[train];
      if (!sample) last = undefined;
      if (!sample || sample === last) continue;
      const [a, b] = [geometry.x(sample.head), geometry.x(sample.tail)];
      const isDrawn =
        !hidden.has(sample.row) &&
        Math.max(a, b) > 0 &&
        Math.min(a, b) < width &&
        Math.abs(sample.head - sample.tail) < 4 * JUMP;
      const goesOn =
        last?.row === sample.row &&
        Math.abs(last.head - sample.head) < JUMP &&
        Math.abs(last.tail - sample.tail) < JUMP;
      if (isDrawn && goesOn) pieces[pieces.length - 1]!.push(sample);
      else if (isDrawn) pieces.push([sample]);
      last = isDrawn ? sample : undefined;
    }
  }
  return pieces;
}

/** How long a block read occupied, as a box for each of its pieces: filled on the main row, outlined on the others. */
export const BlockBoxes = memo(
  function BlockBoxes({ view, span, frame }: { view: BlockView; span: BlockSpan; frame: GraphFrame }) {
    const { geometry, width, pxPerTick, mainRow, hidden, dashes } = frame;
    return view.pieces.map((piece) => {
      const { row } = geometry.drawn(piece.line);
      const band = bandOf(geometry, [piece]);
      if (hidden.has(row) || band.x > width || band.x + band.width < 0) return null;
      return (
        <rect
          key={`${piece.line} ${piece.from}`}
          x={band.x + 1}
          width={Math.max(1, band.width - 2)}
          y={px(span.from * pxPerTick)}
          height={Math.max(1, px((span.to - span.from) * pxPerTick))}
          fill={row === mainRow ? 'var(--accent-tint)' : 'none'}
          stroke={row === mainRow ? 'none' : 'var(--accent-band)'}
          strokeDasharray={dashes.get(row)}
        />
      );
    });
  },
  (a, b) => a.view === b.view && a.frame === b.frame && a.span.from === b.span.from && a.span.to === b.span.to,
);
