import type { SheetGeometry } from './sheet-geometry';

/** A place on the track that was pointed at, with its distance. */
export function PointedPlace({
  geometry,
  place,
  text,
}: {
  geometry: SheetGeometry;
  place: { line: string; at: number };
  text: string;
}) {
  const { x, y } = geometry.at(place.line, place.at);
  return (
    <g pointerEvents="none" data-pointed>
      <circle cx={x} cy={y} r="6" fill="none" stroke="var(--accent)" strokeWidth="2" />
      <text x={x} y={y - 13} textAnchor="middle" fontWeight="650" style={{ fill: 'var(--accent)' }}>
        {text}
      </text>
    </g>
  );
}
