'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { CircleAlert, CircleCheck, CircleDashed, LoaderCircle } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { ProofModel, type ProofProgress, type Property, UNNOTICED, type Verdict, writePromela } from '@/core/proof';
import { LineSheet } from '@/ui/line-sheet/line-sheet';
import { saveFile } from '@/ui/parts/save-file';
import { Panel, PanelSection } from '@/ui/reasoning/panel';
import { SheetBar } from '@/ui/workbench/sheet-bar';
import { useWorkbench, useWorkbenchStore } from '@/ui/workbench/store';
import type { ProofReport, ProofWorker } from '@/workers/proof.worker';

/** What each property says when it holds, and when it does not. */
const SAYS: Record<Property, { holds: string; fails: string }> = {
  'two trains in a block': {
    holds: 'No two trains are ever in one block.',
    fails: 'Two trains can come into one block.',
  },
  'opposing trains': {
    holds: 'No two trains ever meet head on along a single line.',
    fails: 'Two trains can meet head on along a single line.',
  },
  'points moved under a train': {
    holds: 'No points ever move under a train.',
    fails: 'Points can move under a train.',
  },
  'points lie wrong': {
    holds: 'No train ever runs into points that lie wrong.',
    fails: 'A train can run into points that lie wrong.',
  },
  'never settles': {
    holds: 'The rules always settle.',
    fails: 'The rules can go round and round without settling.',
  },
  deadlock: {
    holds: 'It never happens that no train can ever move again.',
    fails: 'It can happen that no train can ever move again.',
  },
};
const count = (n: number) => n.toLocaleString('en').replaceAll(',', ' ');

/** Looks at everything that can happen, and tells what it found. */
export function ProveStage() {
  const document = useWorkbench((s) => s.document);
  const remote = useRef<Remote<ProofWorker>>(undefined);
  const [progress, setProgress] = useState<ProofProgress>();
  const [report, setReport] = useState<{ of: typeof document; value: ProofReport }>();
  const [problem, setProblem] = useState<string>();

  useEffect(() => {
    const worker = new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' });
    remote.current = wrap<ProofWorker>(worker);
    return () => worker.terminate();
  }, []);

  const prove = async () => {
    setProblem(undefined);
    setReport(undefined);
    setProgress({ states: 0, moves: 0, waiting: 0 });
    try {
      const value = await remote.current!.prove(document, proxy(setProgress));
      setReport({ of: document, value });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'It cannot be proved.');
    }
    setProgress(undefined);
  };
  const proof = report?.value;
  const stale = report !== undefined && report.of !== document;
  return (
    <>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
        <SheetBar title="Prove">
          <span className="text-ink2">
            Every state that trains, points and rules can come to, not just the ones you try.
          </span>
        </SheetBar>
        <LineSheet />
      </main>
      <Panel title="Proof" subject={proof && `${count(proof.states)} states`}>
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
              {proof ? 'Prove again' : 'Look at every state'}
            </button>
          )}
        </div>
        <div aria-live="polite">
          {progress && (
            <p className="mt-2 flex items-center gap-2 text-ink2">
              <LoaderCircle size={14} className="animate-spin" aria-hidden />
              {count(progress.states)} states found, {count(progress.waiting)} still to follow
            </p>
          )}
          {problem && (
            <p role="alert" className="mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
              {problem}
            </p>
          )}
          {stale && (
            <p className="mt-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
              The layout has changed since: this is not proved of what you see now.
            </p>
          )}
        </div>
        {proof && (
          <>
            <ul className="mt-3" aria-label="Verdicts">
              {proof.verdicts.map((verdict) => (
                <VerdictRow key={verdict.property} verdict={verdict} moves={proof.moves} report={proof} />
              ))}
            </ul>
            <PanelSection title="What this takes for granted">
              <ul className="list-disc pl-4 text-ink2">
                {proof.assumptions.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
              <p className="mt-2 text-ink3">
                {count(proof.states)} states, {count(proof.moves)} moves,{' '}
                {proof.trains === 1 ? '1 train' : `${proof.trains} trains`}.
              </p>
            </PanelSection>
          </>
        )}
        <PanelSection title="Another checker">
          <p className="mb-2 text-ink2">The same trains and rules as a Promela model, for the Spin checker.</p>
          <button
            type="button"
            className="button"
            onClick={() => {
              try {
                saveFile(
                  `${document.name.replaceAll('.', ' ')}.pml`,
                  writePromela(new ProofModel(document)),
                  'text/plain',
                );
              } catch (error) {
                setProblem(error instanceof Error ? error.message : 'It cannot be written.');
              }
            }}
          >
            Save the model
          </button>
        </PanelSection>
      </Panel>
    </>
  );
}

function VerdictRow({ verdict, moves, report }: { verdict: Verdict; moves: number; report: ProofReport }) {
  const store = useWorkbenchStore();
  const { property, result, story } = verdict;
  const steered = report.steered[property];
  const says = SAYS[property];
  return (
    <li className="border-b border-hair py-2">
      <p
        className={`flex gap-2 font-medium ${result === 'fails' ? 'text-fail' : result === 'holds' ? 'text-ok' : 'text-ink2'}`}
      >
        {result === 'fails' ? (
          <CircleAlert size={15} aria-hidden className="mt-0.5 shrink-0" />
        ) : result === 'holds' ? (
          <CircleCheck size={15} aria-hidden className="mt-0.5 shrink-0" />
        ) : (
          <CircleDashed size={15} aria-hidden className="mt-0.5 shrink-0" />
        )}
        {result === 'fails'
          ? says.fails
          : result === 'holds'
            ? `Proved: ${says.holds[0]!.toLowerCase()}${says.holds.slice(1)}`
            : `Not found in ${count(moves)} moves, and not finished. Would say: ${says.holds}`}
      </p>
      {story && (
        <div className="mt-1 rounded-md border border-line bg-sheet px-2 py-1.5">
          <p className="font-semibold">{story.length === 0 ? 'It is so from the start.' : 'The shortest way there'}</p>
          <ol className="list-decimal pl-5">
            {story
              .filter(({ says: text }) => !text.endsWith(UNNOTICED))
              .map((step, i) => (
                <li key={i}>{step.says}</li>
              ))}
          </ol>
          {steered && (
            <>
              <p className="mt-1 text-ink2">
                {steered.confirmed
                  ? 'The rehearsal comes to it too.'
                  : 'Possible, not confirmed: the rehearsal, with its own times, did not come to it.'}
              </p>
              <button
                type="button"
                className="button mt-1"
                onClick={() => store.getState().set({ recording: steered, stage: 'rehearse', selected: undefined })}
              >
                Show it in Rehearse
              </button>
            </>
          )}
        </div>
      )}
    </li>
  );
}
