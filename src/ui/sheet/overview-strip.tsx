import { type PointerEvent, useMemo } from 'react';
import type { LayoutDocument } from '@/core/survey';
import type { Drawing } from '@/core/track';
import { localPoint } from './local-point';
import { Rails } from './rails';
import { GUTTER, RIGHT_PAD, SheetGeometry, type View } from './sheet-geometry';

export const STRIP_HEIGHT = 34;

/** The whole drawing, small, with a frame round what the sheet shows. Drag the frame to move about. */
export function OverviewStrip({
  document,
  drawing,
  view,
  fit,
  width,
  onMove,
}: {
  document: LayoutDocument;
  drawing: Drawing;
  view: View;
  fit: View;
  width: number;
  onMove: (from: number) => void;
}) {
  const rows = Math.max(1, drawing.lastRow - drawing.firstRow);
  const geometry = useMemo(() => new SheetGeometry(drawing, fit, 8, 18 / rows), [drawing, fit, rows]);
  const span = (width - GUTTER - RIGHT_PAD) / view.scale;
  const left = geometry.x(view.from);
  const right = geometry.x(view.from + span);
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (event.buttons !== 1) return;
    const svg = event.currentTarget;
    svg.setPointerCapture(event.pointerId);
    onMove(geometry.valueAt(localPoint(event, svg).x) - span / 2);
  };
  return (
    <svg
      width={width}
      height={STRIP_HEIGHT}
      className="block shrink-0 cursor-grab touch-none border-t border-line bg-paper"
      onPointerDown={drag}
      onPointerMove={drag}
      aria-label="Overview of the whole layout"
    >
      <title>Overview: drag to move about</title>
      <Rails document={document} geometry={geometry} width={1.2} colour="var(--ink2)" />
      <rect
        x={left}
        y="2"
        width={Math.max(6, right - left)}
        height={STRIP_HEIGHT - 4}
        rx="3"
        fill="var(--accent)"
        fillOpacity=".1"
        stroke="var(--accent)"
        strokeWidth="1.4"
      />
    </svg>
  );
}
