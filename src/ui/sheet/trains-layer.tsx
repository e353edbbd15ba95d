import { type PointerEvent, useState } from 'react';
import type { BlockView } from '@/core/design';
import { fromMm } from '@/core/measure';
import { useWorkbench } from '@/ui/state/store';
import { BlockPlate } from './block-plates';
import { textWidth } from './label-placement';
import { localPoint } from './local-point';
import { Pickable } from './pickable';
import type { Placed } from './plan-labels';
import type { Point, SheetGeometry } from './sheet-geometry';
import { type Extent, freePart, stepAside, trainExtents } from './step-aside';

/** A train farther than this off the sheet is not drawn; it is in the list beside it. */
const OFF_SHEET_PX = 600;
/** A press that moves less than this is a click. */
const DRAG_PX = 8;

export const trainColour = (index: number): string => `var(--train-${index % 4})`;

/** Trains at their true length, nose pointed, with as much of the name inside as fits. */
export function TrainsLayer({
  width,
  geometry,
  blocks,
  plates,
  occupied,
  chosen,
  onSelect,
  blockAt,
  onSend,
}: {
  width: number;
  geometry: SheetGeometry;
  chosen: ReadonlySet<string>;
  onSelect: (id: string) => void;
  blocks: BlockView[];
  plates: Placed['plates'];
  occupied: ReadonlySet<string>;
  /** The block at a point of the drawing, if there is one within reach. */
  blockAt: (point: Point) => BlockView | undefined;
  /** A train was dragged to a block. */
  onSend?: (train: string, block: string) => void;
}) {
  const moving = useWorkbench((s) => s.frame?.trains);
  const [dragged, setDragged] = useState<{ id: string; from: Point; to: Point }>();
  const far = dragged && Math.hypot(dragged.to.x - dragged.from.x, dragged.to.y - dragged.from.y) > DRAG_PX;
  const target = far ? blockAt(dragged.to) : undefined;
  const handlers = (id: string) => ({
    onPointerDown: (event: PointerEvent<SVGGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      const point = localPoint(event, event.currentTarget.ownerSVGElement!);
      setDragged({ id, from: point, to: point });
    },
    onPointerMove: (event: PointerEvent<SVGGElement>) => {
      if (dragged?.id === id) setDragged({ ...dragged, to: localPoint(event, event.currentTarget.ownerSVGElement!) });
    },
    onPointerUp: () => {
      if (target) onSend?.(id, target.id);
      setDragged(undefined);
    },
    onPointerCancel: () => setDragged(undefined),
  });
  const extents = moving?.flatMap((train) => trainExtents(geometry, train)) ?? [];
  const named = blocks.flatMap((block) => {
    const plate = occupied.has(block.id) ? plates.get(block.id) : undefined;
    return plate ? [{ block, plate, at: stepAside(geometry, plate, block, extents) }] : [];
  });
  const covering = named.map(({ at }) => at);
  const trains = moving?.map((train, index) => {
    const [first] = train.spans;
    if (!first) return null;
    const nose = geometry.at(first.line, fromMm(first.from));
    const behind = geometry.at(first.line, fromMm(first.to));
    const room = trainExtents(geometry, train)
      .map((extent) => freePart(extent, covering))
      .reduce<Extent | undefined>((a, b) => (a && a.to - a.from >= b.to - b.from ? a : b), undefined);
    const words = train.name.split(' ');
    const name = words
      .map((_, i) => words.slice(0, words.length - i).join(' '))
      .find((text) => room && room.to - room.from > textWidth(text, 6.2) + 6);
    if (Math.max(nose.x, behind.x) < -OFF_SHEET_PX || Math.min(nose.x, behind.x) > width + OFF_SHEET_PX) return null;
    const toRight = nose.x >= behind.x;
    const colour = trainColour(index);
    return (
      <g key={train.id} className="pointer-events-auto touch-none" {...handlers(train.id)}>
        <Pickable thing={train.id} label={`Train ${train.name}`} onPick={() => onSelect(train.id)}>
          {train.spans.map((span, i) => (
            <path
              key={i}
              d={geometry.path(span.line, fromMm(Math.max(0, span.from)), fromMm(Math.max(0, span.to)))}
              fill="none"
              stroke={colour}
              strokeWidth={chosen.has(train.id) ? 15 : 12}
              strokeLinejoin="round"
            />
          ))}
          <path
            d={`M${nose.x} ${nose.y - 6}L${nose.x + (toRight ? 7 : -7)} ${nose.y}L${nose.x} ${nose.y + 6}Z`}
            fill={colour}
          />
          {name && room && (
            <text
              x={(room.from + room.to) / 2}
              y={room.y + 4}
              textAnchor="middle"
              fontSize="11.5"
              fontWeight="600"
              pointerEvents="none"
              style={{ fill: 'var(--sheet)', stroke: 'none' }}
            >
              {name}
            </text>
          )}
        </Pickable>
      </g>
    );
  });
  return (
    <>
      {trains}
      {named.map(({ block: { id, name }, plate, at }) => (
        <g key={id} className="pointer-events-auto">
          <BlockPlate
            id={id}
            name={name}
            plate={{ ...plate, x: (at.from + at.to) / 2 }}
            isOccupied
            isSelected={chosen.has(id)}
            onPick={() => onSelect(id)}
          />
        </g>
      ))}
      {far && (
        <g pointerEvents="none">
          <path
            d={`M${dragged.from.x} ${dragged.from.y}L${dragged.to.x} ${dragged.to.y}`}
            stroke="var(--accent)"
            strokeWidth="2"
            strokeDasharray="5 4"
          />
          <text x={dragged.to.x} y={dragged.to.y - 14} textAnchor="middle" fontWeight="650">
            {target ? `Send it to ${target.name}` : 'Drop it on a block'}
          </text>
        </g>
      )}
    </>
  );
}
