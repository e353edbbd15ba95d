import type { LayoutDocument } from '@/core/survey';
import { RULER_HEIGHT } from './ruler-steps';
import { bandOf, type SheetGeometry } from './sheet-geometry';

/** Where nobody sees the track: shaded down to the end of the drawing. */
export function HiddenBands({
  document,
  geometry,
  bottom,
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  bottom: number;
}) {
  return document.features.map((f) => {
    if (f.kind !== 'hidden') return null;
    const { x, width } = bandOf(geometry, [{ line: f.line, from: f.at.tenthUm, to: f.to.tenthUm }]);
    return (
      <rect
        key={f.id}
        x={x}
        y={RULER_HEIGHT}
        width={width}
        height={Math.max(0, bottom - RULER_HEIGHT)}
        fill="var(--hair)"
        opacity=".6"
      />
    );
  });
}

/** What is chosen, through all that is drawn beneath it: a stretch as a band, a place as a line. */
export function ChosenBands({
  bands,
  bottom,
}: {
  bands: readonly { id?: string; x: number; width: number }[];
  bottom: number;
}) {
  return bands.map(({ id, x, width }) =>
    width > 0 ? (
      <rect
        key={id}
        x={x}
        y={RULER_HEIGHT}
        width={width}
        height={bottom - RULER_HEIGHT}
        fill="var(--accent)"
        opacity=".09"
      />
    ) : (
      <path key={id} d={`M${x} ${RULER_HEIGHT}V${bottom}`} stroke="var(--accent)" strokeDasharray="2 3" />
    ),
  );
}
