'use client';
import { type Remote, wrap } from 'comlink';
import { useEffect } from 'react';
import type { Some, Trial } from '@/core/design';
import type { DivideWishes } from '@/core/divide';
import type { LayoutDocument } from '@/core/survey';
import type { DesignWorker } from '@/workers/design.worker';
import { afterPaint } from './after-paint';
import { useWorkbenchStore } from './store';

/** The fields that are others than before: an edit leaves those that it does not touch as they are. */
function changedFields(before: LayoutDocument | undefined, now: LayoutDocument): Partial<LayoutDocument> {
  const fields = Object.entries(now).filter(([field, value]) => before?.[field as keyof LayoutDocument] !== value);
  return Object.fromEntries(fields);
}

/**
 * Keeps the compiled design in step with the document, in a worker; one check at a time, always of the newest. What is tried
 * by hand follows where it is shown.
 */
export function useDesign(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/design.worker.ts', import.meta.url), { type: 'module' });
    const remote: Remote<DesignWorker> = wrap<DesignWorker>(worker);
    /** Nothing can be asked before there is a design to ask about. */
    const askers = {
      explainTrial: (rule: string) => remote.explain(rule),
      failsOf: (points: Trial['points'], some: Some) => remote.fails(points, some),
      matrixOf: (points: Trial['points'], some: Some) => remote.matrix(points, some),
      lookUpSignal: (id: string) => remote.signal(id),
      rulesAbout: (id: string) => remote.rulesAbout(id),
      readRules: (id: string, text: string) => remote.readRules(id, text),
      valuesAbout: (id: string) => remote.valuesAbout(id),
      textAbout: (id: string) => remote.textAbout(id),
      seeEverywhere: () => remote.seeEverywhere(),
      seeWith: (count: number) => remote.seeWith(count),
      proposeSignals: () => remote.proposeSignals(),
      figuresOf: (of: LayoutDocument) => remote.figuresOf(of),
      suggest: (wishes: DivideWishes) => remote.suggest(wishes),
      readText: (text: string) => remote.readText(text),
    };
    let busy = false;
    let sent: LayoutDocument | undefined;
    const check = async () => {
      if (busy) return;
      busy = true;
      while (sent !== store.getState().document) {
        /** Copying what has changed takes a moment: not the one in which the edit is drawn. */
        await afterPaint();
        const { document, set } = store.getState();
        const changed = changedFields(sent, document);
        sent = document;
        const design = await remote.check(changed);
        set({ design: { ...design, document }, ...askers });
      }
      busy = false;
      void tryOut();
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
      else if (state.trial !== before.trial || state.stage !== before.stage) void tryOut();
    });
    return () => {
      stop();
      worker.terminate();
    };
  }, [store]);
}
