import type { LayoutDocument } from '@/core/survey';
import type { SheetGeometry } from './sheet-geometry';

/** Where gaps are suggested: a dashed bar with a flag, which no gap that is there has. */
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
    <g pointerEvents="none" data-proposed>
      {cuts
        .filter(({ line, at }) => at <= (known.get(line) ?? -1))
        .map(({ line, at }) => {
          const { x, y } = geometry.at(line, at);
          if (!geometry.isNear(x)) return null;
          return (
            <g key={`${line} ${at}`}>
              <path d={`M${x} ${y - 13}V${y + 13}`} stroke="var(--accent)" strokeWidth="2" strokeDasharray="3 2" />
              <path d={`M${x} ${y - 19}l4 4l-4 4l-4 -4z`} fill="var(--accent)" />
            </g>
          );
        })}
    </g>
  );
}
