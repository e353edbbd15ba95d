import type { Pointed } from '@/ui/state/selection';
import type { SheetGeometry } from './sheet-geometry';

/** A place or a stretch of the track that is spoken of, with its distance. */
export function PointedPlace({ geometry, place, text }: { geometry: SheetGeometry; place: Pointed; text: string }) {
  const { x, y } = geometry.at(place.line, place.at);
  const own = place.to === undefined ? [] : [{ line: place.line, from: place.at, to: place.to }];
  const known = (line: string) => geometry.drawing.lines.has(line);
  const stretches = [...own, ...(place.besides ?? []).filter(({ line }) => known(line))];
  return (
    <g pointerEvents="none" data-pointed>
      {stretches.map(({ line, from, to }) => (
        <path
          key={`${line} ${from}`}
          d={geometry.path(line, from, to)}
          fill="none"
          stroke="var(--accent)"
          strokeWidth="9"
          opacity=".35"
        />
      ))}
      <circle cx={x} cy={y} r="6" fill="none" stroke="var(--accent)" strokeWidth="2" />
      <text
        x={x}
        y={y - 13}
        textAnchor="middle"
        fontWeight="650"
        style={{ fill: 'var(--accent)', stroke: 'var(--sheet)', strokeWidth: 5, paintOrder: 'stroke' }}
      >
        {text}
      </text>
    </g>
  );
}
