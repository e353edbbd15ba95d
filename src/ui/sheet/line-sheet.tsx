'use client';
import { type ReactNode, type RefObject, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import type { BlockView } from '@/core/design';
import { STEPS } from '@/core/measure';
import { straighten } from '@/core/track';
import { drawnDocument, sameTrack } from '@/ui/state/design';
import { useWorkbench } from '@/ui/state/store';
import { ChosenBands, HiddenBands } from './bands';
import { heightOf, type LaneKind } from './lanes';
import { localPoint } from './local-point';
import { OverviewStrip } from './overview-strip';
import { planLabels } from './plan-labels';
import { RULER_HEIGHT } from './ruler-steps';
import { spansOf } from './selection-place';
import { bandOf, fitView, SheetGeometry } from './sheet-geometry';
import { SheetLayers } from './sheet-layers';
import { ThingMenu } from './thing-menu';
import { TrainsLayer } from './trains-layer';
import { useLedTo } from './use-led-to';
import { useMoving } from './use-moving';
import { usePicking } from './use-picking';
import { useSheetKeys } from './use-sheet-keys';
import { useSheetView } from './use-sheet-view';
import { useShownState } from './use-shown-state';
import { ZoomButtons } from './zoom-buttons';

interface Props {
  /** Drawn beneath the track, aligned with it, one under the other. */
  lanes?: readonly LaneKind[];
  /** What stands under the sheet and is aligned with it. */
  below?: (geometry: SheetGeometry, width: number, bands: { x: number; width: number }[]) => ReactNode;
  /** What a click on a turnout does beside selecting it. */
  onTurnout?: (id: string) => void;
  /** A train was dragged to a block. */
  onSend?: (train: string, block: string) => void;
  /** Single letters of the stage. */
  letters?: Record<string, () => void>;
}
const NO_BLOCKS: BlockView[] = [];
const NO_LANES: readonly LaneKind[] = [];

/** How large a box is, as it is now. */
function useSize(box: RefObject<HTMLElement | null>) {
  const [size, setSize] = useState({ width: 820, height: 560 });
  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, [box]);
  return size;
}

/** What is selected, measured to and chosen with it. */
function useChosen() {
  const selected = useWorkbench((s) => s.selected);
  const measured = useWorkbench((s) => s.measured);
  const also = useWorkbench((s) => s.also);
  const chosen = useMemo(() => new Set([...(selected === undefined ? [] : [selected]), ...also]), [selected, also]);
  return { selected, chosen, banded: [selected, measured, ...also] };
}

