import { fromMm } from '@/core/measure';
import type { RehearsalFrame } from '@/core/simulation';
import { textWidth } from './label-placement';
import { Pickable } from './pickable';
import type { SheetGeometry } from './sheet-geometry';

export const trainColour = (index: number): string => `var(--train-${index % 4})`;

/** Trains at their true length, nose pointed, with as much of the name inside as fits. */
export function TrainsLayer({
  frame,
  geometry,
  selected,
  onSelect,
}: {
  frame: RehearsalFrame;
  geometry: SheetGeometry;
  selected: string | undefined;
  onSelect: (id: string) => void;
}) {
  return frame.trains.map((train, index) => {
    const first = train.spans[0]!;
    const nose = geometry.at(first.line, fromMm(first.from));
    const behind = geometry.at(first.line, fromMm(first.to));
    const longest = train.spans.reduce((a, b) => (Math.abs(b.from - b.to) > Math.abs(a.from - a.to) ? b : a));
    const middle = geometry.at(longest.line, fromMm((longest.from + longest.to) / 2));
    const longestPx = Math.abs(
      geometry.at(longest.line, fromMm(longest.from)).x - geometry.at(longest.line, fromMm(longest.to)).x,
    );
    const name = [train.name, train.name.split(' ')[0]!].find((text) => longestPx > textWidth(text, 6.2) + 8);
    const toRight = nose.x >= behind.x;
    const colour = trainColour(index);
    return (
      <Pickable key={train.id} label={`Train ${train.name}`} onPick={() => onSelect(train.id)}>
        {train.spans.map((span) => (
          <path
            key={`${span.line} ${span.from} ${span.to}`}
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
    );
  });
}
