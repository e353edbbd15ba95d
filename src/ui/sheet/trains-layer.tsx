import { type PointerEvent, useEffect, useLayoutEffect, useReducer, useRef, useState } from 'react';
import type { BlockView } from '@/core/design';
import { useWorkbenchStore } from '@/ui/state/store';
import { BlockPlate } from './block-plates';
import { type DrawnTrain, drawTraffic, type Ground, moveTraffic, shapeOf } from './draw-trains';
import { localPoint } from './local-point';
import { Pickable } from './pickable';
import type { Point } from './sheet-geometry';

/** A press that moves less than this is a click. */
const DRAG_PX = 8;

export const trainColour = (index: number): string => `var(--train-${index % 4})`;

interface Props extends Ground {
  chosen: ReadonlySet<string>;
  onSelect: (id: string) => void;
  /** The block at a point of the drawing, if there is one within reach. */
  blockAt: (point: Point) => BlockView | undefined;
  /** A train was dragged to a block. */
  onSend?: (train: string, block: string) => void;
}

/**
 * Trains at their true length, with the plates of their blocks above them. They move at every report: only where the shape of the
 * drawing changes is it drawn anew, else its attributes are moved.
 */
export function TrainsLayer({ chosen, onSelect, blockAt, onSend, ...ground }: Props) {
  const { drawn, layer } = useTraffic(ground);
  const { dragged, far, handlers } = useDragged(blockAt, onSend);
  return (
    <>
      <g ref={layer}>
        {drawn.trains.map((train) => (
          <g key={train.id} className="pointer-events-auto touch-none" {...handlers(train.id)}>
            <Train train={train} isChosen={chosen.has(train.id)} onSelect={onSelect} />
          </g>
        ))}
        {drawn.plates.map(({ block: { id, name }, plate, shift }) => (
          <g key={id} className="pointer-events-auto">
            <BlockPlate
              id={id}
              name={name}
              plate={plate}
              shift={shift}
              isOccupied
              isSelected={chosen.has(id)}
              onPick={() => onSelect(id)}
            />
          </g>
        ))}
      </g>
      {far && (
        <g pointerEvents="none">
          <path
            d={`M${dragged!.from.x} ${dragged!.from.y}L${dragged!.to.x} ${dragged!.to.y}`}
            stroke="var(--accent)"
            strokeWidth="2"
            strokeDasharray="5 4"
          />
          <text x={dragged!.to.x} y={dragged!.to.y - 14} textAnchor="middle" fontWeight="650">
            {far.target ? `Send it to ${far.target.name}` : 'Drop it on a block'}
          </text>
        </g>
      )}
    </>
  );
}

/** What is drawn at the present moment, and the layer in which it is moved until its shape changes. */
function useTraffic(ground: Ground) {
  const store = useWorkbenchStore();
  const layer = useRef<SVGGElement>(null);
  const [, drawAnew] = useReducer((times: number) => times + 1, 0);
  const drawn = drawTraffic(ground, store.getState().frame?.trains);
  /** What the layer now holds. */
  const held = useRef({ ground, shape: '' });
  useLayoutEffect(() => {
    held.current = { ground, shape: shapeOf(drawn) };
    moveTraffic(layer.current!, drawn);
  });
  useEffect(
    () =>
      store.subscribe((now, before) => {
        if (now.frame === before.frame || !layer.current) return;
        const next = drawTraffic(held.current.ground, now.frame?.trains);
        if (shapeOf(next) === held.current.shape) moveTraffic(layer.current, next);
        else drawAnew();
      }),
    [store],
  );
  return { drawn, layer };
}

/** A train that is dragged to a block. */
function useDragged(blockAt: Props['blockAt'], onSend: Props['onSend']) {
  const [dragged, setDragged] = useState<{ id: string; from: Point; to: Point }>();
  const isFar = dragged && Math.hypot(dragged.to.x - dragged.from.x, dragged.to.y - dragged.from.y) > DRAG_PX;
  const far = isFar ? { target: blockAt(dragged.to) } : undefined;
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
      if (far?.target) onSend?.(id, far.target.id);
      setDragged(undefined);
    },
    onPointerCancel: () => setDragged(undefined),
  });
  return { dragged, far, handlers };
}

/** What moves of it is marked as a part, in the order in which it is drawn. */
function Train({
  train: { id, name, index, bodies, nose, text },
  isChosen,
  onSelect,
}: {
  train: DrawnTrain;
  isChosen: boolean;
  onSelect: (id: string) => void;
}) {
  const colour = trainColour(index);
  return (
    <Pickable thing={id} label={`Train ${name}`} onPick={() => onSelect(id)}>
      {bodies.map((d, i) => (
        <path
          key={i}
          data-part
          d={d}
          fill="none"
          stroke={colour}
          strokeWidth={isChosen ? 15 : 12}
          strokeLinejoin="round"
        />
      ))}
      <path data-part d={nose} fill={colour} />
      {text && (
        <text
          data-part
          x={text.x}
          y={text.y}
          textAnchor="middle"
          fontSize="11.5"
          fontWeight="600"
          pointerEvents="none"
          style={{ fill: 'var(--sheet)', stroke: 'none' }}
        >
          {text.says}
        </text>
      )}
    </Pickable>
  );
}