/** The straightened track on a true distance axis, with what is aligned beneath it. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: puts together the hooks of the sheet, each in a file of its own, and hands each what the others know.
export function LineSheet({ lanes = NO_LANES, below, onTurnout, onSend, letters }: Props) {
  const newest = useWorkbench(drawnDocument);
  /** The sheet is drawn anew bit by bit, so that nothing waits for it; what was cut is seen at once, where its track is drawn. */
  const document = useDeferredValue(newest);
  const design = useDeferredValue(useWorkbench((s) => s.design));
  const withCuts = sameTrack(newest, document) ? newest : document;
  const edits = useWorkbench((s) => s.stage.edits ?? false);
  const withLengths = useWorkbench((s) => s.layers.lengths) && edits;
  const { selected, chosen, banded } = useChosen();
  const state = useShownState(document);

  const box = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const stack = useRef<HTMLDivElement>(null);
  const end = useRef<HTMLSpanElement>(null);
  const size = useSize(box);
  const drawing = useMemo(() => straighten(document), [document]);
  const fit = useMemo(() => fitView(drawing, size.width), [drawing, size.width]);
  const { shown, setView, zoom, pan, goTo, bringIn, pointers, wasClick } = useSheetView(svg, drawing, fit, size.width);
  const rows = drawing.lastRow - drawing.firstRow + 1;
  const fixed = RULER_HEIGHT + 46 + heightOf(lanes, rows) + 74;
  const pitch = below ? 54 : Math.max(54, Math.min(74, (size.height - fixed) / Math.max(1, rows - 1)));
  const geometry = useMemo(
    () => new SheetGeometry(drawing, shown, RULER_HEIGHT + 46, pitch, size.width),
    [drawing, shown, pitch, size.width],
  );
  const placed = useMemo(
    () => planLabels(document, design, geometry, withLengths),
    [document, design, geometry, withLengths],
  );
  const trackBottom = Math.max(geometry.bottom + 48, ...[...placed.lengths.values()].map(({ y }) => y + 26));
  const shownLanes = design && document.lines.length > 0 ? lanes : NO_LANES;
  const svgHeight = below ? trackBottom : Math.max(size.height, trackBottom + heightOf(shownLanes, rows) + 12);

  const picking = usePicking(geometry, design?.blocks, wasClick, onTurnout);
  const { select, pickTurnout } = picking;
  const { keys, onEndFocus } = useSheetKeys(stack, svg, end, geometry, {
    zoom,
    pan,
    bringIn,
    pickTurnout,
    letters,
    showAll: () => setView(fit),
    goTo,
  });
  const { move, nudge, isHeld, dragging, byKey } = useMoving(svg, geometry, edits);
  const goOn = useLedTo(svg, geometry, bringIn, document, design?.blocks, selected);
  const bands = banded.flatMap((id) => {
    const spans = spansOf(document, design?.blocks ?? [], id);
    return spans.length > 0 ? [{ id, ...bandOf(geometry, spans) }] : [];
  });
  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col">
      <div
        ref={box}
        className={`relative min-h-0 overflow-x-hidden ${below ? 'overflow-y-auto' : 'flex-1 overflow-y-auto'}`}
        style={below ? { flex: `0 1 ${trackBottom}px` } : undefined}
      >
        <ThingMenu
          onTurnout={onTurnout}
          placeAt={(event) => {
            const place = picking.placeAt(localPoint(event, svg.current!));
            const step = STEPS[document.shownUnit].point;
            return place && { line: place.line, at: Math.round(place.at / step) * step };
          }}
          view={[
            { says: 'Fit the whole layout', act: () => setView(fit) },
            { says: 'Zoom in', act: () => zoom(1.4) },
            { says: 'Zoom out', act: () => zoom(1 / 1.4) },
          ]}
        >
          <div
            ref={stack}
            className="relative"
            {...dragging}
            onPointerDownCapture={(event) => {
              picking.noteKeys(event);
              dragging.onPointerDownCapture(event);
            }}
            onKeyDownCapture={(event) => {
              picking.noteKeys(event);
              if (!byKey(event)) return;
              event.preventDefault();
              event.stopPropagation();
            }}
            {...keys}
          >
            <svg
              ref={svg}
              width={size.width}
              height={svgHeight}
              className="drawing block touch-none select-none bg-sheet"
              tabIndex={0}
              role="group"
              aria-label={`Line sheet of ${document.name}. Plus and minus zoom, arrows move, Home and End go to its ends, 0 fits, Tab goes from thing to thing, Enter selects, Shift and Enter measures to it, Control and Enter chooses it with the others.`}
              {...pointers}
              onPointerDown={(event) => isHeld() || pointers.onPointerDown(event)}
              onPointerUp={picking.onPointerUp}
            >
              <HiddenBands document={document} geometry={geometry} bottom={trackBottom} />
              <ChosenBands bands={bands} bottom={svgHeight} />
              <SheetLayers
                document={document}
                withCuts={withCuts}
                design={design}
                geometry={geometry}
                placed={placed}
                state={state}
                chosen={chosen}
                lanes={shownLanes}
                height={svgHeight}
                trackBottom={trackBottom}
                select={select}
                pickTurnout={pickTurnout}
                goOn={goOn}
                onMove={move}
                onNudge={nudge}
              />
            </svg>
            {state.board && (
              <svg
                width={size.width}
                height={svgHeight}
                className="drawing pointer-events-none absolute left-0 top-0 will-change-transform"
                role="group"
                aria-label="Trains"
              >
                <TrainsLayer
                  width={size.width}
                  blocks={design?.blocks ?? NO_BLOCKS}
                  plates={placed.plates}
                  occupied={state.occupied}
                  geometry={geometry}
                  chosen={chosen}
                  onSelect={select}
                  blockAt={picking.blockAt}
                  onSend={onSend}
                />
              </svg>
            )}
            {/* biome-ignore lint/a11y/noStaticElementInteractions: where the focus leaves the sheet, and comes back to it */}
            <span ref={end} tabIndex={0} onFocus={onEndFocus} className="sr-only">
              End of the line sheet
            </span>
          </div>
        </ThingMenu>
      </div>
      {below?.(geometry, size.width, bands)}
      <ZoomButtons zoom={zoom} showAll={() => setView(fit)} />
      <OverviewStrip
        document={document}
        drawing={drawing}
        view={shown}
        fit={fit}
        width={size.width}
        onMove={(from) => setView({ ...shown, from })}
      />
    </div>
  );
}
