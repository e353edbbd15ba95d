import { type ComponentType, memo } from 'react';
import type { DesignView } from '@/core/design';
import { consistOf, INFERRED_BY } from '@/core/detection';
import { sensorKind } from '@/core/kinds';
import { fromMm, showLength, showNumber } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { xOf } from '@/core/track';
import { textWidth } from './label-placement';
import type { SheetGeometry } from './sheet-geometry';

export const LANE_TOP = 30;
/** From one row to the next: bars need less than boxes with figures. */
const BARS = 11;
export const BOXES = 19;

/** A lane beneath the track, and how high it is with so many rows. */
export interface LaneKind {
  Lane: ComponentType<LaneProps>;
  height(rows: number): number;
}

/** The height of lanes one under the other. */
export const heightOf = (lanes: readonly LaneKind[], rows: number): number =>
  lanes.reduce((sum, lane) => sum + lane.height(rows), 0);

export interface LaneProps {
  document: LayoutDocument;
  design: DesignView;
  geometry: SheetGeometry;
  y: number;
  width: number;
}

export function LaneTitle({ y, width, title, note }: { y: number; width: number; title: string; note: string }) {
  return (
    <>
      <path d={`M0 ${y}H${width}`} stroke="var(--line)" />
      <text x="16" y={y + 19}>
        <tspan fontWeight="650" fontSize="13">
          {title}
        </tspan>
        <tspan dx="9" style={{ fill: 'var(--ink3)' }}>
          {note}
        </tspan>
      </text>
    </>
  );
}

export const spanOf = (geometry: SheetGeometry, piece: { line: string; from: number; to: number }) => {
  const drawn = geometry.drawn(piece.line);
  const [a, b] = [geometry.x(xOf(drawn, piece.from)), geometry.x(xOf(drawn, piece.to))];
  return { x: Math.min(a, b), width: Math.max(1, Math.abs(b - a)), row: drawn.row };
};

/** How a block is drawn in the lane, and what is said of it: watched, watched but blind at stop, inferred, or by nothing. */
function coverOf({ detectors, deadAtStop, inferred }: DesignView['blocks'][number]) {
  if (deadAtStop)
    return {
      says: 'watched, but not while a train stands there without power',
      fill: 'var(--accent-tint)',
      stroke: 'var(--accent)',
      strokeWidth: 1.5,
    };
  if (detectors.length > 0) return { says: 'watched', fill: 'var(--accent)', opacity: 0.85 };
  if (inferred) {
    const sure = inferred === 'last spot' || inferred === 'count';
    return { says: INFERRED_BY[inferred], fill: 'none', stroke: sure ? 'var(--accent)' : 'var(--warn)' };
  }
  return { says: 'no detector watches it', fill: 'none', stroke: 'var(--warn)', strokeDasharray: '4 3' };
}

