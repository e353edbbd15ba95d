'use client';
import { useEffect, useState } from 'react';
import { FAILURES, type FailOutcome, type FailRow, sumOf } from '@/core/design';
import { cutsOff } from '@/core/patterns';
import { signalsOf, type Wiring } from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { Choice } from '@/ui/parts/choice';
import { PAGE, PageBar } from '@/ui/parts/page-bar';
import { Window } from '@/ui/parts/window';
import { DETECTORS_BROKEN, RELAYS_DEAD, SIGNALS_BROKEN } from '@/ui/reasoning/options';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What each signal shows, and each section has, when something fails. */
export function FailWindow({ onClose }: { onClose: () => void }) {
  const design = useWorkbench((s) => s.design);
  const document = useWorkbench((s) => s.document);
  const failsOf = useWorkbench((s) => s.failsOf);
  const points = useWorkbench((s) => s.trial.points);
  const [found, setFound] = useState<{ rows: FailRow[]; of: unknown }>();
  const [from, setFrom] = useState(0);
  useEffect(() => {
    if (!design) return;
    let late = false;
    void failsOf?.(points, { from, to: from + PAGE }).then((rows) => {
      if (!late) setFound({ rows, of: design.document });
    });
    return () => {
      late = true;
    };
  }, [failsOf, points, design, from]);
  const isFresh = found !== undefined && found.of === document;
  const { all, bad, unknown } = sumOf(found?.rows ?? []);
  /** What is said is said of the signals that were looked at. */
  const of = signalsOf(document).length > PAGE ? ' of these signals' : '';
  const struck = FAILURES.map((_, i) => found?.rows.some(({ outcomes }) => outcomes[i] !== undefined) ?? false);
  return (
    <Window
      wide
      title="When something fails"
      says="What each signal shows while a train stands ahead of it on the route that is set, and one thing has failed. It must never be less restrictive than without the fault."
      onClose={onClose}
    >
      <div className="flex flex-wrap items-end gap-4 border-b border-line px-4 py-2">
        <WiringChoices />
        <PageBar what="Signals" of={signalsOf(document).length} from={from} onFrom={setFrom} />
      </div>
      <div tabIndex={0} className="min-h-[320px] flex-1 overflow-auto px-4 py-3">
        <p role="status" className="mb-2">
          {!isFresh ? (
            'Working it out …'
          ) : found.rows.length === 0 ? (
            'There is no signal yet.'
          ) : bad > 0 ? (
            <strong className="text-fail">
              {bad} {bad === 1 ? 'outcome' : 'outcomes'}
              {of} {bad === 1 ? 'is' : 'are'} less restrictive than the truth
              {unknown > 0 ? `, and ${unknown} of ${all} are not known` : ''}.
            </strong>
          ) : unknown > 0 ? (
            `${unknown} of ${all} outcomes${of} are not known. None of the others is less restrictive than the truth.`
          ) : (
            `No outcome${of} is less restrictive than the truth.`
          )}
        </p>
        {isFresh && found.rows.length > 0 && (
          <table className="w-full text-left" aria-label="Signals and faults">
            <thead>
              <tr className="border-b border-line align-bottom text-ink2">
                <th className="py-1 pr-3 font-medium">Signal</th>
                {FAILURES.map(
                  (says, i) =>
                    struck[i] && (
                      <th key={says} className="min-w-28 py-1 pr-3 font-medium">
                        {says}
                      </th>
                    ),
                )}
              </tr>
            </thead>
            <tbody>
              {found.rows.map(({ id, name, outcomes }) => (
                <tr key={id} className="border-b border-hair">
                  <th scope="row" className="py-1 pr-3 font-semibold">
                    {name}
                  </th>
                  {outcomes.map(
                    (outcome, i) =>
                      struck[i] && (
                        <td key={FAILURES[i]} className="py-1 pr-3">
                          {outcome && <Outcome outcome={outcome} />}
                        </td>
                      ),
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <Caution work="wiring" />
      </div>
    </Window>
  );
}

function Outcome({ outcome: { says, safe } }: { outcome: FailOutcome }) {
  if (safe) return says;
  if (safe === undefined) return <span className="text-ink3">{says}</span>;
  return <strong className="text-fail">{says}</strong>;
}

/** How all of a kind are wired; one by one it is said where each is selected. */
function WiringChoices() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const signals = signalsOf(document);
  const cutting = signals.filter(cutsOff);
  const wire = (things: readonly { id: string }[], wiring: Wiring) =>
    store.getState().edit({ do: 'wire', ids: things.map(({ id }) => id), wiring });
  return (
    <>
      <Choice
        label="All detectors, with a broken wire"
        disabled={document.sensors.length === 0}
        className="w-64"
        value={alike(document.sensors.map(({ broken }) => broken))}
        placeholder="not said for all"
        options={DETECTORS_BROKEN}
        onChange={(sensors) => wire(document.sensors, { sensors })}
      />
      <Choice
        label="All signals, with a broken wire"
        disabled={signals.length === 0}
        className="w-64"
        value={alike(signals.map(({ broken }) => broken))}
        placeholder="not said for all"
        options={SIGNALS_BROKEN}
        onChange={(broken) => wire(signals, { signals: broken })}
      />
      {cutting.length > 0 && (
        <Choice
          label="All stop sections, with a dead relay"
          className="w-64"
          value={alike(cutting.map(({ relay }) => relay))}
          placeholder="not said for all"
          options={RELAYS_DEAD}
          onChange={(relays) => wire(cutting, { relays })}
        />
      )}
    </>
  );
}

const alike = <T,>(all: readonly T[]): T | undefined => (all.every((one) => one === all[0]) ? all[0] : undefined);
