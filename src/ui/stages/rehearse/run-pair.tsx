'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { checkDesign, viewDesign } from '@/core/design';
import { showNumber } from '@/core/measure';
import { firstDifference, type RunSummary, tickSeconds } from '@/core/simulation';
import { compareDocuments, type LayoutDocument } from '@/core/survey';
import { straighten } from '@/core/track';
import { DataTable } from '@/ui/parts/data-table';
import { SlideBar } from '@/ui/parts/slide-bar';
import { fitView, SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { clock } from './event-list';
import { TimeDistanceGraph } from './time-distance-graph';

/** A run that was run again, to be set beside another. */
export interface Compared {
  name: string;
  document: LayoutDocument;
  summary: RunSummary;
}

/** The graph shows both runs whole with a little room below, or this much of them. */
const MOST_SECONDS = 240;
const LEAST_SECONDS = 10;

/** Two runs on one graph, and in figures. */
export function RunPair({ pair: [a, b], width }: { pair: [Compared, Compared]; width: number }) {
  const [tick, setTick] = useState(0);
  const drawing = useMemo(() => straighten(a.document), [a.document]);
  const geometry = useMemo(() => new SheetGeometry(drawing, fitView(drawing, width), 20, 20), [drawing, width]);
  const blocks = useMemo(() => viewDesign(a.document, checkDesign(a.document)).blocks, [a.document]);
  const names = a.summary.trains.map((t) => t.name);
  const changes = useMemo(() => compareDocuments(a.document, b.document).length, [a.document, b.document]);
  const parted = firstDifference(a.summary.events, b.summary.events);
  const longest = Math.max(a.summary.ticks, b.summary.ticks);
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 px-4 py-2">
        <span>
          <strong>{a.name}</strong> in colour, <strong>{b.name}</strong> in grey dots.
        </span>
        <div className="ml-auto flex w-64 items-center gap-2">
          <span>Up to</span>
          <SlideBar
            name="Moment up to which both runs are shown"
            most={longest}
            step={50}
            value={tick || Math.min(longest, 5000)}
            onChange={setTick}
          />
        </div>
      </div>
      <TimeDistanceGraph
        geometry={geometry}
        samples={a.summary.samples}
        names={names}
        blocks={blocks}
        lineNames={new Map(a.document.lines.map((line) => [line.id, line.name]))}
        mainRow={drawing.lines.get(a.document.referenceLine)?.row ?? 0}
        tick={tick || Math.min(longest, 5000)}
        width={width}
        height={320}
        seconds={Math.min(MOST_SECONDS, Math.max(LEAST_SECONDS, 1.2 * tickSeconds(longest)))}
        other={{ samples: b.summary.samples, names: b.summary.trains.map((t) => t.name) }}
      />
      {changes > 0 && (
        <p className="mx-4 mt-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
          The layout was changed between the two, in {changes === 1 ? '1 thing' : `${changes} things`}. Track and blocks
          are drawn as they were for “{a.name}”, and “{b.name}” by its distances along the ruler.
        </p>
      )}
      <p className="px-4 py-2">
        {parted
          ? `They part at ${clock(parted.tick)}: in “${a.name}” ${parted.a}; in “${b.name}” ${parted.b}.`
          : 'As far as both go, they are the same.'}
      </p>
      <div className="m-4">
        <DataTable
          label="The trains of both runs"
          rows={a.summary.trains.map((mine) => ({ mine, other: b.summary.trains.find(({ id }) => id === mine.id) }))}
          columns={columnsOf(a.name, b.name)}
          rowId={({ mine }) => mine.id}
          foot={
            <tr>
              <th scope="row" className="py-1 font-semibold">
                Mishaps
              </th>
              <td>{a.summary.mishaps}</td>
              <td>{b.summary.mishaps}</td>
              <td colSpan={4}>
                {showNumber(tickSeconds(a.summary.ticks), 0)} s and {showNumber(tickSeconds(b.summary.ticks), 0)} s long
              </td>
            </tr>
          }
        />
      </div>
    </>
  );
}

type TrainOfRun = RunSummary['trains'][number];
interface Row {
  mine: TrainOfRun;
  other: TrainOfRun | undefined;
}

const COLUMN = createColumnHelper<Row>();

/** A figure of a train in the one run and in the other; one that is not in the other has none there. */
const inBoth = (
  id: string,
  said: string,
  a: string,
  b: string,
  of: (t: TrainOfRun) => number,
  shown: (n: number) => string,
) =>
  [
    COLUMN.accessor(({ mine }) => of(mine), {
      id: `${id} here`,
      header: `${said}, ${a}`,
      cell: ({ getValue }) => shown(getValue()),
    }),
    COLUMN.accessor(({ other }) => other && of(other), {
      id: `${id} there`,
      header: b,
      sortUndefined: 'last',
      cell: ({ getValue }) => {
        const figure = getValue();
        return figure === undefined ? 'not there' : shown(figure);
      },
    }),
  ] as const;

const columnsOf = (a: string, b: string) => [
  COLUMN.accessor(({ mine }) => mine.name, { id: 'train', header: 'Train' }),
  ...inBoth(
    'run',
    'Run',
    a,
    b,
    ({ runMm }) => runMm,
    (mm) => `${showNumber(mm / 1000, 1)} m`,
  ),
  ...inBoth(
    'stood',
    'Stood',
    a,
    b,
    ({ stoodMs }) => stoodMs,
    (ms) => `${showNumber(ms / 1000, 0)} s`,
  ),
  ...inBoth('stops', 'Stops', a, b, ({ stops }) => stops, String),
];