/** What is watched by a detector and what is not, row by row. */
const CoverageLane = memo(function CoverageLane({ document, design, geometry, y, width }: LaneProps) {
  const watched = sumLengths(design.blocks.filter((b) => b.detectors.length > 0));
  const inferred = sumLengths(design.blocks.filter((b) => b.inferred));
  const all = sumLengths(design.blocks);
  const dead = sumLengths(design.blocks.filter((b) => b.deadAtStop));
  const unwatched = all - watched - inferred;
  const places = document.sensors.filter(
    ({ kind }) => sensorKind(kind).reachMm !== 'section' && !sensorKind(kind).tells,
  ).length;
  const share = all === 0 ? 0 : (100 * watched) / all;
  const note =
    all === 0
      ? 'shows which track a detector watches, once a line is surveyed'
      : `${showNumber(share, 1)} % of the track watched throughout${dead > 0 ? `, ${showLength(dead, document.shownUnit)} of it not while a train stands there without power` : ''}${inferred > 0 ? `, ${showLength(inferred, document.shownUnit)} inferred` : ''}, ${showLength(unwatched, document.shownUnit)} by nothing${places > 0 ? `; ${places} ${places === 1 ? 'place' : 'places'} by a spot` : ''}`;
  return (
    <g>
      <LaneTitle y={y} width={width} title="Detection coverage" note={note} />
      {design.blocks.flatMap((block) =>
        block.pieces.map((piece, i) => {
          if (!geometry.hasNear(piece)) return null;
          const span = spanOf(geometry, piece);
          const at = y + LANE_TOP + (span.row - geometry.drawing.firstRow) * BARS;
          const { says, ...look } = coverOf(block);
          return (
            <rect
              key={`${block.id} ${i}`}
              x={span.x + 1}
              y={at}
              width={Math.max(1, span.width - 2)}
              height="6"
              {...look}
            >
              <title>{`${block.name}: ${says}`}</title>
            </rect>
          );
        }),
      )}
      {document.sensors.map(({ id, name, kind, anchor }) => {
        const { reachMm, title, tells } = sensorKind(kind);
        const place = { line: anchor.line, from: anchor.at.tenthUm, to: anchor.at.tenthUm };
        if (reachMm === 'section' || tells || !geometry.hasNear(place)) return null;
        const span = spanOf(geometry, place);
        const at = y + LANE_TOP + (span.row - geometry.drawing.firstRow) * BARS;
        return (
          <path key={id} d={`M${span.x} ${at - 4}V${at + 10}`} stroke="var(--ink)" strokeWidth="2">
            <title>{`${title} ${name}: only this place`}</title>
          </path>
        );
      })}
    </g>
  );
});

/** Every block against the longest train: the box is the block, the bar the train, the figure what is to spare. */
const RoomLane = memo(function RoomLane({ document, design, geometry, y, width }: LaneProps) {
  const longest = document.trains
    .map((train) => ({ train, length: fromMm(consistOf(document, train).lengthMm) }))
    .sort((a, b) => b.length - a.length)[0];
  const note = longest
    ? `box: the block, bar: ${longest.train.name}, ${showLength(longest.length, document.shownUnit)} long; figure: to spare`
    : 'shows whether each block holds your longest train, once trains are surveyed';
  return (
    <g>
      <LaneTitle y={y} width={width} title="Room for a train" note={note} />
      {longest &&
        design.blocks.map((block) => {
          if (block.turnouts.length > 0) return null;
          const piece = block.pieces.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
          if (!geometry.hasNear(piece)) return null;
          const span = spanOf(geometry, piece);
          const at = y + LANE_TOP - 6 + (span.row - geometry.drawing.firstRow) * BOXES;
          const spare = block.length - longest.length;
          const bar = Math.min(span.width, (span.width * longest.length) / block.length);
          const figure = `${spare >= 0 ? '+' : '−'}${showLength(Math.abs(spare), document.shownUnit)}`;
          return (
            <g key={block.id}>
              <rect
                x={span.x + 1.5}
                y={at}
                width={Math.max(1, span.width - 3)}
                height="16"
                rx="2"
                fill="none"
                stroke={spare < 0 ? 'var(--warn)' : 'var(--edge)'}
              />
              <rect
                x={span.x + 3}
                y={at + 11.5}
                width={Math.max(0, bar - 6)}
                height="3"
                fill={spare < 0 ? 'var(--warn)' : 'var(--accent)'}
              />
              {span.width > textWidth(figure, 6) + 4 && (
                <text
                  x={span.x + span.width / 2}
                  y={at + 9.5}
                  textAnchor="middle"
                  fontSize="11.5"
                  style={{ fill: spare < 0 ? 'var(--warn)' : 'var(--ink)', stroke: 'none' }}
                >
                  {figure}
                </text>
              )}
              <title>{`${block.name}: ${showLength(block.length, document.shownUnit)}, ${figure}`}</title>
            </g>
          );
        })}
    </g>
  );
});

const sumLengths = (blocks: DesignView['blocks']) =>
  blocks.reduce((sum, block) => sum + block.pieces.reduce((s, p) => s + p.to - p.from, 0), 0);

export const withRows = (Lane: LaneKind['Lane'], pitch: number): LaneKind => ({
  Lane,
  height: (rows) => LANE_TOP + rows * pitch + 4,
});
export const COVERAGE = withRows(CoverageLane, BARS);
export const ROOM = withRows(RoomLane, BOXES);
