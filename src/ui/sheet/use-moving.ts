'use client';
import { type KeyboardEvent, type MouseEvent, type PointerEvent, type RefObject, useCallback, useRef } from 'react';
import { STEPS, showLength, type TenthUm } from '@/core/measure';
import { asTyped, type LayoutDocument, type Span, spanOf } from '@/core/survey';
import { distanceAt } from '@/core/track';
import { useWorkbenchStore, type WorkbenchState } from '@/ui/state/store';
import { localPoint } from './local-point';
import type { SheetGeometry } from './sheet-geometry';

/** A pointer that moves less than this has only clicked. */
const STILL_PX = 4;
/** So near to a cut, it is taken to be at it. */
const SNAP_PX = 8;

/** A thing that is pressed, and once it is dragged, where it would be. */
interface Held {
  id: string;
  span: Span;
  element: Element;
  x: number;
  at?: TenthUm;
}

const isCut = ({ kind }: LayoutDocument['features'][number]) => kind === 'gap' || kind === 'mark';

/** A gap that is suggested, by its number among these, is moved like any thing; then the others follow. */
const PROPOSED = 'proposed ';

/** Turnouts, sensors and whatever stands on a line; cuts, which the sheet may have a thousand of, are moved by their own marks. */
function movable(document: LayoutDocument, id: string | undefined): Span | undefined {
  const is =
    document.turnouts.some((one) => one.id === id) ||
    document.sensors.some((one) => one.id === id) ||
    document.features.some((one) => one.id === id && !isCut(one));
  return is ? spanOf(document, id!) : undefined;
}

function spanNow({ document, proposed }: Pick<WorkbenchState, 'document' | 'proposed'>, id: string): Span | undefined {
  if (!id.startsWith(PROPOSED)) return spanOf(document, id);
  const one = proposed?.[Number(id.slice(PROPOSED.length))];
  return one && { line: one.line, from: one.at, to: one.at };
}

/** Things are moved along their lines by dragging, with a snap to cuts, and by the arrow keys while they have the focus. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one drag from press to drop; its steps share what has been moved so far.
export function useMoving(svg: RefObject<SVGSVGElement | null>, geometry: SheetGeometry, edits: boolean) {
  const store = useWorkbenchStore();
  const held = useRef<Held>(undefined);
  const dragged = useRef(false);
  const move = useCallback(
    (id: string, at: TenthUm) => {
      const state = store.getState();
      const proposed = id.startsWith(PROPOSED) && state.proposed?.[Number(id.slice(PROPOSED.length))];
      if (proposed) {
        const { line } = proposed;
        const others = (state.wishes?.held ?? []).filter((one) => one.line !== line || one.at !== proposed.at);
        state.set({ wishes: { ...state.wishes, held: [...others, { line, at }] } });
        return true;
      }
      return state.edit({ do: 'move', id, at: asTyped(at, state.document.shownUnit) });
    },
    [store],
  );
  const within = useCallback(
    ({ line, from, to }: Span, at: TenthUm) => {
      const whole = store.getState().document.lines.find(({ id }) => id === line)?.length.tenthUm ?? 0;
      return Math.min(whole - (to - from), Math.max(0, at));
    },
    [store],
  );
  /** Moves by a step from where it is now, which may be a step farther than the sheet shows. */
  const nudge = useCallback(
    (id: string, by: TenthUm) => {
      const span = spanNow(store.getState(), id);
      if (span) move(id, within(span, span.from + by));
    },
    [store, move, within],
  );
  const pressed = (event: { target: EventTarget }): { id: string; span: Span; element: Element } | undefined => {
    const element = (event.target as Element).closest('[data-thing]');
    const id = element?.getAttribute('data-thing') ?? undefined;
    const state = store.getState();
    const span = id?.startsWith(PROPOSED) ? spanNow(state, id) : edits ? movable(state.document, id) : undefined;
    return element && span ? { id: id!, span, element } : undefined;
  };
  /** Where it would be with the pointer here. */
  const placeOf = ({ span, x }: Held, event: PointerEvent): TenthUm => {
    const { document } = store.getState();
    const drawn = geometry.drawn(span.line);
    const along = (px: number) => distanceAt(drawn, geometry.valueAt(px));
    const at = span.from + along(localPoint(event, svg.current!).x) - along(x);
    const step = event.altKey ? STEPS[document.shownUnit].fine : STEPS[document.shownUnit].point;
    const reach = SNAP_PX / (geometry.view.scale * (drawn.stretch || 1));
    const near = document.features
      .filter((one) => isCut(one) && one.line === span.line && Math.abs(one.at.tenthUm - at) < reach)
      .sort((a, b) => Math.abs(a.at.tenthUm - at) - Math.abs(b.at.tenthUm - at))[0];
    return within(span, !event.altKey && near ? near.at.tenthUm : Math.round(at / step) * step);
  };
  const letGo = () => {
    if (held.current?.at !== undefined) store.getState().set({ pointed: undefined });
    held.current = undefined;
  };
  return {
    move,
    nudge,
    /** Something is pressed that moves by itself: the sheet is not moved with it. */
    isHeld: () => held.current !== undefined,
    dragging: {
      onPointerDownCapture: (event: PointerEvent) => {
        dragged.current = false;
        const thing = event.button === 0 && !event.shiftKey && !event.ctrlKey && !event.metaKey && pressed(event);
        held.current = thing ? { ...thing, x: localPoint(event, svg.current!).x } : undefined;
        held.current?.element.setPointerCapture(event.pointerId);
      },
      onPointerMoveCapture: (event: PointerEvent) => {
        const now = held.current;
        if (!now || event.buttons !== 1) return;
        if (now.at === undefined && Math.abs(localPoint(event, svg.current!).x - now.x) < STILL_PX) return;
        dragged.current = true;
        now.at = placeOf(now, event);
        const { shownUnit } = store.getState().document;
        const long = now.span.to - now.span.from;
        store.getState().set({
          pointed: {
            line: now.span.line,
            at: now.at,
            to: long > 0 ? now.at + long : undefined,
            says: showLength(now.at, shownUnit),
          },
        });
      },
      onPointerUpCapture: () => {
        const now = held.current;
        letGo();
        if (now?.at !== undefined && now.at !== now.span.from) move(now.id, now.at);
      },
      onPointerCancelCapture: letGo,
      /** What was dragged is not picked as well. */
      onClickCapture: (event: MouseEvent) => {
        if (dragged.current) event.stopPropagation();
        dragged.current = false;
      },
    },
    /** True when the key moved something. */
    byKey: (event: KeyboardEvent): boolean => {
      if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return false;
      if (event.ctrlKey || event.metaKey) return false;
      const thing = pressed(event);
      if (!thing) return false;
      const steps = STEPS[store.getState().document.shownUnit];
      const size = event.altKey ? steps.fine : event.shiftKey ? steps.coarse : steps.arrow;
      nudge(thing.id, ((event.key === 'ArrowRight') === geometry.ascends(thing.span.line) ? 1 : -1) * size);
      return true;
    },
  };
}
