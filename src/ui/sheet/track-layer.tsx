import { memo } from 'react';
import type { DesignView } from '@/core/design';
import { type LayoutDocument, placeThing, type Turnout } from '@/core/survey';
import type { GoesOn } from '@/core/track';
import { LineEnds } from './line-ends';
import { OutputMarks } from './output-marks';
import { inkOf } from './pencil';
import { Pickable } from './pickable';
import { PlacedThings } from './placed-things';
import type { Placed } from './plan-labels';
import { Rails } from './rails';
import { SensorMarks } from './sensor-marks';
import type { Point, SheetGeometry } from './sheet-geometry';

export type ShownPoints = Record<string, 'straight' | 'diverging' | 'between'>;

/** Pixels of the break in a leg that is not set. */
const BREAK: [number, number] = [6, 11];

interface Props {
  document: LayoutDocument;
  design: DesignView | undefined;
  geometry: SheetGeometry;
  placed: Placed;
  points: ShownPoints;
  locked: ReadonlySet<string>;
  detectors: boolean;
  occupied: ReadonlySet<string>;
  /** Blocks without power. */
  dead?: readonly string[];
  /** What lamps and indicators show. */
  shows?: Record<string, string>;
  chosen: ReadonlySet<string>;
  onSelect?: (id: string) => void;
  /** Shows where a line that is drawn cut goes on. */
  onGoOn?: (place: GoesOn) => void;
}

/** Rails, what watches them, hidden parts, ends, turnouts with the leg that is not set broken. */
export const TrackLayer = memo(function TrackLayer({
  document,
  design,
  geometry,
  placed,
  points,
  locked,
  detectors,
  occupied,
  dead,
  shows,
  chosen,
  onSelect,
  onGoOn,
}: Props) {
  const near = document.turnouts.filter((t) => geometry.isNear(geometry.at(t.line, t.at.tenthUm).x));
  return (
    <g>
      {detectors &&
        design?.blocks.map((block) =>
          block.detectors.length === 0 ? null : (
            <Ribbon
              key={block.id}
              block={block}
              geometry={geometry}
              occupied={occupied.has(block.id)}
              dead={dead?.includes(block.id) ?? false}
            />
          ),
        )}
      <Rails document={document} geometry={geometry} width={2.4} />
      {near.map((turnout) => (
        <path
          key={turnout.id}
          d={legBreak(geometry, turnout, points[turnout.id] ?? turnout.lies[0]!)}
          stroke="var(--sheet)"
          strokeWidth="5"
          fill="none"
        />
      ))}
      <LineEnds document={document} geometry={geometry} onGoOn={onGoOn} />
      <Crossings document={document} geometry={geometry} chosen={chosen} onSelect={onSelect} />
      {detectors && <SensorMarks document={document} geometry={geometry} chosen={chosen} onSelect={onSelect} />}
      <PlacedThings document={document} geometry={geometry} chosen={chosen} onSelect={onSelect} />
      {near.map((turnout) => (
        <TurnoutMark
          key={turnout.id}
          turnout={turnout}
          geometry={geometry}
          label={placed.turnouts.get(turnout.id)}
          lies={points[turnout.id] ?? turnout.lies[0]!}
          isSelected={chosen.has(turnout.id)}
          isLocked={locked.has(turnout.id)}
          onSelect={onSelect}
        />
      ))}
      {shows && <OutputMarks document={document} placed={placed} shows={shows} />}
    </g>
  );
});

/** What a detector watches, darker while it sees something, broken while it has no power. */
const Ribbon = memo(function Ribbon({
  block,
  geometry,
  occupied,
  dead,
}: {
  block: DesignView['blocks'][number];
  geometry: SheetGeometry;
  occupied: boolean;
  dead: boolean;
}) {
  return block.pieces
    .filter((piece) => geometry.hasNear(piece))
    .map((piece, i) => (
      <path
        key={i}
        d={geometry.path(piece.line, piece.from, piece.to)}
        fill="none"
        stroke={occupied ? 'var(--accent-band)' : 'var(--accent-tint)'}
        strokeWidth="16"
        strokeLinejoin="round"
        strokeDasharray={dead ? '6 5' : undefined}
      />
    ));
});

