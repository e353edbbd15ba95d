'use client';
import { line as d3line, scaleLinear } from 'd3';
import { memo, useMemo, useState } from 'react';
import type { BlockView } from '@/core/design';
import { type PathSample, type Sample, tickSeconds } from '@/core/simulation';
import { placeLabels, textWidth } from '@/ui/line-sheet/label-placement';
import { bandOf, type SheetGeometry } from '@/ui/line-sheet/sheet-geometry';
import { trainColour } from '@/ui/line-sheet/trains-layer';

/** Seconds shown at once. */
const WINDOW_S = 120;
/** Share of the height above the “now” line once the graph has filled. */
const NOW_SHARE = 0.86;
/** A jump of more than this in one sample is a cut circuit or a change of ruler, not a move: 1 m. */
const JUMP = 1e7;
/** How lines of each row off the main one are broken, nearest row first, so that parallel roads are told apart. */
const DASHES = ['7 3', '2 3', '10 3 2 3', '5 5', '2 6', '12 4'];

const KEY_HEIGHT = 23;

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

export interface Course {
  samples: Sample[];
  names: string[];
}

interface Props extends Course {
  geometry: SheetGeometry;
  blocks: BlockView[];
  lineNames: Map<string, string>;
  /** The row of the ruler’s own line. */
  mainRow: number;
  tick: number;
  width: number;
  height: number;
  /** Another course, drawn thin beside the first. */
  other?: Course;
  /** What is selected on the sheet, as stretches of x. */
  bands?: { x: number; width: number }[];
  onWind?: (tick: number) => void;
}

/**
 * Where each train was and when, on the same distance axis as the track: nose thick, tail thin. Bands show which blocks read
 * occupied. Each row of track off the main one has its own way of breaking its lines, and can be left out.
 */
