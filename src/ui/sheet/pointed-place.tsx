import type { SVGProps } from 'react';
import type { Pointed } from '@/ui/state/selection';
import type { SheetGeometry } from './sheet-geometry';

/** A place or a stretch of the track that is spoken of, with its distance. */
export function PointedPlace({ geometry, place, text }: { geometry: SheetGeometry; place: Pointed; text: string }) {
  const { x, y } = geometry.at(place.line, place.at);
  const own = place.to === undefined ? [] : [{ line: place.line, from: place.at, to: place.to }];
  const known = (line: string) => geometry.drawing.lines.has(line);
  const stretches = [...own, ...(place.besides ?? []).filter(({ line }) => known(line))];
  const danger = (place.danger ?? []).filter(({ line }) => known(line));
  const along = (line: string, from: number, to: number, look: SVGProps<SVGPathElement>) => (
    <path key={`${line} ${from}`} d={geometry.path(line, from, to)} fill="none" {...look} />
  );
  return (
    <g pointerEvents="none" data-pointed>
      {stretches.map(({ line, from, to }) =>
        along(line, from, to, { stroke: 'var(--accent)', strokeWidth: 9, opacity: 0.35 }),
      )}
      {danger.map(({ line, from, to }) =>
        along(line, from, to, { stroke: 'var(--fail)', strokeWidth: 4, strokeDasharray: '5 3' }),
      )}
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
