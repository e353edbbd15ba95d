'use client';
import { type PointerEvent, type RefObject, useEffect, useMemo, useRef } from 'react';
import type { Drawing } from '@/core/track';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { localPoint } from './local-point';
import { firstView, GUTTER, RIGHT_PAD, type View, zoomView } from './sheet-geometry';

/** A finger or mouse that moves less than this has only clicked. */
const STILL_PX = 4;
const WHEEL_ZOOM = 0.0016;
/** A pinch on a trackpad arrives as small wheel steps with Ctrl. */
const PINCH_ZOOM = 0.01;

/** What part of the line is shown, moved by wheel, trackpad, mouse, fingers and keys. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one view; wheel, pinch, keys and fit all change it.
export function useSheetView(svg: RefObject<SVGSVGElement | null>, drawing: Drawing, fit: View, width: number) {
  const store = useWorkbenchStore();
  const view = useWorkbench((s) => s.view);
  const setView = (next: View) => store.getState().set({ view: next });
  const first = useMemo(() => firstView(fit), [fit]);
  const shown = view ?? first;
  const present = useRef({ shown, fit });
  present.current = { shown, fit };
  const zoom = (factor: number, about = GUTTER + (width - GUTTER) / 2) => {
    const next = zoomView(present.current.shown, present.current.fit, factor, about);
    present.current.shown = next;
    setView(next);
  };
  const pan = (px: number) => {
    const { shown: now } = present.current;
    const next = { ...now, from: now.from + px / now.scale };
    present.current.shown = next;
    setView(next);
  };
  /** Shows the beginning or the end of the line, as large as now. */
  const goTo = (end: 'start' | 'end') => {
    const { scale } = present.current.shown;
    const room = (width - GUTTER - RIGHT_PAD) / scale;
    setView({ scale, from: end === 'start' ? drawing.from : Math.max(drawing.from, drawing.to - room) });
  };
  /** Moves just enough that a screen x is on the sheet; returns where it is then. */
  const bringIn = (x: number): number => {
    const by = x < GUTTER + 8 ? x - GUTTER - 60 : x > width - RIGHT_PAD ? x - width + RIGHT_PAD + 60 : 0;
    if (by !== 0) pan(by);
    return x - by;
  };

  const wheel = useRef((_event: WheelEvent) => {});
  wheel.current = (event: WheelEvent) => {
    event.preventDefault();
    const { x } = localPoint(event, svg.current!);
    if (event.ctrlKey) zoom(Math.exp(-event.deltaY * PINCH_ZOOM), x);
    else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))
      pan(event.deltaX + (event.shiftKey ? event.deltaY : 0));
    else zoom(Math.exp(-event.deltaY * WHEEL_ZOOM), x);
  };
  useEffect(() => {
    const element = svg.current!;
    const on = (event: WheelEvent) => wheel.current(event);
    element.addEventListener('wheel', on, { passive: false });
    return () => element.removeEventListener('wheel', on);
  }, [svg]);

  /** Fingers, or the mouse, that are down now. */
  const down = useRef(new Map<number, number>());
  const moved = useRef(false);
  const spread = () => {
    const xs = [...down.current.values()];
    return { width: Math.abs(xs[0]! - xs[1]!), middle: (xs[0]! + xs[1]!) / 2 };
  };
  const pointers = {
    onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
      if (down.current.size === 0) moved.current = false;
      down.current.set(event.pointerId, event.clientX);
    },
    onPointerMove: (event: PointerEvent<SVGSVGElement>) => {
      const from = down.current.get(event.pointerId);
      if (from === undefined || event.buttons === 0) return;
      if (!moved.current && Math.abs(event.clientX - from) < STILL_PX) return;
      if (!moved.current) event.currentTarget.setPointerCapture(event.pointerId);
      moved.current = true;
      if (down.current.size === 1) pan(from - event.clientX);
      else {
        const before = spread();
        down.current.set(event.pointerId, event.clientX);
        const after = spread();
        const { x } = localPoint({ clientX: after.middle, clientY: 0 }, event.currentTarget);
        if (before.width > 8 && after.width > 8) zoom(after.width / before.width, x);
        pan(before.middle - after.middle);
      }
      down.current.set(event.pointerId, event.clientX);
    },
    onPointerCancel: (event: PointerEvent<SVGSVGElement>) => {
      down.current.delete(event.pointerId);
    },
  };
  /** Ends a press; true when it was a click and not a move. */
  const wasClick = (event: PointerEvent<SVGSVGElement>): boolean => {
    const known = down.current.delete(event.pointerId);
    return known && !moved.current;
  };
  return { shown, setView, zoom, pan, goTo, bringIn, pointers, wasClick };
}