export const TimeDistanceGraph = memo(function TimeDistanceGraph(props: Props) {
  const { geometry, samples, names, blocks, lineNames, mainRow, tick, width, other, bands, onWind } = props;
  const now = tickSeconds(tick);
  const first = Math.max(0, now - WINDOW_S * NOW_SHARE);
  const height = props.height - (geometry.drawing.lastRow > geometry.drawing.firstRow ? KEY_HEIGHT : 0);
  const y = scaleLinear([first, first + WINDOW_S], [6, height - 4]);
  const [hidden, setHidden] = useState<ReadonlySet<number>>(new Set());
  const rows = useMemo(() => {
    const found = new Map<number, string[]>();
    for (const { line, row } of geometry.drawing.lines.values())
      found.set(row, [...(found.get(row) ?? []), lineNames.get(line) ?? line]);
    return [...found].sort(([a], [b]) => a - b);
  }, [geometry.drawing, lineNames]);
  const dashOf = (row: number) =>
    row === mainRow
      ? undefined
      : DASHES[(rows.filter(([r]) => r !== mainRow).findIndex(([r]) => r === row) + DASHES.length) % DASHES.length];
  const window = samples.filter((s) => {
    const at = tickSeconds(s.tick);
    return at >= first - 2 && at <= first + WINDOW_S + 2;
  });
  const isShown = (sample: PathSample) =>
    Math.max(geometry.x(sample.head), geometry.x(sample.tail)) > 0 &&
    Math.min(geometry.x(sample.head), geometry.x(sample.tail)) < width;
  const courses = names.map((_, train) => unbroken(piecesOf(window, train, first, hidden).filter(isShown)));
  const labels = placeNames(courses, names, geometry, y);
  const timeAt = (event: { clientY: number; currentTarget: SVGSVGElement }) => {
    const box = event.currentTarget.getBoundingClientRect();
    return y.invert(((event.clientY - box.top) * height) / box.height);
  };
  return (
    <div className="border-t border-line">
      {rows.length > 1 && (
        <fieldset className="flex flex-wrap gap-x-4 bg-paper px-4 py-0.5 text-[0.75rem]">
          <legend className="sr-only">Roads shown in the graph</legend>
          {rows.map(([row, lines]) => (
            <label key={row} className="flex items-center gap-1">
              <input
                type="checkbox"
                checked={!hidden.has(row)}
                onChange={(e) => {
                  const next = new Set(hidden);
                  if (e.target.checked) next.delete(row);
                  else next.add(row);
                  setHidden(next);
                }}
              />
              <svg width="26" height="8" aria-hidden="true">
                <path d="M0 4H26" stroke="var(--ink2)" strokeWidth="2.2" strokeDasharray={dashOf(row)} />
              </svg>
              <span className="max-w-40 truncate">{lines.join(', ')}</span>
            </label>
          ))}
        </fieldset>
      )}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: by key the slider above goes to any moment */}
      <svg
        width={width}
        height={height}
        className="drawing block cursor-crosshair bg-sheet"
        role="img"
        aria-label={`Time and distance graph up to ${clock(now)}. A click goes to that moment.`}
        onClick={onWind && ((event) => onWind(Math.max(0, Math.round(timeAt(event) * 50))))}
      >
        {bands?.map(({ x, width: w }) => (
          <rect key={x} x={x} width={Math.max(1.5, w)} y="0" height={height} fill="var(--accent)" opacity=".12" />
        ))}
        {occupancyOf(window, blocks, geometry, hidden, width).map(({ key, x, width: w, from, to, row }) => (
          <rect
            key={key}
            x={x + 1}
            width={Math.max(1, w - 2)}
            y={y(tickSeconds(from))}
            height={Math.max(1, y(tickSeconds(to)) - y(tickSeconds(from)))}
            fill={row === mainRow ? 'var(--accent-tint)' : 'none'}
            stroke={row === mainRow ? 'none' : 'var(--accent-band)'}
            strokeDasharray={dashOf(row)}
            opacity={from > tick ? 0.4 : 0.9}
          />
        ))}
        {y.ticks(Math.max(3, Math.floor(height / 44))).map((t) => (
          <g key={t}>
            <path d={`M66 ${y(t)}H${width}`} stroke="var(--hair)" />
            <text x="58" y={y(t) + 4} textAnchor="end" fontSize="11.5" style={{ fill: 'var(--ink3)' }}>
              {clock(t)}
            </text>
          </g>
        ))}
        {other &&
          names.map((name, train) => (
            <Path
              key={`other ${name}`}
              pieces={unbroken(piecesOf(other.samples, train, first, hidden))}
              colour="var(--ink3)"
              geometry={geometry}
              y={y}
              dashOf={() => '2 2'}
              thin
            />
          ))}
        {labels.map(({ train, x, y: at }) => (
          <text
            key={names[train]}
            x={x}
            y={at}
            textAnchor="middle"
            fontWeight="600"
            style={{ fill: trainColour(train) }}
          >
            {names[train]}
          </text>
        ))}
        {names.map((name, train) => {
          const pieces = courses[train]!;
          return (
            <g key={name}>
              <Path pieces={pieces} colour={trainColour(train)} geometry={geometry} y={y} dashOf={dashOf} />
              {pieces.flatMap((piece) => {
                const [start] = piece;
                if (!start || start.row === mainRow || piece.length < 8) return [];
                const label = lineNames.get(start.line) ?? '';
                return [
                  <text
                    key={start.tick}
                    x={geometry.x(start.head) + 5}
                    y={y(tickSeconds(start.tick)) + 12}
                    fontSize="11.5"
                    style={{ fill: 'var(--ink3)' }}
                  >
                    {label}
                  </text>,
                ];
              })}
            </g>
          );
        })}
        <path d={`M0 ${y(now)}H${width}`} stroke="var(--accent)" strokeWidth="1.5" />
        <rect x="3" y={y(now) - 9} width="58" height="18" rx="3" fill="var(--accent)" />
        <text
          x="32"
          y={y(now) + 4}
          textAnchor="middle"
          fontSize="11.5"
          fontWeight="650"
          style={{ fill: 'var(--on-accent)', stroke: 'none' }}
        >
          now {clock(now)}
        </text>
      </svg>
    </div>
  );
});

type Scale = (s: number) => number;

