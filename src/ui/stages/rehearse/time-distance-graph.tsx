'use client';
import { scaleLinear } from 'd3';
import { memo, useMemo, useRef, useState } from 'react';
import type { BlockView } from '@/core/design';
import { type Sample, TICK_MS, tickSeconds } from '@/core/simulation';
import { CheckBox } from '@/ui/parts/check-box';
import type { SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { BlockBoxes, type GraphFrame, StretchCourses } from './graph-courses';
import { GraphNames } from './graph-names';
import { cutStretches, joinSpans, type Stretch } from './sample-stretches';

/** Seconds shown at once, unless a person chooses otherwise. */
const WINDOW_S = 120;
const TICKS_A_SECOND = 1000 / TICK_MS;
/** Share of the height above the “now” line once the graph has filled. */
const NOW_SHARE = 0.86;
/** Pixels left free above and below. */
const [TOP, BOTTOM] = [6, 4];
/** How lines of each row off the main one are broken, nearest row first, so that parallel roads are told apart. */
const DASHES = ['7 3', '2 3', '10 3 2 3', '5 5', '2 6', '12 4'];
const KEY_HEIGHT = 23;
/** Half the height of the “now” label with half that of a time beside it. */
const NOW_HALF_HEIGHT = 15;

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
  /** How many seconds it shows at once. */
  seconds?: number;
  /** Another course, drawn thin beside the first. */
  other?: Course;
  /** What is selected on the sheet, as stretches of x. */
  bands?: { x: number; width: number }[];
  onWind?: (tick: number) => void;
}

/** The stretches between two ticks; those that have not changed since the last call are the same objects. */
function useStretches(samples: Sample[], from: number, to: number): Stretch[] {
  const before = useRef<Stretch[]>([]);
  before.current = cutStretches(samples, from, to, before.current);
  return before.current;
}

/** A value as it was when `when` last changed. */
function useKept<T>(value: T, when: string): T {
  const kept = useRef({ value, when });
  if (kept.current.when !== when) kept.current = { value, when };
  return kept.current.value;
}

/**
 * Where each train was and when, on the same distance axis as the track: nose thick, tail thin. Boxes show which blocks read
 * occupied. Each row of track off the main one has its own way of breaking its lines, and can be left out. All of it hangs
 * on one long strip of time that is moved past the window, so that what has been drawn once stays as it is.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one graph from axes to strokes, on one pair of scales.
export const TimeDistanceGraph = memo(function TimeDistanceGraph(props: Props) {
  const {
    geometry,
    samples,
    names,
    blocks,
    lineNames,
    mainRow,
    tick,
    width,
    seconds = WINDOW_S,
    other,
    bands,
    onWind,
  } = props;
  const now = tickSeconds(tick);
  const first = Math.max(0, now - seconds * NOW_SHARE);
  const height = props.height - (geometry.drawing.lastRow > geometry.drawing.firstRow ? KEY_HEIGHT : 0);
  const y = scaleLinear([first, first + seconds], [TOP, height - BOTTOM]);
  const [hidden, setHidden] = useState<ReadonlySet<number>>(new Set());
  const rows = useMemo(() => {
    const found = new Map<number, string[]>();
    for (const { line, row } of geometry.drawing.lines.values())
      found.set(row, [...(found.get(row) ?? []), lineNames.get(line) ?? line]);
    return [...found].sort(([a], [b]) => a - b);
  }, [geometry.drawing, lineNames]);
  const dashes = useMemo(() => {
    const others = rows.map(([row]) => row).filter((row) => row !== mainRow);
    return new Map(others.map((row, i) => [row, DASHES[i % DASHES.length]]));
  }, [rows, mainRow]);
  const frame = useMemo((): GraphFrame => {
    const pxPerTick = (height - TOP - BOTTOM) / (seconds * TICKS_A_SECOND);
    return { geometry, width, pxPerTick, mainRow, hidden, dashes };
  }, [geometry, width, height, seconds, mainRow, hidden, dashes]);
  const [from, to] = [first * TICKS_A_SECOND, (first + seconds) * TICKS_A_SECOND];
  const stretches = useStretches(samples, from, to);
  const named = useKept(stretches, `${Math.floor(now)} ${stretches[0]?.key} ${stretches.length}`);
  const otherStretches = useStretches(other?.samples ?? NO_SAMPLES, from, to);
  const timeAt = (event: { clientY: number; currentTarget: SVGSVGElement }) => {
    const box = event.currentTarget.getBoundingClientRect();
    return y.invert(((event.clientY - box.top) * height) / box.height);
  };
  const isPast = (samples[samples.length - 1]?.tick ?? 0) > tick;
  const strip = frame.pxPerTick * TICKS_A_SECOND;
  return (
    <div className="border-t border-line">
      {rows.length > 1 && (
        <fieldset className="flex gap-x-4 overflow-x-auto whitespace-nowrap bg-paper px-4 py-0.5 text-[0.75rem] [scrollbar-width:none]">
          <legend className="sr-only">Roads shown in the graph</legend>
          {rows.map(([row, lines]) => (
            <CheckBox
              key={row}
              checked={!hidden.has(row)}
              onChange={(on) => {
                const next = new Set(hidden);
                if (on) next.delete(row);
                else next.add(row);
                setHidden(next);
              }}
            >
              <span className="flex items-center gap-1">
                <svg width="26" height="8" aria-hidden="true">
                  <path d="M0 4H26" stroke="var(--ink2)" strokeWidth="2.2" strokeDasharray={dashes.get(row)} />
                </svg>
                <span className="max-w-40 truncate">{lines.join(', ')}</span>
              </span>
            </CheckBox>
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
        <g transform={`translate(0 ${TOP - first * strip})`}>
          {joinSpans(stretches).map((span) => {
            const view = blocks[span.block];
            if (!view || view.detectors.length === 0) return null;
            return <BlockBoxes key={`${span.block} ${span.from}`} view={view} span={span} frame={frame} />;
          })}
          {y.ticks(Math.max(3, Math.floor(height / 44))).map((t) => (
            <g key={t}>
              <path d={`M66 ${t * strip}H${width}`} stroke="var(--hair)" />
              {Math.abs(y(t) - y(now)) > NOW_HALF_HEIGHT && (
                <text x="58" y={t * strip + 4} textAnchor="end" fontSize="11.5" style={{ fill: 'var(--ink3)' }}>
                  {clock(t)}
                </text>
              )}
            </g>
          ))}
          {otherStretches.map((stretch) => (
            <StretchCourses key={stretch.key} stretch={stretch} trains={other!.names.length} frame={frame} other />
          ))}
          {stretches.map((stretch) => (
            <StretchCourses key={stretch.key} stretch={stretch} trains={names.length} frame={frame} />
          ))}
          <GraphNames stretches={named} names={names} lineNames={lineNames} frame={frame} />
        </g>
        {isPast && (
          <rect
            x="66"
            y={y(now)}
            width={width}
            height={Math.max(0, height - y(now))}
            fill="var(--sheet)"
            opacity=".6"
          />
        )}
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

const NO_SAMPLES: Sample[] = [];
