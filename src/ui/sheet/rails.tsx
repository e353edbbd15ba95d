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
  return near.map((line) => (
    <path
      key={line.id}
      d={geometry.path(line.id, 0, line.length.tenthUm)}
      fill="none"
      stroke={colour}
      strokeWidth={width}
      strokeLinejoin="round"
    />
  ));
});
