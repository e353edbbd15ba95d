import type { LayoutDocument } from '@/core/survey';
import { straighten } from '@/core/track';
import { Rails } from '@/ui/sheet/rails';
import { SheetGeometry } from '@/ui/sheet/sheet-geometry';

const WIDTH = 420;
const HEIGHT = 96;

/** The straightened drawing of a layout, small: rails and gaps only. */
export function LayoutThumbnail({ document }: { document: LayoutDocument }) {
  const drawing = straighten(document);
  const span = Math.max(drawing.to - drawing.from, 1);
  const scale = (WIDTH - 24) / span;
  const rows = drawing.lastRow - drawing.firstRow;
  const pitch = Math.min(24, rows > 0 ? (HEIGHT - 24) / rows : 0);
  const geometry = new SheetGeometry(
    drawing,
    { from: drawing.from + (66 - 12) / scale, scale },
    (HEIGHT - rows * pitch) / 2,
    pitch,
  );
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-24 w-full" aria-hidden="true">
      {document.lines.length === 0 && (
        <path d={`M12 ${HEIGHT / 2}H${WIDTH - 12}`} stroke="var(--edge)" strokeDasharray="4 5" />
      )}
      <Rails document={document} geometry={geometry} width={1.8} />
      {document.features.map((feature) => {
        if (feature.kind !== 'gap' && feature.kind !== 'mark') return null;
        const { x, y } = geometry.at(feature.line, feature.at.tenthUm);
        return <path key={feature.id} d={`M${x} ${y - 4}V${y + 4}`} stroke="var(--accent)" strokeWidth="1.3" />;
      })}
    </svg>
  );
}
