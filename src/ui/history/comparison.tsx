import { useMemo } from 'react';
import type { Difference, DifferencePlace, LayoutDocument } from '@/core/survey';
import { straighten } from '@/core/track';
import { RULER_HEIGHT } from '@/ui/sheet/ruler-steps';
import { fitView, SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { SheetPicture } from '@/ui/sheet/sheet-picture';

const PITCH = 54;
const TOP = RULER_HEIGHT + 34;

interface Side {
  title: string;
  document: LayoutDocument;
  places: { number: number; place: DifferencePlace }[];
}

/** Two versions drawn one above the other on one ruler; what differs is ringed and numbered as in the list beside it. */
export function Comparison({
  before,
  after,
  titles,
  differences,
  width,
}: {
  before: LayoutDocument;
  after: LayoutDocument;
  titles: [string, string];
  differences: Difference[];
  width: number;
}) {
  const sides = (['before', 'after'] as const).map((which, i): Side => {
    const places = differences.flatMap((difference, n) => {
      const place = difference[which];
      return place ? [{ number: n + 1, place }] : [];
    });
    return { title: titles[i]!, document: which === 'before' ? before : after, places };
  });
  const drawings = useMemo(() => [straighten(before), straighten(after)], [before, after]);
  const fits = drawings.map((drawing) => fitView(drawing, width));
  const view = { from: Math.min(...drawings.map((d) => d.from)), scale: Math.min(...fits.map((fit) => fit.scale)) };
  return sides.map(({ title, document, places }, i) => {
    const geometry = new SheetGeometry(drawings[i]!, view, TOP, PITCH);
    const height = geometry.bottom + 46;
    return (
      <figure key={title} className="border-b border-line">
        <figcaption className="px-4 pt-2 font-semibold">{title}</figcaption>
        {document.lines.length === 0 ? (
          <p className="px-4 py-6 text-ink2">There is no track in this version.</p>
        ) : (
          <svg width={width} height={height} className="drawing block bg-sheet" role="img" aria-label={title}>
            <SheetPicture document={document} geometry={geometry} width={width} height={height} />
            {places.map(({ number, place }) => (
              <Ring key={number} number={number} place={place} geometry={geometry} />
            ))}
          </svg>
        )}
      </figure>
    );
  });
}

function Ring({ number, place, geometry }: { number: number; place: DifferencePlace; geometry: SheetGeometry }) {
  const a = geometry.at(place.line, place.from);
  const b = geometry.at(place.line, place.to);
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  return (
    <g>
      <rect
        x={left - 8}
        y={Math.min(a.y, b.y) - 13}
        width={right - left + 16}
        height={Math.abs(a.y - b.y) + 26}
        rx="6"
        fill="none"
        stroke="var(--accent)"
        strokeWidth="1.6"
      />
      <circle cx={left - 8} cy={a.y + 15} r="8" fill="var(--accent)" />
      <text
        x={left - 8}
        y={a.y + 19}
        textAnchor="middle"
        fontWeight="650"
        fontSize="11.5"
        style={{ fill: 'var(--on-accent)', stroke: 'none' }}
      >
        {number}
      </text>
    </g>
  );
}
