import { type RefObject, useCallback, useEffect, useRef } from 'react';
import type { BlockView } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import type { GoesOn } from '@/core/track';
import { useWorkbenchStore } from '@/ui/state/store';
import { spansOf } from './selection-place';
import { bandOf, GUTTER, RIGHT_PAD, type SheetGeometry } from './sheet-geometry';

/** How long a place is marked that somebody was led to. */
const SHOWN_MS = 4000;
const NO_BLOCKS: BlockView[] = [];

/** Brings onto the sheet what is selected elsewhere, in a list or by name. Returns what leads to where a line that is drawn cut goes on. */
export function useLedTo(
  svg: RefObject<SVGSVGElement | null>,
  geometry: SheetGeometry,
  bringIn: (x: number) => void,
  document: LayoutDocument,
  blocks: BlockView[] | undefined,
  selected: string | undefined,
) {
  const store = useWorkbenchStore();
  const present = useRef({ geometry, bringIn, blocks });
  present.current = { geometry, bringIn, blocks };
  useEffect(() => {
    const now = present.current;
    const spans = spansOf(document, now.blocks ?? NO_BLOCKS, selected);
    if (spans.length === 0) return;
    const { x, width } = bandOf(now.geometry, spans);
    if (x + width < GUTTER || x > now.geometry.width - RIGHT_PAD) now.bringIn(x + width / 2);
  }, [selected, document]);

  /** Where a line that is drawn cut goes on: brought in, marked for a while, and the focus goes there. */
  return useCallback(
    ({ line, place: at }: GoesOn) => {
      const now = present.current;
      now.bringIn(now.geometry.at(line, at).x);
      const pointed = { line, at };
      store.getState().set({ pointed });
      setTimeout(() => {
        if (store.getState().pointed === pointed) store.getState().set({ pointed: undefined });
      }, SHOWN_MS);
      requestAnimationFrame(() =>
        svg.current
          ?.querySelector(`[data-end="${line} ${at}"]`)
          ?.closest<SVGGElement>('[role=button]')
          ?.focus({ preventScroll: true }),
      );
    },
    [store, svg],
  );
}
