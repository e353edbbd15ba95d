'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect } from 'react';
import type { DesignView, Some, Trial } from '@/core/design';
import type { DivideWishes } from '@/core/divide';
import type { LayoutDocument } from '@/core/survey';
import type { Checked, DesignWorker } from '@/workers/design.worker';
import { stepBetween } from '@/workers/document-step';
import { takeViewStep } from '@/workers/view-step';
import { afterPaint } from './after-paint';
import { useWorkbenchStore } from './store';

/**
 * Keeps the compiled design in step with the document, in a worker; one check at a time, always of the newest. What is tried
 * by hand follows where it is shown.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one conversation with the worker, which has to be ended as a whole.
export function useDesign(): void {
  const store = useWorkbenchStore();
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one conversation with the worker, which has to be ended as a whole.
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/design.worker.ts', import.meta.url), { type: 'module' });
    const remote: Remote<DesignWorker> = wrap<DesignWorker>(worker);
    /** Nothing can be asked before there is a design to ask about. */
    const askers = {
      explainTrial: (rule: string) => remote.explain(rule),
      failsOf: (points: Trial['points'], some: Some) => remote.fails(points, some),
      listFaults: () => remote.faults(),
      matrixOf: (points: Trial['points'], some: Some) => remote.matrix(points, some),
      lookUpSignal: (id: string) => remote.signal(id),
      lookUpPoints: (id: string) => remote.points(id),
      lockingTable: () => remote.locking(),
      proposeLocks: (reached: (share: number) => void) => remote.proposeLocks(proxy(reached)),
      stopProposing: () => void remote.stopProposing(),
      countTrains: (most: number, reached: (share: number) => void) => remote.countTrains(most, proxy(reached)),
      proposeAutomation: (reached: (share: number) => void) => remote.proposeAutomation(proxy(reached)),
      stopCounting: () => void remote.stopCounting(),
      ownRules: () => remote.ownRules(),
      rulesAbout: (id: string) => remote.rulesAbout(id),
      readRules: (id: string, text: string) => remote.readRules(id, text),
      valuesAbout: (id: string) => remote.valuesAbout(id),
      textAbout: (id: string) => remote.textAbout(id),
      seeEverywhere: () => remote.seeEverywhere(),
      seeWith: (count: number) => remote.seeWith(count),
      proposeSignals: () => remote.proposeSignals(),
      fixesOf: (id: string) => remote.fixesOf(id),
      failureFixesOf: (...of: Parameters<DesignWorker['failureFixesOf']>) => remote.failureFixesOf(...of),
      ownSchemes: () => remote.ownSchemes(),
      figuresOf: (of: LayoutDocument) => remote.figuresOf(of),
      comparePoints: (wishes: DivideWishes) => remote.comparePoints(wishes),
      suggest: (wishes: DivideWishes) => remote.suggest(wishes),
      readText: (text: string, reached: (share: number) => void) => remote.readText(text, proxy(reached)),
      stopReading: () => void remote.stopReading(),
    };
    let busy = false;
    let sent: { version: number; document: LayoutDocument } | undefined;
    let versions = 0;
    /** The view that came last, whole. */
    let view: DesignView | undefined;
    /** Brings the worker to a document, by the step from the one it has, or whole where it has another. */
    const send = async (document: LayoutDocument): Promise<Checked> => {
      const version = ++versions;
      const checked = await remote.check(stepBetween(sent, document, version));
      if ('behind' in checked && sent) {
        sent = undefined;
        return send(document);
      }
      sent = { version, document };
      return checked;
    };
    const check = async () => {
      if (busy) return;
      busy = true;
      while (sent?.document !== store.getState().document) {
        /** Copying what has changed takes a moment: not the one in which the edit is drawn. */
        await afterPaint();
        const { document, set } = store.getState();
        const checked = await send(document).catch((error: unknown) => ({
          problem: error instanceof Error ? error.message : String(error),
        }));
        if ('view' in checked) {
          view = takeViewStep(view, checked.view);
          set({ design: { ...view, document }, designProblem: undefined, ...askers });
        } else {
          set({ designProblem: 'problem' in checked ? checked.problem : 'the step was not taken' });
          break;
        }
      }
      busy = false;
      void tryOut();
      void findKey();
    };
    /** Whether a proof still holds is looked up where there is one. */
    const findKey = async () => {
      const { proved, provedFailing, design, document } = store.getState();
      const asked = [proved, provedFailing].some((one) => one && one.of !== document);
      if (!asked || !design || design.document !== document || design.key !== undefined) return;
      const key = (await remote.key()) ?? 'none';
      const now = store.getState();
      if (now.design === design) now.set({ design: { ...design, key } });
    };
    const tryOut = async () => {
      const { trial, stage, design, set } = store.getState();
      if (stage.knows !== 'trial' || design?.document !== store.getState().document) return;
      const tried = await remote.tryOut(trial);
      if (store.getState().trial === trial) set({ tried: { ...tried, document: design.document } });
    };
    void check();
    const stop = store.subscribe((state, before) => {
      if (state.document !== before.document) void check();
      else if (state.proved !== before.proved || state.provedFailing !== before.provedFailing) void findKey();
      else if (state.trial !== before.trial || state.stage !== before.stage) void tryOut();
    });
    return () => {
      stop();
      worker.terminate();
    };
  }, [store]);
}
