import type { SheetGeometry } from './sheet-geometry';

/** A place or a stretch of the track that is spoken of, with its distance. */
export function PointedPlace({
  geometry,
  place,
  text,
}: {
  geometry: SheetGeometry;
  place: { line: string; at: number; to?: number };
  text: string;
}) {
  const { x, y } = geometry.at(place.line, place.at);
  return (
    <g pointerEvents="none" data-pointed>
      {place.to !== undefined && (
        <path
          d={geometry.path(place.line, place.at, place.to)}
          fill="none"
          stroke="var(--accent)"
          strokeWidth="9"
          opacity=".35"
        />
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