function Path({
  pieces,
  colour,
  geometry,
  y,
  dashOf,
  thin = false,
}: {
  pieces: PathSample[][];
  colour: string;
  geometry: SheetGeometry;
  y: Scale;
  dashOf: (row: number) => string | undefined;
  thin?: boolean;
}) {
  const path = d3line<{ x: number; y: number }>(
    (p) => p.x,
    (p) => p.y,
  );
  return pieces.map((piece) => {
    const points = (pick: (s: PathSample) => number) =>
      piece.map((s) => ({ x: geometry.x(pick(s)), y: y(tickSeconds(s.tick)) }));
    const head = points((s) => s.head);
    const tail = points((s) => s.tail);
    const dash = dashOf(piece[0]!.row);
    return (
      <g key={piece[0]!.tick} fill="none" stroke={colour} strokeDasharray={dash}>
        {!thin && <path d={`${path([...head, ...[...tail].reverse()])}Z`} fill={colour} stroke="none" opacity=".14" />}
        <path d={path(head) ?? ''} strokeWidth={thin ? 1.4 : 2.2} />
        {!thin && <path d={path(tail) ?? ''} strokeWidth="1" />}
      </g>
    );
  });
}

const piecesOf = (samples: Sample[], train: number, first: number, hidden: ReadonlySet<number>): PathSample[] =>
  samples.flatMap((s) => {
    const at = tickSeconds(s.tick);
    const sample = s.trains[train];
    return sample && at >= first - 2 && at <= first + WINDOW_S + 2 && !hidden.has(sample.row) ? [sample] : [];
  });

/** How long each block read occupied, as boxes: one for each of its pieces and each time. */
function occupancyOf(
  samples: Sample[],
  blocks: BlockView[],
  geometry: SheetGeometry,
  hidden: ReadonlySet<number>,
  width: number,
) {
  const open = new Map<number, number>();
  const spans: { block: number; from: number; to: number }[] = [];
  for (const { tick, occupied } of samples) {
    for (const [block, from] of open) {
      if (occupied.includes(block)) continue;
      spans.push({ block, from, to: tick });
      open.delete(block);
    }
    for (const block of occupied) if (!open.has(block)) open.set(block, tick);
  }
  const last = samples[samples.length - 1]?.tick ?? 0;
  for (const [block, from] of open) spans.push({ block, from, to: last });
  return spans.flatMap(({ block, from, to }) => {
    const view = blocks[block];
    if (!view || view.detectors.length === 0) return [];
    return view.pieces.flatMap((piece) => {
      const { row } = geometry.drawn(piece.line);
      if (hidden.has(row)) return [];
      const band = bandOf(geometry, [piece]);
      if (band.x > width || band.x + band.width < 0) return [];
      return [{ key: `${block} ${from} ${piece.line} ${piece.from}`, from, to, row, ...band }];
    });
  });
}

/** A place on its own line for each train’s name, where no other name stands. */
function placeNames(courses: PathSample[][][], names: string[], geometry: SheetGeometry, y: Scale) {
  const labels = courses.flatMap((pieces, train) => {
    const piece = pieces[pieces.length - 1];
    if (!piece || piece.length < 12) return [];
    const width = textWidth(names[train]!);
    const choices = NAME_SHARES.map((share) => {
      const sample = piece[Math.floor((piece.length - 1) * share)]!;
      const x = Math.max(70, geometry.x((sample.head + sample.tail) / 2) - width / 2);
      return { x, y: y(tickSeconds(sample.tick)) - 10, width, height: 14 };
    });
    return [{ id: String(train), choices }];
  });
  const placed = placeLabels(labels);
  return labels.flatMap(({ id, choices }) => {
    const box = choices[placed.get(id) ?? -1];
    return box ? [{ train: Number(id), x: box.x + box.width / 2, y: box.y + 10 }] : [];
  });
}

/** Along its last piece, in this order, a train’s name is tried. */
const NAME_SHARES = [0.5, 0.35, 0.65, 0.2, 0.8, 0.1, 0.9];

/** Splits samples where the train jumps on the sheet or changes its row, so that no line is drawn across. */
function unbroken(samples: PathSample[]): PathSample[][] {
  const pieces: PathSample[][] = [];
  for (const sample of samples) {
    const last = pieces[pieces.length - 1]?.at(-1);
    const joined =
      last &&
      last.row === sample.row &&
      Math.abs(last.head - sample.head) < JUMP &&
      Math.abs(sample.head - sample.tail) < 4 * JUMP &&
      Math.abs(last.tail - sample.tail) < JUMP;
    if (joined) pieces[pieces.length - 1]!.push(sample);
    else if (Math.abs(sample.head - sample.tail) < 4 * JUMP) pieces.push([sample]);
  }
  return pieces;
}
