'use client';
import { line as d3line, scaleLinear } from 'd3';
import { memo } from 'react';
import { type PathSample, tickSeconds } from '@/core/simulation';
import type { SheetGeometry } from '@/ui/line-sheet/sheet-geometry';
import { trainColour } from '@/ui/line-sheet/trains-layer';

/** Seconds shown at once. */
const WINDOW_S = 120;
/** Share of the height above the “now” line once the graph has filled. */
const NOW_SHARE = 0.86;
/** A jump of more than this in one sample is a cut circuit or a change of ruler, not a move: 1 m. */
const JUMP = 1e7;

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

interface Props {
  geometry: SheetGeometry;
  samples: PathSample[][];
  names: string[];
  tick: number;
  width: number;
  height: number;
}

/** Where each train was and when, on the same distance axis as the track: nose thick, tail thin, dashed off the main row. */
export const TimeDistanceGraph = memo(function TimeDistanceGraph({
  geometry,
  samples,
  names,
  tick,
  width,
  height,
}: Props) {
  const now = tickSeconds(tick);
  const first = Math.max(0, now - WINDOW_S * NOW_SHARE);
  const y = scaleLinear([first, first + WINDOW_S], [6, height - 4]);
  const shown = samples.filter((s) => s[0] && tickSeconds(s[0].tick) >= first - 2);
  const path = d3line<{ x: number; y: number }>(
    (p) => p.x,
    (p) => p.y,
  );
  return (
    <svg
      width={width}
      height={height}
      className="drawing block border-t border-line bg-sheet"
      role="img"
      aria-label={`Time and distance graph up to ${clock(now)}`}
    >
      {y.ticks(Math.max(3, Math.floor(height / 44))).map((t) => (
        <g key={t}>
          <path d={`M66 ${y(t)}H${width}`} stroke="var(--hair)" />
          <text x="58" y={y(t) + 4} textAnchor="end" fontSize="11.5" style={{ fill: 'var(--ink3)' }}>
            {clock(t)}
          </text>
        </g>
      ))}
      {names.map((name, train) => {
        const pieces = unbroken(shown.flatMap((s) => (s[train] ? [s[train]] : [])));
        const colour = trainColour(train);
        return (
          <g key={name}>
            {pieces.map((piece) => {
              const points = (pick: (s: PathSample) => number) =>
                piece.map((s) => ({ x: geometry.x(pick(s)), y: y(tickSeconds(s.tick)) }));
              const head = points((s) => s.head);
              const tail = points((s) => s.tail);
              const offMain = piece[0]!.row !== 0;
              return (
                <g key={piece[0]!.tick}>
                  <path d={`${path([...head, ...tail.reverse()])}Z`} fill={colour} opacity=".14" />
                  <path
                    d={path(points((s) => s.head)) ?? ''}
                    fill="none"
                    stroke={colour}
                    strokeWidth="2.2"
                    strokeDasharray={offMain ? '7 3' : undefined}
                  />
                  <path
                    d={path(points((s) => s.tail)) ?? ''}
                    fill="none"
                    stroke={colour}
                    strokeWidth="1"
                    strokeDasharray={offMain ? '7 3' : undefined}
                  />
                </g>
              );
            })}
            {pieces.length > 0 && (
              <GraphName piece={pieces[pieces.length - 1]!} name={name} colour={colour} geometry={geometry} y={y} />
            )}
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
  );
});

function GraphName({
  piece,
  name,
  colour,
  geometry,
  y,
}: {
  piece: PathSample[];
  name: string;
  colour: string;
  geometry: SheetGeometry;
  y: (s: number) => number;
}) {
  const middle = piece[Math.floor(piece.length / 2)]!;
  if (piece.length < 12) return null;
  return (
    <text
      x={geometry.x((middle.head + middle.tail) / 2)}
      y={y(tickSeconds(middle.tick))}
      textAnchor="middle"
      fontWeight="600"
      style={{ fill: colour }}
    >
      {name}
    </text>
  );
}

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
