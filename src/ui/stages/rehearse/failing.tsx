'use client';
import { useEffect, useState } from 'react';
import { FAULTS, type FaultChoice } from '@/core/faults';
import type { Command, RehearsalFrame } from '@/core/simulation';
import { Choice } from '@/ui/parts/choice';
import { useWorkbench } from '@/ui/state/store';
import type { RehearsalControls } from './use-rehearsal';

type Tell = (command: Command) => void;

/** Lets a thing fail in one of its ways, and work again. */
export function Failing({ id, run }: { id: string; run: RehearsalControls }) {
  const selected = useWorkbench((s) => s.selected);
  const name = useWorkbench((s) => s.document.sensors.find((one) => one.id === id)?.name);
  const failures = useWorkbench((s) => s.board?.failures);
  const rehearsed = useWorkbench((s) => s.board?.document);
  const [choices, setChoices] = useState<FaultChoice[]>([]);
  const worker = run.worker();
  useEffect(() => {
    if (!rehearsed) return;
    let late = false;
    void worker?.faultsAbout(id).then((found) => {
      if (!late) setChoices(found);
    });
    return () => {
      late = true;
    };
  }, [worker, id, rehearsed]);
  const now = failures?.filter(({ thing }) => thing === id) ?? [];
  const left = choices.filter(({ fault, known }) => known && !now.some((one) => one.fault === fault));
  const unsaid = choices.some(({ known }) => !known);
  if (choices.length === 0) return null;
  return (
    <div className="mb-3 grid gap-2">
      <FailuresNow failures={now} command={run.command} />
      {left.length > 0 && (
        <Choice
          label={id === selected || !name ? 'Let it fail' : `Let detector ${name} fail`}
          value={undefined}
          placeholder="Choose how …"
          options={left.map(({ fault }) => ({ value: fault, says: FAULTS[fault].title }))}
          onChange={(fault) => run.command({ kind: 'fail', fault, thing: id, on: true })}
        />
      )}
      {unsaid && (
        <p className="text-ink2">
          What comes of a broken wire or a dead relay here is not known: say how it is wired, in Signal.
        </p>
      )}
    </div>
  );
}

/** What fails, each with a button that makes it work again. */
export function FailuresNow({ failures, command }: { failures: RehearsalFrame['failures']; command: Tell }) {
  if (failures.length === 0) return null;
  return (
    <ul className="grid gap-1">
      {failures.map(({ fault, thing, says }) => (
        <li key={`${fault} ${thing}`} className="flex items-center gap-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          <span className="grow">{says}.</span>
          <button
            type="button"
            className="button shrink-0 py-0.5"
            onClick={() => command({ kind: 'fail', fault, thing, on: false })}
          >
            Mend it
          </button>
        </li>
      ))}
    </ul>
  );
}
