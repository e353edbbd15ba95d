'use client';
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { showLength, type TenthUm } from '@/core/measure';
import { names } from '@/core/patterns';
import { ASPECTS, type Aspect } from '@/core/signals';
import { asTyped, signalsOf } from '@/core/survey';
import { straighten, xOf } from '@/core/track';
import { blockKey, blockNameOf, useWorkbench, useWorkbenchStore } from '@/ui/workbench/store';
import { CutsLayer } from './cuts-layer';
import { CoverageLane, laneHeight, RoomLane } from './lanes';
import { OverviewStrip } from './overview-strip';
import { planLabels } from './plan-labels';
import { layoutTicks, scaleTicks, type Tick } from './ruler-steps';
import { fitView, GUTTER, RIGHT_PAD, SheetGeometry, type View, zoomView } from './sheet-geometry';
import { SignalHead } from './signal-head';
import { type ShownPoints, TrackLayer } from './track-layer';
import { TrainsLayer } from './trains-layer';

const RULER_HEIGHT = 66;
const REACH_PX = 14;

/** The straightened track on a true distance axis, with what is aligned beneath it. */
export function LineSheet({ below }: { below?: (geometry: SheetGeometry, width: number) => ReactNode }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const stage = useWorkbench((s) => s.stage);
  const selected = useWorkbench((s) => s.selected);
  const pointed = useWorkbench((s) => s.pointed);
  const layers = useWorkbench((s) => s.layers);
  const trial = useWorkbench((s) => s.trial);
  const values = useWorkbench((s) => s.values);
  const frame = useWorkbench((s) => (s.stage === 'rehearse' ? s.frame : undefined));
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 820, height: 560 });
  const [view, setView] = useState<View>();

  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const drawing = useMemo(() => straighten(document), [document]);
  const fit = useMemo(() => fitView(drawing, size.width), [drawing, size.width]);
  const shown = view ?? fit;
  const rows = drawing.lastRow - drawing.firstRow + 1;
  const fixed = RULER_HEIGHT + 46 + 2 * laneHeight(rows) + 74;
  const pitch = below ? 54 : Math.max(54, Math.min(74, (size.height - fixed) / Math.max(1, rows - 1)));
  const geometry = useMemo(() => new SheetGeometry(drawing, shown, RULER_HEIGHT + 46, pitch), [drawing, shown, pitch]);
  const placed = useMemo(
    () => planLabels(document, design, geometry, layers.lengths && stage !== 'rehearse'),
    [document, design, geometry, layers.lengths, stage],
  );

  const trackBottom = geometry.bottom + (layers.lengths && stage !== 'rehearse' ? 62 : 48);
  const laneSize = laneHeight(rows);
  const showLanes = stage !== 'rehearse' && design !== undefined && document.lines.length > 0;
  const svgHeight = below ? trackBottom : Math.max(size.height, trackBottom + (showLanes ? 2 * laneSize : 0) + 12);

  const points: ShownPoints = useMemo(() => {
    const lies: ShownPoints = {};
    document.turnouts.forEach((turnout, i) => {
      lies[turnout.id] = frame?.points[i] ?? trial.points[turnout.id] ?? turnout.lies;
    });
    return lies;
  }, [document.turnouts, frame?.points, trial.points]);
  const pointsKey = JSON.stringify(points);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the value, so that unchanged points draw nothing anew
  const steadyPoints = useMemo(() => points, [pointsKey]);
  const lockedKey = frame
    ? document.turnouts
        .filter((_, i) => frame.locked[i])
        .map((t) => t.id)
        .join(' ')
    : '';
  const locked = useMemo(() => new Set(lockedKey.split(' ').filter(Boolean)), [lockedKey]);
  const occupied = useMemo(
    () => new Set(frame?.occupied ?? (stage === 'signal' ? trial.occupied : [])),
    [frame?.occupied, stage, trial.occupied],
  );

  const occupiedKey = [...occupied].join('|');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the value, so that an unchanged set draws nothing anew
  const steadyOccupied = useMemo(() => occupied, [occupiedKey]);

  const aspectOf = (signal: { name: string }, index: number): Aspect | undefined => {
    if (frame) return frame.aspects[index];
    if (stage !== 'signal') return undefined;
    const value = values[names.shows(signal.name)];
    return value === undefined ? undefined : ASPECTS[value];
  };

  const toLocal = (event: { clientX: number; clientY: number; currentTarget: SVGSVGElement }) => {
    const rect = event.currentTarget.getBoundingClientRect();
    const ratio = event.currentTarget.clientWidth / rect.width;
    return { x: (event.clientX - rect.left) * ratio, y: (event.clientY - rect.top) * ratio };
  };
  const zoom = (factor: number, about = GUTTER + (size.width - GUTTER) / 2) =>
    setView(zoomView(shown, fit, factor, about));
  const pan = (px: number) => setView({ ...shown, from: shown.from + px / shown.scale });

  const svg = useRef<SVGSVGElement>(null);
  const wheel = useRef((_event: WheelEvent) => {});
  wheel.current = (event: WheelEvent) => {
    event.preventDefault();
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))
      pan(event.deltaX + (event.shiftKey ? event.deltaY : 0));
    else
      zoom(
        Math.exp(-event.deltaY * 0.0016),
        toLocal({ clientX: event.clientX, clientY: event.clientY, currentTarget: svg.current! }).x,
      );
  };
  useEffect(() => {
    const element = svg.current!;
    const on = (event: WheelEvent) => wheel.current(event);
    element.addEventListener('wheel', on, { passive: false });
    return () => element.removeEventListener('wheel', on);
  }, []);

  const drag = useRef<{ x: number; moved: boolean } | undefined>(undefined);
  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    drag.current = { x: event.clientX, moved: false };
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    const from = drag.current;
    if (!from || event.buttons !== 1) return;
    if (Math.abs(event.clientX - from.x) < 4 && !from.moved) return;
    if (!from.moved) event.currentTarget.setPointerCapture(event.pointerId);
    pan(from.x - event.clientX);
    drag.current = { x: event.clientX, moved: true };
  };
  const onPointerUp = (event: PointerEvent<SVGSVGElement>) => {
    const moved = drag.current?.moved;
    drag.current = undefined;
    if (moved || (event.target as Element).closest('[role=button]')) return;
    const place = geometry.nearest(toLocal(event), REACH_PX);
    const block =
      place &&
      design?.blocks.find((b) => b.pieces.some((p) => p.line === place.line && place.at >= p.from && place.at <= p.to));
    store
      .getState()
      .set({ selected: block && blockKey(block.name), pointed: place && stage !== 'rehearse' ? place : undefined });
  };

  const stepBlock = (by: number) => {
    if (!design?.blocks.length) return;
    const order = [...design.blocks].sort(
      (a, b) => xOf(geometry.drawn(a.middle.line), a.middle.at) - xOf(geometry.drawn(b.middle.line), b.middle.at),
    );
    const here = order.findIndex((b) => b.name === blockNameOf(selected));
    const next = order[(here + by + order.length + (here < 0 && by < 0 ? 1 : 0)) % order.length]!;
    store.getState().select(blockKey(next.name));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === '+' || event.key === '=') zoom(1.3);
    else if (event.key === '-') zoom(1 / 1.3);
    else if (event.key === '0') setView(undefined);
    else if (event.key === 'ArrowLeft') pan(-60);
    else if (event.key === 'ArrowRight') pan(60);
    else if (event.key === '[') stepBlock(-1);
    else if (event.key === ']') stepBlock(1);
    else if (event.key === 'Escape') store.getState().set({ selected: undefined, pointed: undefined });
    else return;
    event.preventDefault();
  };

  const chosenBlock = design?.blocks.find((b) => b.name === blockNameOf(selected));
  const band = chosenBlock && bandOf(geometry, chosenBlock.pieces);
  const chosenCut = document.features.find((f) => f.id === selected && (f.kind === 'gap' || f.kind === 'mark'));
  const cutX = chosenCut && geometry.at(chosenCut.line, chosenCut.at.tenthUm).x;
  const select = (id: string) => store.getState().select(id);
  const move = (id: string, at: TenthUm) =>
    store.getState().edit({
      do: 'move',
      id,
      at: document.shownUnit === 'cm' ? asTyped(at) : { tenthUm: at, typed: showLength(at, 'inch') },
    });

  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col">
      <div
        ref={box}
        className={`relative min-h-0 overflow-x-hidden ${below ? 'shrink-0 overflow-y-hidden' : 'flex-1 overflow-y-auto'}`}
        style={below ? { height: trackBottom } : undefined}
      >
        <svg
          ref={svg}
          width={size.width}
          height={svgHeight}
          className="drawing block touch-none select-none bg-sheet"
          tabIndex={0}
          role="group"
          aria-label={`Line sheet of ${document.name}. Plus and minus zoom, arrows move, 0 fits, square brackets step through blocks.`}
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onKeyDown={onKeyDown}
        >
          {document.features.map((f) => {
            if (f.kind !== 'hidden') return null;
            const span = bandOf(geometry, [{ line: f.line, from: f.at.tenthUm, to: f.to.tenthUm }]);
            return (
              <rect
                key={f.id}
                x={span.x}
                y={RULER_HEIGHT}
                width={span.width}
                height={Math.max(0, trackBottom - RULER_HEIGHT)}
                fill="var(--hair)"
                opacity=".6"
              />
            );
          })}
          {band && (
            <rect
              x={band.x}
              y={RULER_HEIGHT}
              width={band.width}
              height={svgHeight - RULER_HEIGHT}
              fill="var(--accent)"
              opacity=".09"
            />
          )}
          {cutX !== undefined && (
            <path d={`M${cutX} ${RULER_HEIGHT}V${svgHeight}`} stroke="var(--accent)" strokeDasharray="2 3" />
          )}
          <Rulers geometry={geometry} width={size.width} height={svgHeight} />
          <TrackLayer
            document={document}
            design={design}
            geometry={geometry}
            placed={placed}
            points={steadyPoints}
            locked={locked}
            detectors={layers.detectors}
            occupied={steadyOccupied}
            selected={selected}
            onSelect={select}
          />
          <CutsLayer
            document={document}
            geometry={geometry}
            selected={selected}
            canMove={stage !== 'rehearse'}
            onSelect={select}
            onMove={move}
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
          {design?.blocks.map((block) => {
            const plate = placed.plates.get(block.name);
            if (!plate) return null;
            const isSelected = selected === blockKey(block.name);
            const isOccupied = occupied.has(block.name);
            const { y } = plate;
            return (
              <g
                key={block.name}
                role="button"
                tabIndex={-1}
                aria-label={`Block ${block.name}${isOccupied ? ', occupied' : ''}`}
                className="cursor-pointer"
                onClick={() => select(blockKey(block.name))}
              >
                <rect
                  x={plate.x - plate.width / 2}
                  y={y - 8.5}
                  width={plate.width}
                  height="17"
                  rx="3"
                  fill={isOccupied ? 'var(--accent)' : 'var(--raised)'}
                  stroke={isSelected ? 'var(--accent)' : 'var(--edge)'}
                  strokeWidth={isSelected ? 2 : 1}
                />
                <text
                  x={plate.x}
                  y={y + 4.2}
                  textAnchor="middle"
                  fontWeight="650"
                  style={isOccupied ? { fill: 'var(--on-accent)', stroke: 'none' } : { stroke: 'none' }}
                >
                  {block.name}
                </text>
              </g>
            );
          })}
          {frame && <TrainsLayer frame={frame} geometry={geometry} selected={selected} onSelect={select} />}
          {layers.signals &&
            signalsOf(document).map((signal, index) => {
              const { x, y } = geometry.at(signal.line, signal.at.tenthUm);
              const rightwards = (signal.governs === 'up') === geometry.ascends(signal.line);
              const drop = placed.signals.get(signal.id);
              const shows = aspectOf(signal, index);
              return (
                <g
                  key={signal.id}
                  role="button"
                  tabIndex={0}
                  aria-label={`Signal ${signal.name}${shows ? ` shows ${shows}` : ''}`}
                  className="cursor-pointer"
                  onClick={() => select(signal.id)}
                  onKeyDown={(e) => {
                    if (e.key === 'Enter') select(signal.id);
                  }}
                >
                  {drop === undefined ? (
                    <path d={`M${x} ${y}v${rightwards ? 10 : -10}`} stroke="var(--ink)" strokeWidth="1.5">
                      <title>{signal.name}: zoom in to see it</title>
                    </path>
                  ) : (
                    <SignalHead
                      x={x}
                      y={y}
                      rightwards={rightwards}
                      drop={drop}
                      shows={shows}
                      name={signal.name}
                      selected={selected === signal.id}
                      held={frame ? values[names.hold(signal.name)] === 1 : false}
                      tentative={signal.certainty === 'tentative'}
                    />
                  )}
                </g>
              );
            })}
          {pointed && (
            <PointedPlace geometry={geometry} place={pointed} text={showLength(pointed.at, document.shownUnit)} />
          )}
          {showLanes && (
            <>
              <CoverageLane
                document={document}
                design={design}
                geometry={geometry}
                y={trackBottom}
                width={size.width}
              />
              <RoomLane
                document={document}
                design={design}
                geometry={geometry}
                y={trackBottom + laneSize}
                width={size.width}
              />
            </>
          )}
        </svg>
      </div>
      {below?.(geometry, size.width)}
      <div className="absolute -top-[33px] right-3 z-10 flex gap-1">
        <button type="button" className="button px-1.5" onClick={() => zoom(1 / 1.4)} aria-label="Zoom out">
          <ZoomOut size={14} aria-hidden />
        </button>
        <button
          type="button"
          className="button px-1.5"
          onClick={() => setView(undefined)}
          aria-label="Fit the whole layout"
        >
          <Maximize2 size={14} aria-hidden />
        </button>
        <button type="button" className="button px-1.5" onClick={() => zoom(1.4)} aria-label="Zoom in">
          <ZoomIn size={14} aria-hidden />
        </button>
      </div>
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

