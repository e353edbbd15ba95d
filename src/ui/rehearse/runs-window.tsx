'use client';
import { type FormEvent, useCallback, useEffect, useMemo, useState } from 'react';
import { checkDesign, viewDesign } from '@/core/design';
import { showNumber } from '@/core/measure';
import { firstDifference, type RunSummary, tickSeconds } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { straighten } from '@/core/track';
import { fitView, SheetGeometry } from '@/ui/line-sheet/sheet-geometry';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { useWidth } from '@/ui/parts/use-width';
import { Window } from '@/ui/parts/window';
import { type Recording, useWorkbench } from '@/ui/workbench/store';
import { clock } from './event-list';
import { TimeDistanceGraph } from './time-distance-graph';
import type { RehearsalControls } from './use-rehearsal';

interface RunRow {
  id: string;
  name: string;
  seed: number;
  ticks: number;
  hash: string;
  at: string;
}
interface Loaded extends Recording {
  name: string;
  document: LayoutDocument;
  hash: string;
}
interface Compared {
  name: string;
  document: LayoutDocument;
  summary: RunSummary;
}

/** Runs that were kept: by name, to be had again, and two of them side by side. */
export function RunsWindow({ run, onClose }: { run: RehearsalControls; onClose: () => void }) {
  const id = useWorkbench((s) => s.id);
  const document = useWorkbench((s) => s.document);
  const [runs, setRuns] = useState<RunRow[]>();
  const [name, setName] = useState('');
  const [says, setSays] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const [chosen, setChosen] = useState<string[]>([]);
  const [pair, setPair] = useState<[Compared, Compared]>();
  const [measure, width] = useWidth(800);

  const load = useCallback(async () => {
    const asked = await askServer<RunRow[]>(`/api/layouts/${id}/runs`);
    if (asked.ok) setRuns(asked.value);
    else setProblem(asked.problem);
  }, [id]);
  useEffect(() => void load(), [load]);

  const fetchRun = async (which: string): Promise<Loaded | undefined> => {
    const asked = await askServer<Loaded>(`/api/layouts/${id}/runs/${which}`);
    if (asked.ok) return asked.value;
    setProblem(asked.problem);
    return undefined;
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    if (!name.trim()) return setProblem('Type a name for this run first.');
    const recording = await run.recording();
    const asked = await sendServer('POST', `/api/layouts/${id}/runs`, { ...recording, name, document });
    if (!asked.ok) return setProblem(asked.problem);
    setProblem(undefined);
    setName('');
    await load();
  };
  const again = async (row: RunRow) => {
    const loaded = await fetchRun(row.id);
    if (!loaded) return;
    const summary = await run.worker()!.summarise(loaded.document, loaded);
    setSays(
      summary.hash === loaded.hash
        ? `“${row.name}” ran again to the very same trace, ${loaded.hash}.`
        : `“${row.name}” ran differently this time: ${summary.hash} instead of ${loaded.hash}.`,
    );
    if (JSON.stringify(loaded.document) === JSON.stringify(document)) run.load(loaded);
    else
      setProblem(
        'The layout has changed since; the run was checked on the layout as it was then, but is not shown on this one.',
      );
  };
  const compare = async () => {
    setProblem(undefined);
    const loaded = await Promise.all(chosen.map(fetchRun));
    const [a, b] = loaded;
    if (!a || !b) return;
    const worker = run.worker()!;
    const [p, q] = [await worker.summarise(a.document, a), await worker.summarise(b.document, b)];
    setPair([
      { name: a.name, document: a.document, summary: p },
      { name: b.name, document: b.document, summary: q },
    ]);
  };
  const remove = async (row: RunRow) => {
    const asked = await sendServer('DELETE', `/api/layouts/${id}/runs/${row.id}`);
    if (!asked.ok) return setProblem(asked.problem);
    setChosen(chosen.filter((one) => one !== row.id));
    await load();
  };

  return (
    <Window
      wide
      title="Runs"
      says="A run is kept as its seed and what you did; it can be had again exactly."
      onClose={onClose}
    >
      <div className="flex min-h-0 flex-1">
        <div className="flex w-[330px] shrink-0 flex-col border-r border-line">
          <form onSubmit={keep} className="flex items-end gap-2 border-b border-line px-4 py-3">
            <label className="flex grow flex-col gap-1">
              <span className="text-ink2">Keep the present run as</span>
              <input className="field" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
            </label>
            <button type="submit" className="button">
              Keep
            </button>
          </form>
          {problem && (
            <p role="alert" className="mx-4 mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
              {problem}
            </p>
          )}
          {says && <p className="mx-4 mt-2 text-ink2">{says}</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto" aria-label="Kept runs">
            {runs?.length === 0 && <li className="px-4 py-3 text-ink2">No run has been kept yet.</li>}
            {runs?.map((row) => (
              <li key={row.id} className="border-b border-hair px-4 py-2">
                <label className="flex items-center gap-2 font-semibold">
                  <input
                    type="checkbox"
                    checked={chosen.includes(row.id)}
                    onChange={(e) =>
                      setChosen(
                        e.target.checked ? [...chosen, row.id].slice(-2) : chosen.filter((one) => one !== row.id),
                      )
                    }
                  />
                  {row.name}
                </label>
                <span className="text-ink3">
                  {clock(row.ticks)} long, seed {row.seed}
                </span>
                <div className="mt-1 flex gap-2">
                  <button type="button" className="button py-0.5" onClick={() => void again(row)}>
                    Run again
                  </button>
                  <button type="button" className="button py-0.5" onClick={() => void remove(row)}>
                    Delete
                  </button>
                </div>
              </li>
            ))}
          </ul>
          <div className="border-t border-line px-4 py-3">
            <button
              type="button"
              className="button button-main"
              disabled={chosen.length !== 2}
              onClick={() => void compare()}
            >
              Compare the two chosen
            </button>
          </div>
        </div>
        <div ref={measure} tabIndex={0} className="min-h-[420px] min-w-0 flex-1 overflow-y-auto bg-sheet">
          {pair ? (
            <Pair pair={pair} width={width} />
          ) : (
            <p className="p-4 text-ink2">Choose two runs and compare them.</p>
          )}
        </div>
      </div>
    </Window>
  );
}

function Pair({ pair: [a, b], width }: { pair: [Compared, Compared]; width: number }) {
  const [tick, setTick] = useState(0);
  const drawing = useMemo(() => straighten(a.document), [a.document]);
  const geometry = useMemo(() => new SheetGeometry(drawing, fitView(drawing, width), 20, 20), [drawing, width]);
  const blocks = useMemo(() => viewDesign(a.document, checkDesign(a.document)).blocks, [a.document]);
  const names = a.summary.trains.map((t) => t.name);
  const parted = firstDifference(a.summary.events, b.summary.events);
  const longest = Math.max(a.summary.ticks, b.summary.ticks);
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 px-4 py-2">
        <strong>{a.name}</strong> in colour, <strong>{b.name}</strong> in grey dots.
        <label className="ml-auto flex items-center gap-2">
          Up to
          <input
            type="range"
            min={0}
            max={longest}
            step={50}
            value={tick || Math.min(longest, 5000)}
            onChange={(e) => setTick(Number(e.target.value))}
          />
        </label>
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
        other={{ samples: b.summary.samples, names }}
      />
      <p className="px-4 py-2">
        {parted
          ? `They part at ${clock(parted.tick)}: in “${a.name}” ${parted.a}; in “${b.name}” ${parted.b}.`
          : 'As far as both go, they are the same.'}
      </p>
      <table className="m-4 w-[calc(100%-2rem)] text-left">
        <thead>
          <tr className="border-b border-line">
            <th className="py-1">Train</th>
            <th>Run, {a.name}</th>
            <th>{b.name}</th>
            <th>Stood, {a.name}</th>
            <th>{b.name}</th>
            <th>Stops, {a.name}</th>
            <th>{b.name}</th>
          </tr>
        </thead>
        <tbody>
          {a.summary.trains.map((train, i) => {
            const other = b.summary.trains[i];
            return (
              <tr key={train.id} className="border-b border-hair">
                <td className="py-1">{train.name}</td>
                <td>{showNumber(train.runMm / 1000, 1)} m</td>
                <td>{other ? `${showNumber(other.runMm / 1000, 1)} m` : 'not there'}</td>
                <td>{showNumber(train.stoodMs / 1000, 0)} s</td>
                <td>{other ? `${showNumber(other.stoodMs / 1000, 0)} s` : ''}</td>
                <td>{train.stops}</td>
                <td>{other?.stops}</td>
              </tr>
            );
          })}
          <tr>
            <td className="py-1 font-semibold">Mishaps</td>
            <td>{a.summary.mishaps}</td>
            <td>{b.summary.mishaps}</td>
            <td colSpan={4}>
              {showNumber(tickSeconds(a.summary.ticks), 0)} s and {showNumber(tickSeconds(b.summary.ticks), 0)} s long
            </td>
          </tr>
        </tbody>
      </table>
    </>
  );
}
