import { memo } from 'react';
import { placeLabels, textWidth } from '@/ui/sheet/label-placement';
import { trainColour } from '@/ui/sheet/trains-layer';
import { type GraphFrame, piecesOf } from './graph-courses';
import type { Stretch } from './sample-stretches';

/** Along its last piece, in this order, a train’s name is tried. */
const NAME_SHARES = [0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9];
/** A piece of fewer samples than these has no room for the name of a train, or of a line. */
const LEAST_FOR_TRAIN = 12;
const LEAST_FOR_LINE = 8;

/** The trains’ names, each where no other stands, and the names of lines off the main one where a train comes onto them. */
export const GraphNames = memo(function GraphNames({
  stretches,
  names,
  lineNames,
  frame,
}: {
  stretches: readonly Stretch[];
  names: string[];
  lineNames: ReadonlyMap<string, string>;
  frame: GraphFrame;
}) {
  const { geometry, pxPerTick, mainRow } = frame;
  const courses = names.map((_, train) => piecesOf(stretches, train, frame));
  const labels = courses.flatMap((pieces, train) => {
    const piece = pieces[pieces.length - 1];
    if (!piece || piece.length < LEAST_FOR_TRAIN) return [];
    const width = textWidth(names[train]!);
    const choices = NAME_SHARES.map((share) => {
      const sample = piece[Math.floor((piece.length - 1) * share)]!;
      const x = Math.max(70, geometry.x((sample.head + sample.tail) / 2) - width / 2);
      return { x, y: sample.tick * pxPerTick - 10, width, height: 14 };
    });
    return [{ id: String(train), choices }];
  });
  const placed = placeLabels(labels);
  return (
    <>
      {courses.flatMap((pieces, train) =>
        pieces.flatMap((piece) => {
          const start = piece[0]!;
          if (start.row === mainRow || piece.length < LEAST_FOR_LINE) return [];
          return (
            <text
              key={`${train} ${start.tick}`}
              x={geometry.x(start.head) + 5}
              y={start.tick * pxPerTick + 12}
              fontSize="11.5"
              style={{ fill: 'var(--ink3)' }}
            >
              {lineNames.get(start.line) ?? ''}
            </text>
          );
        }),
      )}
      {labels.map(({ id, choices }) => {
        const box = choices[placed.get(id) ?? -1];
        return box ? (
          <text
            key={id}
            x={box.x + box.width / 2}
            y={box.y + 10}
            textAnchor="middle"
            fontWeight="600"
            style={{ fill: trainColour(Number(id)) }}
          >
            {names[Number(id)]}
          </text>
        ) : null;
      })}
    </>
  );
});