function bandOf(
  geometry: SheetGeometry,
  pieces: { line: string; from: number; to: number }[],
): { x: number; width: number } {
  const xs = pieces.flatMap((p) => [p.from, p.to].map((at) => geometry.x(xOf(geometry.drawn(p.line), at))));
  const low = Math.min(...xs);
  return { x: low, width: Math.max(...xs) - low };
}

function PointedPlace({
  geometry,
  place,
  text,
}: {
  geometry: SheetGeometry;
  place: { line: string; at: number };
  text: string;
}) {
  const { x, y } = geometry.at(place.line, place.at);
  return (
    <g pointerEvents="none">
      <circle cx={x} cy={y} r="6" fill="none" stroke="var(--accent)" strokeWidth="2" />
      <text x={x} y={y - 13} textAnchor="middle" fontWeight="650" style={{ fill: 'var(--accent)' }}>
        {text}
      </text>
    </g>
  );
}

function Rulers({ geometry, width, height }: { geometry: SheetGeometry; width: number; height: number }) {
  const document = useWorkbench((s) => s.document);
  const { view } = geometry;
  const from = geometry.drawing.from;
  const to = Math.min(geometry.drawing.to, geometry.valueAt(width - RIGHT_PAD));
  const first = Math.max(from, geometry.valueAt(GUTTER));
  const layout = layoutTicks(first, to, view.scale, document.shownUnit);
  const full = scaleTicks(first, to, view.scale, document.shownUnit, document.scale);
  const row = (ticks: Tick[], y: number, unit: string, strong: boolean) => (
    <g>
      <text
        x="56"
        y={y}
        textAnchor="end"
        fontSize="11.5"
        fontWeight={strong ? 650 : 400}
        style={strong ? undefined : { fill: 'var(--ink3)' }}
      >
        {unit}
      </text>
      {ticks.map((tick) => {
        const x = geometry.x(tick.at);
        return (
          <g key={tick.at}>
            <path d={`M${x} ${y + 4}v${tick.label ? 7 : 4}`} stroke="var(--edge)" strokeWidth="1" />
            {tick.label && (
              <text
                x={x}
                y={y}
                textAnchor="middle"
                fontSize="11.5"
                style={strong ? undefined : { fill: 'var(--ink3)' }}
              >
                {tick.label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
  return (
    <g>
      {layout.ticks
        .filter((t) => t.label)
        .map((tick) => (
          <path key={tick.at} d={`M${geometry.x(tick.at)} ${RULER_HEIGHT}V${height}`} stroke="var(--hair)" />
        ))}
      {document.areas.map((area) => {
        const span = bandOf(geometry, [{ line: area.line, from: area.from.tenthUm, to: area.to.tenthUm }]);
        const middle = span.x + span.width / 2;
        return (
          <g key={area.id}>
            <path
              d={`M${span.x} 12V20M${span.x} 16H${span.x + span.width}M${span.x + span.width} 12V20`}
              stroke="var(--edge)"
              strokeWidth="1"
            />
            <text x={middle} y="20" textAnchor="middle" fontWeight="650" fontSize="12.5">
              {area.name}
              <title>{area.purpose}</title>
            </text>
          </g>
        );
      })}
      {row(layout.ticks, 37, layout.unit, true)}
      {row(full.ticks, 58, full.unit, false)}
    </g>
  );
}
