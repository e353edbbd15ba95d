import { memo, useCallback, useRef, useState } from 'react';
import type { TenthUm } from '@/core/measure';
import type { Gap, LayoutDocument, Mark } from '@/core/survey';
import { CutMark } from './cut-mark';
import type { SheetGeometry } from './sheet-geometry';

interface Props {
  document: LayoutDocument;
  geometry: SheetGeometry;
  chosen: ReadonlySet<string>;
  canMove: boolean;
  onSelect?: (id: string) => void;
  /** Moves it; false when it cannot go there. */
  onMove?: (id: string, at: TenthUm) => boolean;
  onNudge?: (id: string, by: TenthUm) => void;
}

/** Every boundary that somebody has set. They move by dragging and by the arrow keys. */
export const CutsLayer = memo(function CutsLayer(props: Props) {
  const { document, geometry, chosen, canMove, onSelect, onMove, onNudge } = props;
  /** What is being dragged, or was let go of a moment ago and is not yet drawn at its new place. */
  const [dragged, setDragged] = useState<{ id: string; at: TenthUm; of: LayoutDocument }>();
  const held = dragged?.of === document ? dragged : undefined;
  const present = useRef({ document, held, onMove });
  present.current = { document, held, onMove };
  const hold = useCallback((id: string, at: TenthUm) => setDragged({ id, at, of: present.current.document }), []);
  const letGo = useCallback((cut: Gap | Mark, cancelled = false) => {
    const { held: now, onMove: move } = present.current;
    const moves = !cancelled && now?.id === cut.id && now.at !== cut.at.tenthUm;
    if (!moves || !move?.(cut.id, now.at)) setDragged(undefined);
  }, []);
  const cuts = document.features.filter((f): f is Gap | Mark => f.kind === 'gap' || f.kind === 'mark');
  return cuts.map((cut) => {
    const heldAt = held?.id === cut.id ? held.at : undefined;
    if (!geometry.isNear(geometry.at(cut.line, heldAt ?? cut.at.tenthUm).x)) return null;
    return (
      <CutMark
        key={cut.id}
        cut={cut}
        geometry={geometry}
        unit={document.shownUnit}
        selected={chosen.has(cut.id)}
        canMove={canMove}
        heldAt={heldAt}
        onSelect={onSelect}
        onNudge={onNudge}
        onHold={hold}
        onLetGo={letGo}
      />
    );
  });
});