/** The blades: a dot, open while they move, with a square round it when locked or selected. */
const TurnoutMark = memo(function TurnoutMark({
  turnout,
  geometry,
  label,
  lies,
  isSelected,
  isLocked,
  onSelect,
}: {
  turnout: Turnout;
  geometry: SheetGeometry;
  label: ReturnType<Placed['turnouts']['get']>;
  lies: ShownPoints[string];
  isSelected: boolean;
  isLocked: boolean;
  onSelect?: (id: string) => void;
}) {
  const { x, y } = geometry.at(turnout.line, turnout.at.tenthUm);
  return (
    <Pickable
      thing={turnout.id}
      label={`Turnout ${turnout.name}, lies ${lies}${isLocked ? ', locked' : ''}`}
      onPick={onSelect && (() => onSelect(turnout.id))}
    >
      <circle cx={x} cy={y} r="11" fill="transparent" />
      {label?.from && <path d={`M${x} ${y}L${label.x} ${label.y - 4}`} stroke="var(--edge)" />}
      {(isLocked || isSelected) && (
        <rect
          x={x - 6.5}
          y={y - 6.5}
          width="13"
          height="13"
          rx="2"
          fill="var(--sheet)"
          stroke={isSelected ? 'var(--accent)' : 'var(--ink)'}
          strokeWidth={isSelected ? 2 : 1.4}
        />
      )}
      <circle
        cx={x}
        cy={y}
        r="3.3"
        fill={lies === 'between' ? 'var(--sheet)' : inkOf(turnout)}
        stroke={inkOf(turnout)}
        strokeWidth="1.2"
      />
      {label && (
        <text x={label.x} y={label.y} textAnchor="middle" fontWeight={isSelected ? 700 : 400}>
          {turnout.name}
        </text>
      )}
    </Pickable>
  );
});

/** A short gap in the leg that is not set, just beyond the blades; in both while the points move. */
function legBreak(
  geometry: SheetGeometry,
  turnout: LayoutDocument['turnouts'][number],
  lies: 'straight' | 'diverging' | 'between',
): string {
  const perPx = 1 / geometry.view.scale;
  const [near, far] = BREAK.map((px) => px * perPx) as [number, number];
  if (geometry.drawn(turnout.legs[0]!.line).length < 3 * far) return '';
  const sign = turnout.facing === 'up' ? 1 : -1;
  const straight = turnout.straight
    ? legPath(geometry, turnout.straight, near, far)
    : geometry.path(turnout.line, turnout.at.tenthUm + sign * near, turnout.at.tenthUm + sign * far);
  const diverging = legPath(geometry, turnout.legs[0]!, near, far);
  return lies === 'between' ? straight + diverging : lies === 'straight' ? diverging : straight;
}

function legPath(
  geometry: SheetGeometry,
  end: { line: string; end: 'start' | 'end' },
  near: number,
  far: number,
): string {
  const { length, stretch } = geometry.drawn(end.line);
  const [a, b] = [near / (stretch || 1), far / (stretch || 1)];
  return end.end === 'start' ? geometry.path(end.line, a, b) : geometry.path(end.line, length - a, length - b);
}

/** One place on two lines, where they cross: a cross on either, and a thread between them. */
function Crossings({
  document,
  geometry,
  chosen,
  onSelect,
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  chosen: ReadonlySet<string>;
  onSelect?: (id: string) => void;
}) {
  return document.crossings.map((crossing) => {
    const [a, b] = [crossing.a, crossing.b].map(({ line, at }) => geometry.at(line, at.tenthUm)) as [Point, Point];
    if (!geometry.isNear(a.x, b.x)) return null;
    const colour = chosen.has(crossing.id) ? 'var(--accent)' : inkOf(crossing);
    const apart = Math.hypot(a.x - b.x, a.y - b.y) > 12;
    return (
      <Pickable
        key={crossing.id}
        thing={crossing.id}
        label={placeThing(document, 'crossings', crossing)}
        onPick={onSelect && (() => onSelect(crossing.id))}
      >
        <title>{placeThing(document, 'crossings', crossing)}</title>
        {apart && (
          <path
            d={`M${a.x} ${a.y}${a.y === b.y ? `Q${(a.x + b.x) / 2} ${a.y + 40} ` : 'L'}${b.x} ${b.y}`}
            stroke={colour}
            strokeDasharray="2 3"
            fill="none"
          />
        )}
        {(apart ? [a, b] : [a]).map(({ x, y }, i) => (
          <g key={i}>
            <circle cx={x} cy={y} r="10" fill="transparent" />
            <path
              d={`M${x - 5} ${y - 5}L${x + 5} ${y + 5}M${x - 5} ${y + 5}L${x + 5} ${y - 5}`}
              stroke={colour}
              strokeWidth="1.8"
            />
          </g>
        ))}
      </Pickable>
    );
  });
}
