import { type PointerEvent, useState } from 'react';
import { fromMm } from '@/core/measure';
import { useWorkbench } from '@/ui/state/store';
import { textWidth } from './label-placement';
import { localPoint } from './local-point';
import { Pickable } from './pickable';
import type { Point, SheetGeometry } from './sheet-geometry';

/** A train farther than this off the sheet is not drawn; it is in the list beside it. */
const OFF_SHEET_PX = 600;
/** A press that moves less than this is a click. */
const DRAG_PX = 8;

export const trainColour = (index: number): string => `var(--train-${index % 4})`;

/** Trains at their true length, nose pointed, with as much of the name inside as fits. */
export function TrainsLayer({
  width,
  geometry,
  selected,
  onSelect,
  blockAt,
  onSend,
}: {
  width: number;
  geometry: SheetGeometry;
  selected: string | undefined;
  onSelect: (id: string) => void;
  /** The name of the block at a point of the drawing, if there is one within reach. */
  blockAt: (point: Point) => string | undefined;
  /** A train was dragged to a block. */
  onSend?: (train: string, block: string) => void;
}) {
  const moving = useWorkbench((s) => s.frame?.trains);
  const [dragged, setDragged] = useState<{ id: string; from: Point; to: Point }>();
  const far = dragged && Math.hypot(dragged.to.x - dragged.from.x, dragged.to.y - dragged.from.y) > DRAG_PX;
  const target = far ? blockAt(dragged.to) : undefined;
  const handlers = (id: string) => ({
    onPointerDown: (event: PointerEvent<SVGGElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      const point = localPoint(event, event.currentTarget.ownerSVGElement!);
      setDragged({ id, from: point, to: point });
    },
    onPointerMove: (event: PointerEvent<SVGGElement>) => {
      if (dragged?.id === id) setDragged({ ...dragged, to: localPoint(event, event.currentTarget.ownerSVGElement!) });
    },
    onPointerUp: () => {
      if (target) onSend?.(id, target);
      setDragged(undefined);
    },
    onPointerCancel: () => setDragged(undefined),
  });
  const trains = moving?.map((train, index) => {
    const [first] = train.spans;
    if (!first) return null;
    const nose = geometry.at(first.line, fromMm(first.from));
    const behind = geometry.at(first.line, fromMm(first.to));
    const longest = train.spans.reduce((a, b) => (Math.abs(b.from - b.to) > Math.abs(a.from - a.to) ? b : a));
    const middle = geometry.at(longest.line, fromMm((longest.from + longest.to) / 2));
    const longestPx = Math.abs(
      geometry.at(longest.line, fromMm(longest.from)).x - geometry.at(longest.line, fromMm(longest.to)).x,
    );
    const name = [train.name, train.name.split(' ')[0]!].find((text) => longestPx > textWidth(text, 6.2) + 8);
    if (Math.max(nose.x, behind.x) < -OFF_SHEET_PX || Math.min(nose.x, behind.x) > width + OFF_SHEET_PX) return null;
    const toRight = nose.x >= behind.x;
    const colour = trainColour(index);
    return (
      <g key={train.id} className="pointer-events-auto touch-none" {...handlers(train.id)}>
        <Pickable label={`Train ${train.name}`} onPick={() => onSelect(train.id)}>
          {train.spans.map((span, i) => (
            <path
              key={i}
              d={geometry.path(span.line, fromMm(Math.max(0, span.from)), fromMm(Math.max(0, span.to)))}
              fill="none"
              stroke={colour}
              strokeWidth={selected === train.id ? 15 : 12}
              strokeLinejoin="round"
            />
          ))}
          <path
            d={`M${nose.x} ${nose.y - 6}L${nose.x + (toRight ? 7 : -7)} ${nose.y}L${nose.x} ${nose.y + 6}Z`}
            fill={colour}
          />
          {name && (
            <text
              x={middle.x}
              y={middle.y + 4}
              textAnchor="middle"
              fontSize="11.5"
              fontWeight="600"
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
      {far && (
        <g pointerEvents="none">
          <path
            d={`M${dragged.from.x} ${dragged.from.y}L${dragged.to.x} ${dragged.to.y}`}
            stroke="var(--accent)"
            strokeWidth="2"
            strokeDasharray="5 4"
          />
          <text x={dragged.to.x} y={dragged.to.y - 14} textAnchor="middle" fontWeight="650">
            {target ? `Send it to ${target}` : 'Drop it on a block'}
          </text>
        </g>
      )}
    </>
  );
}
