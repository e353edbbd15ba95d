'use client';
import { type Remote, wrap } from 'comlink';
import { useEffect } from 'react';
import type { DesignWorker } from '@/workers/design.worker';
import { useWorkbenchStore } from './store';

/** Keeps the compiled design in step with the document, in a worker; one check at a time, always of the newest. */
export function useDesign(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/design.worker.ts', import.meta.url), { type: 'module' });
    const remote: Remote<DesignWorker> = wrap<DesignWorker>(worker);
    let busy = false;
    const check = async () => {
      if (busy) return;
      busy = true;
      for (;;) {
        const { document, trial } = store.getState();
        const { view, values } = await remote.check(document, trial);
        const now = store.getState();
        now.set({ design: { ...view, document }, trialValues: values });
        if (store.getState().document === document) break;
      }
      busy = false;
    };
    const tryOut = async () => {
      const { trial, document, design } = store.getState();
      if (document !== design?.document) return;
      const values = await remote.tryOut(trial);
      const now = store.getState();
      if (now.trial === trial) now.set({ trialValues: values });
    };
    void check();
    const stop = store.subscribe((state, before) => {
      if (state.document !== before.document) void check();
      else if (state.trial !== before.trial) void tryOut();
    });
    return () => {
      stop();
      worker.terminate();
    };
  }, [store]);
}
