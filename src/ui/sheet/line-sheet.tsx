'use client';
import {
  type PointerEvent,
  type ReactNode,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { BlockView } from '@/core/design';
import { STEPS, showLength } from '@/core/measure';
import { type GoesOn, straighten } from '@/core/track';
import { drawnDocument, sameTrack } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ChosenBands, HiddenBands } from './bands';
import { BlockPlates } from './block-plates';
import { isPlaced } from './choosing';
import { CutsLayer } from './cuts-layer';
import type { LaneKind } from './lanes';
import { localPoint } from './local-point';
import { OverviewStrip } from './overview-strip';
import { planLabels } from './plan-labels';
import { PointedPlace } from './pointed-place';
import { ProposedCuts } from './proposed-cuts';
import { RULER_HEIGHT } from './ruler-steps';
import { Rulers } from './rulers';
import { spansOf } from './selection-place';
import { bandOf, fitView, GUTTER, type Point, RIGHT_PAD, SheetGeometry } from './sheet-geometry';
import { SignalsLayer } from './signals-layer';
import { ThingMenu } from './thing-menu';
import { type ShownPoints, TrackLayer } from './track-layer';
import { TrainsLayer } from './trains-layer';
import { useMoving } from './use-moving';
import { useSheetKeys } from './use-sheet-keys';
import { useSheetView } from './use-sheet-view';
import { ZoomButtons } from './zoom-buttons';

const REACH_PX = 14;
/** How long a place is marked that somebody was led to. */
const SHOWN_MS = 4000;

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
const NO_ASPECTS: string[] = [];
const NO_LANES: readonly LaneKind[] = [];
const heightOf = (lanes: readonly LaneKind[], rows: number) => lanes.reduce((sum, lane) => sum + lane.height(rows), 0);

