'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { LoaderCircle } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Fault } from '@/core/faults';
import { type ProofProgress, STANDARD_SWITCHES, SWITCH_IDS, SWITCHES, type Switch } from '@/core/proof';
import { namesById, withNames } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { saveFile } from '@/ui/parts/save-file';
import { SheetBar } from '@/ui/parts/sheet-bar';
import { Panel, PanelSection } from '@/ui/reasoning/panel';
import { LineSheet } from '@/ui/sheet/line-sheet';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { isProofOf, type Proved } from '@/ui/state/verdict-line';
import type { ProofReport, ProofWorker } from '@/workers/proof.worker';
import { DESIGN_LANES } from '../design-stage';
import { FaultChoices } from './fault-choices';
import { count, VerdictRow } from './verdict-row';

const timeOfDay = () => new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
const messageOf = (error: unknown, otherwise: string) => (error instanceof Error ? error.message : otherwise);

const of = (n: number, what: string) => `${count(n)} ${what}${n === 1 ? '' : 's'}`;
const failuresFirst = (verdicts: ProofReport['verdicts']) => [
  ...verdicts.filter(({ result }) => result === 'fails'),
  ...verdicts.filter(({ result }) => result !== 'fails'),
];

/** A proof in which just that could fail. */
const ofFault = (proved: Proved | undefined, { fault, thing }: Fault): Proved | undefined =>
  proved?.report.fault?.fault === fault && proved.report.fault.thing === thing ? proved : undefined;

/** Looks at everything that can happen, and tells what it found. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function ProveStage() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [fault, setFault] = useState<Fault>();
  const proved = useWorkbench((s) => (fault ? ofFault(s.provedFailing, fault) : s.proved));
  const remote = useRef<Remote<ProofWorker>>(undefined);
  const [progress, setProgress] = useState<ProofProgress>();
  const [problem, setProblem] = useState<string>();
  const [switches, setSwitches] = useState<Switch[]>(proved?.tried ?? [...STANDARD_SWITCHES]);

  useEffect(() => {
    const worker = new Worker(new URL('../../../workers/proof.worker.ts', import.meta.url), { type: 'module' });
    remote.current = wrap<ProofWorker>(worker);
    return () => worker.terminate();
  }, []);

  const prove = async () => {
    setProblem(undefined);
    const slot = fault ? 'provedFailing' : 'proved';
    store.getState().set({ [slot]: undefined });
    setProgress({ states: 0, moves: 0, waiting: 0 });
    /** What is told comes by a way of its own, and can come after the end. */
    const told = (now: ProofProgress) => setProgress((before) => before && now);
    try {
      const report = await remote.current!.prove(document, switches, fault, proxy(told));
      store.getState().set({ [slot]: { of: document, at: timeOfDay(), tried: switches, report } });
    } catch (error) {
      setProblem(messageOf(error, 'It cannot be proved.'));
    }
    setProgress(undefined);
  };
  const saveModel = async () => {
    setProblem(undefined);
    try {
      const text = await remote.current!.promela(document, switches, fault);
      saveFile(`${document.name.replaceAll('.', ' ')}.pml`, text, 'text/plain');
    } catch (error) {
      setProblem(messageOf(error, 'It cannot be written.'));
    }
  };
  const report = proved?.report;
  const stale = useWorkbench((s) => proved !== undefined && isProofOf({ ...s, proved }) === false);
  const names = useMemo(() => namesById(document), [document]);
  const named = (text: string) => withNames(text, names);
  const triedOther =
    proved !== undefined && SWITCH_IDS.some((id) => proved.tried.includes(id) !== switches.includes(id));
  return (
    <>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
        <SheetBar title="Prove">
          <span className="text-ink2">
            Every state that trains, points and rules can come to, not just the ones you try.
          </span>
        </SheetBar>
        <LineSheet lanes={DESIGN_LANES} />
      </main>
      <Panel title="Proof" subject={report && of(report.states, 'state')}>
        {document.trains.filter((t) => t.start).length === 0 && (
          <p className="mb-2 text-ink2">No train stands on the track. Put one there in Survey, under Trains.</p>
        )}
        <div className="flex gap-2">
          {progress ? (
            <button type="button" className="button" onClick={() => void remote.current?.stop()}>
              Stop here
            </button>
          ) : (
            <button type="button" className="button button-main" onClick={() => void prove()}>
              {report ? 'Prove again' : 'Look at every state'}
            </button>
          )}
        </div>
        <div aria-live="polite">
          {progress && (
            <p className="mt-2 flex items-center gap-2 text-ink2">
              <LoaderCircle size={14} className="animate-spin" aria-hidden />
              {progress.driven
                ? `All states are found. A rehearsal is driven to what can happen: ${progress.driven.done + 1} of ${progress.driven.of}`
                : `${count(progress.states)} states found, ${count(progress.waiting)} still to follow`}
            </p>
          )}
          {problem && (
            <p role="alert" className="mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
              {problem}
            </p>
          )}
          {stale && proved && (
            <p className="mt-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
              The layout has changed since {proved.at}: this is not proved of what you see now.
            </p>
          )}
          {triedOther && (
            <p className="mt-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
              What is to be tried has changed since {proved.at}: the verdicts are of what was tried then.
            </p>
          )}
        </div>
        {report && (
          <>
            {report.notPlaced.map((text) => (
              <p key={text} className="mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
                {named(text)} Nothing below speaks of it.
              </p>
            ))}
            <p className="mt-3 text-ink2">
              {report.finished
                ? `${report.states === 1 ? 'The one state' : `All ${count(report.states)} states`} and ${of(report.moves, 'move')}`
                : `${of(report.states, 'state')} and ${of(report.moves, 'move')}, not all`}{' '}
              of {report.trains.length === 0 ? 'no train' : named(report.trains.join(', '))}, under what is taken for
              granted below.
              {report.fault && (
                <>
                  {' '}
                  With this, at any moment: <strong>{named(report.fault.says)}.</strong>
                </>
              )}
            </p>
            <ul className="mt-1" aria-label="Verdicts">
              {failuresFirst(report.verdicts).map((verdict) => (
                <VerdictRow key={verdict.property} verdict={verdict} report={report} named={named} />
              ))}
            </ul>
            <PanelSection title="What this takes for granted">
              <ul className="list-disc pl-4 text-ink2">
                {report.assumptions.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            </PanelSection>
          </>
        )}
        <PanelSection title="What is tried">
          {SWITCH_IDS.map((id) => (
            <CheckBox
              key={id}
              checked={switches.includes(id)}
              disabled={progress !== undefined}
              onChange={(on) => setSwitches(on ? [...switches, id] : switches.filter((other) => other !== id))}
            >
              {SWITCHES[id].says}
            </CheckBox>
          ))}
        </PanelSection>
        <PanelSection title="With something that fails">
          <FaultChoices fault={fault} disabled={progress !== undefined} onFault={setFault} />
        </PanelSection>
        <PanelSection title="Another checker">
          <p className="mb-2 text-ink2">The same trains and rules as a Promela model, for the Spin checker.</p>
          <button type="button" className="button" onClick={() => void saveModel()}>
            Save the model
          </button>
        </PanelSection>
      </Panel>
    </>
  );
}
