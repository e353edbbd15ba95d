import { type KeyboardEvent, type PointerEvent, useCallback, useRef } from 'react';
import type { BlockView } from '@/core/design';
import { useWorkbenchStore } from '@/ui/state/store';
import { isPlaced } from './choosing';
import { localPoint } from './local-point';
import type { Point, SheetGeometry } from './sheet-geometry';

const REACH_PX = 14;

/** Picking on the sheet: a thing is selected; with Shift, measured to from the one selected; with Ctrl, chosen together with what is chosen. */
export function usePicking(
  geometry: SheetGeometry,
  blocks: readonly BlockView[] | undefined,
  wasClick: (event: PointerEvent<SVGSVGElement>) => boolean,
  onTurnout: ((id: string) => void) | undefined,
) {
  const store = useWorkbenchStore();
  const withShift = useRef(false);
  const withControl = useRef(false);
  /** The keys that are held with a press or a click, noted before anything else hears of it. */
  const noteKeys = (event: PointerEvent | KeyboardEvent) => {
    withShift.current = event.shiftKey;
    withControl.current = event.ctrlKey || event.metaKey;
  };
  const blockAt = (point: Point) => {
    const place = geometry.nearest(point, REACH_PX);
    return (
      place &&
      blocks?.find((b) => b.pieces.some((p) => p.line === place.line && place.at >= p.from && place.at <= p.to))
    );
  };
  const select = useCallback(
    (id: string) => {
      const state = store.getState();
      if (withControl.current && state.stage.edits && isPlaced(state.document, id)) state.choose(id);
      else if (withShift.current && state.selected && state.selected !== id) state.set({ measured: id });
      else state.select(id);
    },
    [store],
  );
  const onPointerUp = (event: PointerEvent<SVGSVGElement>) => {
    if (!wasClick(event) || event.button !== 0 || (event.target as Element).closest('[role=button]')) return;
    const point = localPoint(event, event.currentTarget);
    const place = geometry.nearest(point, REACH_PX);
    const block = blockAt(point);
    if (withShift.current && block) return select(block.id);
    const { place: take } = store.getState();
    if (take && place) return take(place);
    store.getState().select(block?.id);
  };

  const pickTurnout = useCallback(
    (id: string) => {
      select(id);
      if (!withShift.current && !withControl.current) onTurnout?.(id);
    },
    [select, onTurnout],
  );
  /** The place of the track that is nearest to a point, within reach. */
  const placeAt = (point: Point) => geometry.nearest(point, REACH_PX);
  return { noteKeys, blockAt, placeAt, select, pickTurnout, onPointerUp };
}
