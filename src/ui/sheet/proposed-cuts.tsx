import { showLength } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import type { SheetGeometry } from './sheet-geometry';

/** Where gaps are suggested: a dashed bar with a flag, which no gap that is there has. Each is moved by dragging and by the arrow keys. */
export function ProposedCuts({
  document,
  geometry,
  cuts,
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  cuts: readonly { line: string; at: number }[];
}) {
  const known = new Map(document.lines.map(({ id, length }) => [id, length.tenthUm]));
  return (
    <g data-proposed>
      {cuts.map(({ line, at }, nth) => {
        if (at > (known.get(line) ?? -1)) return null;
        const { x, y } = geometry.at(line, at);
        if (!geometry.isNear(x)) return null;
        return (
          <g
            key={`${line} ${at}`}
            data-thing={`proposed ${nth}`}
            role="button"
            tabIndex={0}
            className="cursor-ew-resize"
            aria-label={`Suggested gap at ${showLength(at, document.shownUnit)}, moved by dragging or by the arrow keys`}
          >
            <rect x={x - 8} y={y - 20} width="16" height="34" fill="transparent" />
            <path d={`M${x} ${y - 13}V${y + 13}`} stroke="var(--accent)" strokeWidth="2" strokeDasharray="3 2" />
            <path d={`M${x} ${y - 19}l4 4l-4 4l-4 -4z`} fill="var(--accent)" />
          </g>
        );
      })}
    </g>
  );
}