/** The straightened track on a true distance axis, with what is aligned beneath it. */
export function LineSheet({ lanes = NO_LANES, below, onTurnout, onSend, letters }: Props) {
  const store = useWorkbenchStore();
  const newest = useWorkbench(drawnDocument);
  /** The sheet is drawn anew bit by bit, so that nothing waits for it; what was cut is seen at once, where its track is drawn. */
  const document = useDeferredValue(newest);
  const design = useDeferredValue(useWorkbench((s) => s.design));
  const withCuts = sameTrack(newest, document) ? newest : document;
  const { edits = false, tries = false } = useWorkbench((s) => s.stage);
  const selected = useWorkbench((s) => s.selected);
  const measured = useWorkbench((s) => s.measured);
  const also = useWorkbench((s) => s.also);
  const chosen = useMemo(() => new Set([...(selected === undefined ? [] : [selected]), ...also]), [selected, also]);
  const pointed = useWorkbench((s) => s.pointed);
  const proposed = useWorkbench((s) => s.proposed);
  /** A line that was begun a moment ago, or a place beyond an end, is not drawn. */
  const pointedOn = pointed && document.lines.find(({ id }) => id === pointed.line);
  const pointedHere =
    pointedOn && Math.max(pointed.at, pointed.to ?? 0) <= pointedOn.length.tenthUm ? pointed : undefined;
  const layers = useWorkbench((s) => s.layers);
  const trial = useWorkbench((s) => s.trial);
  const standing = useWorkbench((s) => s.design?.standing.blocks);
  const newestTried = useWorkbench((s) => (s.stage.knows === 'trial' ? s.tried : undefined));
  const tried = newestTried?.document === document ? newestTried : undefined;
  const newestBoard = useWorkbench((s) => (s.stage.knows === 'run' ? s.board : undefined));
  const board = newestBoard?.document === document ? newestBoard : undefined;
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 820, height: 560 });

  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const drawing = useMemo(() => straighten(document), [document]);
  const fit = useMemo(() => fitView(drawing, size.width), [drawing, size.width]);
  const svg = useRef<SVGSVGElement>(null);
  const stack = useRef<HTMLDivElement>(null);
  const end = useRef<HTMLSpanElement>(null);
  const { shown, setView, zoom, pan, goTo, bringIn, pointers, wasClick } = useSheetView(svg, drawing, fit, size.width);
  const rows = drawing.lastRow - drawing.firstRow + 1;
  const fixed = RULER_HEIGHT + 46 + heightOf(lanes, rows) + 74;
  const pitch = below ? 54 : Math.max(54, Math.min(74, (size.height - fixed) / Math.max(1, rows - 1)));
  const geometry = useMemo(
    () => new SheetGeometry(drawing, shown, RULER_HEIGHT + 46, pitch, size.width),
    [drawing, shown, pitch, size.width],
  );
  const placed = useMemo(
    () => planLabels(document, design, geometry, layers.lengths && edits),
    [document, design, geometry, layers.lengths, edits],
  );

  const trackBottom = Math.max(geometry.bottom + 48, ...[...placed.lengths.values()].map(({ y }) => y + 26));
  const shownLanes = design && document.lines.length > 0 ? lanes : NO_LANES;
  const svgHeight = below ? trackBottom : Math.max(size.height, trackBottom + heightOf(shownLanes, rows) + 12);

  const points: ShownPoints = useMemo(() => {
    const lies: ShownPoints = {};
    document.turnouts.forEach((turnout, i) => {
      lies[turnout.id] = board?.points[i] ?? trial.points[turnout.id] ?? turnout.lies[0]!;
    });
    return lies;
  }, [document.turnouts, board?.points, trial.points]);
  const locked = useMemo(
    () => new Set(document.turnouts.filter((_, i) => board?.locked[i]).map((t) => t.id)),
    [document.turnouts, board?.locked],
  );
  const occupied = useMemo(
    () =>
      new Set(
        board?.occupied ??
          (tries
            ? [...trial.occupied, ...(trial.trains ? (standing ?? []) : []), ...(tried?.moved?.blocks ?? [])]
            : []),
      ),
    [board?.occupied, tries, trial, standing, tried?.moved],
  );
  const aspects = board?.aspects ?? tried?.aspects ?? NO_ASPECTS;

  const withShift = useRef(false);
  const withControl = useRef(false);
  const blockAt = (point: Point) => {
    const place = geometry.nearest(point, REACH_PX);
    return (
      place &&
      design?.blocks.find((b) => b.pieces.some((p) => p.line === place.line && place.at >= p.from && place.at <= p.to))
    );
  };
  /** Selects a thing; with Shift, measures from the one selected to it; with Ctrl, chooses it together with what is chosen. */
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

  const present = useRef({ geometry, bringIn, design });
  present.current = { geometry, bringIn, design };
  /** What is selected elsewhere, in a list or by name, comes onto the sheet. */
  useEffect(() => {
    const now = present.current;
    const spans = spansOf(document, now.design?.blocks ?? [], selected);
    if (spans.length === 0) return;
    const { x, width } = bandOf(now.geometry, spans);
    if (x + width < GUTTER || x > now.geometry.width - RIGHT_PAD) now.bringIn(x + width / 2);
  }, [selected, document]);

  /** Where a line that is drawn cut goes on: brought in, marked for a while, and the focus goes there. */
  const goOn = useCallback(
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
    [store],
  );
  const bands = [selected, measured, ...also].flatMap((id) => {
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
            const place = geometry.nearest(localPoint(event, svg.current!), REACH_PX);
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
              withShift.current = event.shiftKey;
              withControl.current = event.ctrlKey || event.metaKey;
              dragging.onPointerDownCapture(event);
            }}
            onKeyDownCapture={(event) => {
              withShift.current = event.shiftKey;
              withControl.current = event.ctrlKey || event.metaKey;
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
              onPointerUp={onPointerUp}
            >
              <HiddenBands document={document} geometry={geometry} bottom={trackBottom} />
              <ChosenBands bands={bands} bottom={svgHeight} />
              <Rulers document={document} geometry={geometry} width={size.width} height={svgHeight} />
              <TrackLayer
                document={document}
                design={design}
                geometry={geometry}
                placed={placed}
                points={points}
                locked={locked}
                detectors={layers.detectors}
                occupied={occupied}
                dead={board?.dead}
                shows={board?.shows}
                chosen={chosen}
                onSelect={pickTurnout}
                onGoOn={goOn}
              />
              <CutsLayer
                document={withCuts}
                geometry={geometry}
                chosen={chosen}
                canMove={edits}
                onSelect={select}
                onMove={move}
                onNudge={nudge}
              />
              {[...placed.lengths].map(([id, length]) => (
                <g key={id}>
                  <path
                    d={`M${length.from + 3} ${length.y}H${length.to - 3}M${length.from + 1} ${length.y + 4}L${length.from + 6} ${length.y - 4}M${length.to - 6} ${length.y + 4}L${length.to - 1} ${length.y - 4}`}
                    stroke="var(--edge)"
                    strokeWidth=".8"
                  />
                  <text x={length.x} y={length.y + 4} textAnchor="middle" style={{ fill: 'var(--ink2)' }}>
                    {length.text}
                  </text>
                </g>
              ))}
              {design && (
                <BlockPlates
                  blocks={design.blocks}
                  placed={placed}
                  occupied={occupied}
                  chosen={chosen}
                  onSelect={select}
                  except={board && occupied}
                />
              )}
              {layers.signals && (
                <SignalsLayer
                  document={document}
                  geometry={geometry}
                  placed={placed}
                  chosen={chosen}
                  aspects={aspects}
                  held={board?.held}
                  dark={(board ?? tried)?.shows}
                  onSelect={select}
                />
              )}
              {proposed && <ProposedCuts document={document} geometry={geometry} cuts={proposed} />}
              {pointedHere && (
                <PointedPlace
                  geometry={geometry}
                  place={pointedHere}
                  text={pointedHere.says ?? showLength(pointedHere.at, document.shownUnit)}
                />
              )}
              {design &&
                shownLanes.map(({ Lane }, i) => (
                  <Lane
                    key={i}
                    document={document}
                    design={design}
                    geometry={geometry}
                    y={trackBottom + heightOf(shownLanes.slice(0, i), rows)}
                    width={size.width}
                  />
                ))}
            </svg>
            {board && (
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
                  occupied={occupied}
                  geometry={geometry}
                  chosen={chosen}
                  onSelect={select}
                  blockAt={blockAt}
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
