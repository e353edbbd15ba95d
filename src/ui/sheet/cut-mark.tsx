import { type KeyboardEvent, memo, type PointerEvent } from 'react';
import { type ShownUnit, STEPS, showLength, type TenthUm } from '@/core/measure';
import type { Gap, Mark } from '@/core/survey';
import { distanceAt } from '@/core/track';
import { localPoint } from './local-point';
import { inkOf } from './pencil';
import type { SheetGeometry } from './sheet-geometry';

interface Props {
  cut: Gap | Mark;
  geometry: SheetGeometry;
  unit: ShownUnit;
  selected: boolean;
  canMove: boolean;
  /** Where it is held, if it is. */
  heldAt: TenthUm | undefined;
  onSelect?: (id: string) => void;
  onNudge?: (id: string, by: TenthUm) => void;
  /** It is held there. */
  onHold: (id: string, at: TenthUm) => void;
  /** It is let go of where it is held, or not held any more. */
  onLetGo: (cut: Gap | Mark, cancelled?: boolean) => void;
}

/** A gap as a break with a bar, a block mark as a dashed bar. Drawn anew only when it is another: there may be a thousand. */
export const CutMark = memo(function CutMark({
  cut,
  geometry,
  unit,
  selected,
  canMove,
  heldAt,
  onSelect,
  onNudge,
  onHold,
  onLetGo,
}: Props) {
  const at = heldAt ?? cut.at.tenthUm;
  const { x, y } = geometry.at(cut.line, at);
  const steps = STEPS[unit];
  const placeOf = (event: PointerEvent<SVGGElement>): TenthUm => {
    const { x: pointed } = localPoint(event, event.currentTarget.ownerSVGElement!);
    const step = event.altKey ? steps.fine : steps.point;
    return Math.round(distanceAt(geometry.drawn(cut.line), geometry.valueAt(pointed)) / step) * step;
  };
  const nudge = (event: KeyboardEvent) => {
    if (!canMove || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
    event.preventDefault();
    event.stopPropagation();
    const size = event.altKey ? steps.fine : event.shiftKey ? steps.coarse : steps.arrow;
    const sign = (event.key === 'ArrowRight') === geometry.ascends(cut.line) ? 1 : -1;
    onNudge?.(cut.id, sign * size);
  };
  const drawn = (
    <>
      <rect x={x - 6} y={y - 12} width="12" height="24" fill="transparent" />
      {cut.kind === 'gap' && <path d={`M${x - 2.5} ${y}H${x + 2.5}`} stroke="var(--sheet)" strokeWidth="4" />}
      <path
        d={`M${x} ${y - 9}V${y + 9}`}
        stroke={selected ? 'var(--accent)' : inkOf(cut)}
        strokeWidth={selected ? 2.6 : cut.certainty === 'tentative' ? 1.2 : 1.7}
        strokeDasharray={cut.kind === 'mark' ? '3 2.5' : undefined}
      />
      {selected && <path d={`M${x - 4} ${y - 12}H${x + 4}L${x} ${y - 8}Z`} fill="var(--accent)" />}
      {heldAt !== undefined && (
        <text x={x} y={y - 18} textAnchor="middle" fontWeight="700">
          {showLength(at, unit)}
        </text>
      )}
    </>
  );
  if (!onSelect) return <g>{drawn}</g>;
  return (
    <g
      role="button"
      data-thing={cut.id}
      tabIndex={0}
      aria-label={`${cut.kind === 'gap' ? 'Gap' : 'Block mark'} at ${showLength(at, unit)}, ${cut.certainty}`}
      className={canMove ? 'cursor-ew-resize' : 'cursor-pointer'}
      onClick={() => onSelect(cut.id)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onSelect(cut.id);
        nudge(event);
      }}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        /** Choosing it together with others is left to the click. */
        if (!event.ctrlKey && !event.metaKey) onSelect(cut.id);
        if (canMove) event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (canMove && event.buttons === 1 && event.currentTarget.hasPointerCapture(event.pointerId))
          onHold(cut.id, placeOf(event));
      }}
      onPointerUp={() => onLetGo(cut)}
      onPointerCancel={() => onLetGo(cut, true)}
    >
      {drawn}
    </g>
  );
});
