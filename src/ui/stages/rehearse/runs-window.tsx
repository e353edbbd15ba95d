'use client';
import { proxy } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { KeptRun, KeptRunRow } from '@/core/design';
import { failuresIn, type Recording, type RunSummary } from '@/core/simulation';
import { compareDocuments, type LayoutDocument } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { CheckBox } from '@/ui/parts/check-box';
import { KeptColumn } from '@/ui/parts/kept-column';
import { useWidth } from '@/ui/parts/use-width';
import { Window } from '@/ui/parts/window';
import { useWorkbench } from '@/ui/state/store';
import { clock } from './event-list';
import { type Compared, RunPair } from './run-pair';
import type { RehearsalControls } from './use-rehearsal';

/** Runs that were kept: by name, to be had again, and two of them side by side. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function RunsWindow({ run, onClose }: { run: RehearsalControls; onClose: () => void }) {
  const id = useWorkbench((s) => s.id);
  const document = useWorkbench((s) => s.document);
  const [runs, setRuns] = useState<KeptRunRow[]>();
  const [says, setSays] = useState<string>();
  const [refused, setRefused] = useState<RunSummary['refused']>([]);
  /** A run that is being run again, and how much of it has been. */
  const [busy, setBusy] = useState<{ name: string; share: number }>();
  const [problem, setProblem] = useState<string>();
  const [chosen, setChosen] = useState<string[]>([]);
  const [pair, setPair] = useState<[Compared, Compared]>();
  const [measure, width] = useWidth(800);

  const load = useCallback(async () => {
    const asked = await askServer<KeptRunRow[]>(`/api/layouts/${id}/runs`);
    if (asked.ok) setRuns(asked.value);
    else setProblem(asked.problem);
  }, [id]);
  useEffect(() => void load(), [load]);

  const fetchRun = async (which: string): Promise<KeptRun | undefined> => {
    const asked = await askServer<KeptRun>(`/api/layouts/${id}/runs/${which}`);
    if (asked.ok) return asked.value;
    setProblem(asked.problem);
    return undefined;
  };
  const keep = async (name: string) => {
    const recording = await run.recording();
    const asked = await sendServer('POST', `/api/layouts/${id}/runs`, { ...recording, name, document });
    setProblem(asked.ok ? undefined : asked.problem);
    if (asked.ok) await load();
    return asked.ok;
  };
  /** Runs it again aside; undefined when that was stopped. */
  const summarise = async (name: string, on: LayoutDocument, one: Recording): Promise<RunSummary | undefined> => {
    setBusy({ name, share: 0 });
    const reached = proxy((ticks: number) => setBusy({ name, share: ticks / one.ticks }));
    try {
      return await run.worker()!.summarise(on, one, reached);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'It cannot be run.');
      return undefined;
    } finally {
      setBusy(undefined);
    }
  };
  const begin = () => {
    setProblem(undefined);
    setSays(undefined);
    setRefused([]);
  };
  const again = async (row: KeptRunRow) => {
    begin();
    const kept = await fetchRun(row.id);
    const summary = kept && (await summarise(kept.name, kept.document, kept));
    if (!kept || !summary) return;
    setSays(
      summary.hash === kept.hash
        ? `“${row.name}” ran again to the very same trace, ${kept.hash}.`
        : `“${row.name}” ran differently this time: ${summary.hash} instead of ${kept.hash}.`,
    );
    if (compareDocuments(kept.document, document).length === 0) run.load(kept);
    else
      setProblem(
        'The layout has changed since; the run was checked on the layout as it was then, but is not shown on this one. “On this layout” does the same on it as it is now.',
      );
  };
  /** Does the same on the layout as it is now, or lets only the same fail; what can no longer be done is told. */
  const onThis = async (row: KeptRunRow, pick: (commands: Recording['commands']) => Recording['commands']) => {
    begin();
    const kept = await fetchRun(row.id);
    if (!kept) return;
    const { seed, ticks } = kept;
    const commands = pick(kept.commands);
    if (pick === failuresIn && commands.length === 0) return setSays(`Nothing failed in “${row.name}”.`);
    const summary = await summarise(row.name, document, { seed, ticks, commands });
    if (!summary) return;
    const mishaps = summary.mishaps === 1 ? '1 mishap' : `${summary.mishaps || 'no'} mishaps`;
    setSays(
      `“${row.name}” on the layout as it is now: ${mishaps} in ${clock(ticks)}. ${run.together.shared ? 'It is not shown: the run on the sheet is shared.' : 'The sheet shows its end; wind it back to watch.'}`,
    );
    setRefused(summary.refused);
    if (!run.together.shared) run.load({ seed, ticks, commands });
  };
  const compare = async () => {
    setProblem(undefined);
    setPair(undefined);
    const pairs: Compared[] = [];
    for (const which of chosen) {
      const kept = await fetchRun(which);
      const summary = kept && (await summarise(kept.name, kept.document, kept));
      if (!kept || !summary) return;
      pairs.push({ name: kept.name, document: kept.document, summary });
    }
    setPair([pairs[0]!, pairs[1]!]);
  };
  const latest = useRef(run);
  latest.current = run;
  useEffect(() => () => void latest.current.worker()?.stopSummary(), []);
  const remove = async (row: KeptRunRow) => {
    const asked = await sendServer('DELETE', `/api/layouts/${id}/runs/${row.id}`);
    if (!asked.ok) return setProblem(asked.problem);
    setChosen(chosen.filter((one) => one !== row.id));
    await load();
  };

  return (
    <Window
      wide
      title="Runs"
      says="A run is kept as its number and what you did; it can be had again exactly."
      onClose={onClose}
    >
      <div className="flex min-h-0 flex-1">
        <KeptColumn what="run" problem={problem} onKeep={keep}>
          {says && <p className="mx-4 mt-2 text-ink2">{says}</p>}
          {refused.length > 0 && (
            <div role="alert" className="mx-4 mt-2 rounded-md bg-warn-tint px-2 py-1">
              What could not be done was left out:
              <ul className="max-h-32 overflow-y-auto">
                {refused.map(({ tick, says }) => (
                  <li key={`${tick} ${says}`}>
                    {clock(tick)} {says}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {busy && (
            <p className="mx-4 mt-2 flex items-center gap-2 text-ink2" role="status">
              <span className="grow">
                Running “{busy.name}” again, {Math.round(100 * busy.share)} % …
              </span>
              <button type="button" className="button py-0.5" onClick={() => void run.worker()?.stopSummary()}>
                Stop
              </button>
            </p>
          )}
          {!runs && !problem && <p className="px-4 py-3 text-ink2">Looking up the kept runs …</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto" aria-label="Kept runs">
            {runs?.length === 0 && <li className="px-4 py-3 text-ink2">No run has been kept yet.</li>}
            {runs?.map((row) => (
              <li key={row.id} className="border-b border-hair px-4 py-2">
                <CheckBox
                  checked={chosen.includes(row.id)}
                  onChange={(on) =>
                    setChosen(on ? [...chosen, row.id].slice(-2) : chosen.filter((one) => one !== row.id))
                  }
                >
                  <strong>{row.name}</strong>
                </CheckBox>
                <span className="text-ink3">
                  {clock(row.ticks)} long, seed {row.seed}
                </span>
                <div className="mt-1 flex flex-wrap gap-2">
                  <button type="button" className="button py-0.5" onClick={() => void again(row)}>
                    Run again
                  </button>
                  <button type="button" className="button py-0.5" onClick={() => void onThis(row, (all) => all)}>
                    On this layout
                  </button>
                  <button type="button" className="button py-0.5" onClick={() => void onThis(row, failuresIn)}>
                    Its faults alone
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
              disabled={chosen.length !== 2 || busy !== undefined}
              onClick={() => void compare()}
            >
              Compare the two chosen
            </button>
          </div>
        </KeptColumn>
        <div ref={measure} tabIndex={0} className="min-h-[420px] min-w-0 flex-1 overflow-y-auto bg-sheet">
          {pair ? (
            <RunPair pair={pair} width={width} />
          ) : (
            <p className="p-4 text-ink2">Choose two runs and compare them.</p>
          )}
        </div>
      </div>
    </Window>
  );
}
