import { memo } from 'react';
import type { LayoutDocument } from '@/core/survey';
import type { SheetGeometry } from './sheet-geometry';

/** Every line as one stroke, on the sheet, in the overview and in a layout's picture alike. */
export const Rails = memo(function Rails({
  document,
  geometry,
  width,
  colour = 'var(--ink)',
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  width: number;
  colour?: string;
}) {
  const near = document.lines.filter((l) => geometry.hasNear({ line: l.id, from: 0, to: l.length.tenthUm }));
  const strokes = near.map((line) => ({ key: line.id, d: geometry.path(line.id, 0, line.length.tenthUm) }));
  return [...strokes, ...rounds(document, geometry)].map(({ key, d }) => (
    <path key={key} d={d} fill="none" stroke={colour} strokeWidth={width} strokeLinejoin="round" />
  ));
});

/** Where two ends that point the same way meet, the track comes round from the upper one to the lower. */
function rounds(document: LayoutDocument, geometry: SheetGeometry): { key: string; d: string }[] {
  return document.lines.flatMap((line) => {
    const drawn = geometry.drawn(line.id);
    const ends = [
      [drawn.roundAtStart, 0, 'start'],
      [drawn.roundAtEnd, line.length.tenthUm, 'end'],
    ] as const;
    return ends.flatMap(([there, at, which]) => {
      if (!there || there.row < drawn.row) return [];
      const { x, y } = geometry.at(line.id, at);
      const [x2, y2] = [geometry.x(there.x), geometry.rowY(there.row)];
      const right = (which === 'end') === geometry.ascends(line.id);
      const far = right ? Math.max(x, x2) : Math.min(x, x2);
      const r = (y2 - y) / 2;
      if (!geometry.isNear(x, x2)) return [];
      return [{ key: `${line.id} ${which}`, d: `M${x} ${y}H${far}A${r} ${r} 0 0 ${right ? 1 : 0} ${far} ${y2}H${x2}` }];
    });
  });
}
