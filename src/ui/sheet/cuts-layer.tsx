import { type KeyboardEvent, memo, type PointerEvent, useState } from 'react';
import { STEPS, showLength, type TenthUm } from '@/core/measure';
import type { Gap, LayoutDocument, Mark } from '@/core/survey';
import { distanceAt } from '@/core/track';
import { localPoint } from './local-point';
import type { SheetGeometry } from './sheet-geometry';

interface Props {
  document: LayoutDocument;
  geometry: SheetGeometry;
  selected: string | undefined;
  canMove: boolean;
  onSelect?: (id: string) => void;
  /** Moves it; false when it cannot go there. */
  onMove?: (id: string, at: TenthUm) => boolean;
  onNudge?: (id: string, by: TenthUm) => void;
}

/** Gaps as a break with a bar, block marks as a dashed bar. They move by dragging and by the arrow keys. */
export const CutsLayer = memo(function CutsLayer(props: Props) {
  const { document, geometry, selected, canMove, onSelect, onMove, onNudge } = props;
  /** What is being dragged, or was let go of a moment ago and is not yet drawn at its new place. */
  const [held, setDragged] = useState<{ id: string; at: TenthUm; of: LayoutDocument }>();
  const dragged = held?.of === document ? held : undefined;
  const cuts = document.features.filter((f): f is Gap | Mark => f.kind === 'gap' || f.kind === 'mark');

  const placeOf = (event: PointerEvent<SVGGElement>, cut: Gap | Mark): TenthUm => {
    const { x } = localPoint(event, event.currentTarget.ownerSVGElement!);
    const steps = STEPS[document.shownUnit];
    const step = event.altKey ? steps.fine : steps.point;
    const at = distanceAt(geometry.drawn(cut.line), geometry.valueAt(x));
    return Math.round(at / step) * step;
  };
  const nudge = (event: KeyboardEvent, cut: Gap | Mark) => {
    if (!canMove || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
    event.preventDefault();
    event.stopPropagation();
    const { fine, coarse, arrow } = STEPS[document.shownUnit];
    const size = event.altKey ? fine : event.shiftKey ? coarse : arrow;
    const sign = (event.key === 'ArrowRight') === geometry.ascends(cut.line) ? 1 : -1;
    onNudge?.(cut.id, sign * size);
  };

  return cuts.map((cut) => {
    const at = dragged?.id === cut.id ? dragged.at : cut.at.tenthUm;
    const { x, y } = geometry.at(cut.line, at);
    if (!geometry.isNear(x)) return null;
    const isSelected = selected === cut.id;
    const colour = isSelected ? 'var(--accent)' : 'var(--ink)';
    const what = cut.kind === 'gap' ? 'Gap' : 'Block mark';
    const drawn = (
      <>
        <rect x={x - 6} y={y - 12} width="12" height="24" fill="transparent" />
        {cut.kind === 'gap' && <path d={`M${x - 2.5} ${y}H${x + 2.5}`} stroke="var(--sheet)" strokeWidth="4" />}
        <path
          d={`M${x} ${y - 9}V${y + 9}`}
          stroke={colour}
          strokeWidth={isSelected ? 2.6 : 1.7}
          strokeDasharray={cut.kind === 'mark' ? '3 2.5' : undefined}
        />
        {isSelected && <path d={`M${x - 4} ${y - 12}H${x + 4}L${x} ${y - 8}Z`} fill="var(--accent)" />}
        {dragged?.id === cut.id && (
          <text x={x} y={y - 18} textAnchor="middle" fontWeight="700">
            {showLength(at, document.shownUnit)}
          </text>
        )}
      </>
    );
    if (!onSelect) return <g key={cut.id}>{drawn}</g>;
    return (
      <g
        key={cut.id}
        role="button"
        data-thing={cut.id}
        tabIndex={0}
        aria-label={`${what} at ${showLength(at, document.shownUnit)}, ${cut.certainty}`}
        className={canMove ? 'cursor-ew-resize' : 'cursor-pointer'}
        onClick={() => onSelect(cut.id)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onSelect(cut.id);
          nudge(event, cut);
        }}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.stopPropagation();
          onSelect(cut.id);
          if (canMove) event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={(event) => {
          if (canMove && event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId))
            setDragged({ id: cut.id, at: placeOf(event, cut), of: document });
        }}
        onPointerUp={() => {
          const moves = dragged?.id === cut.id && dragged.at !== cut.at.tenthUm;
          if (!moves || !onMove?.(cut.id, dragged.at)) setDragged(undefined);
        }}
        onPointerCancel={() => setDragged(undefined)}
      >
        {drawn}
      </g>
    );
  });
});
