'use client';
import { useEffect, useState } from 'react';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import type { Locking } from '@/workers/design.worker';

/** The locking table of the present design; of the one before while that is worked out. What it pointed at is cleared with it. */
export function useLockingTable(): Locking | undefined {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const ask = useWorkbench((s) => s.lockingTable);
  const [found, setFound] = useState<Locking>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another design has another table
  useEffect(() => {
    let wanted = true;
    void ask?.().then((now) => wanted && setFound(now));
    return () => {
      wanted = false;
    };
  }, [ask, design]);
  useEffect(() => () => store.getState().set({ routes: undefined }), [store]);
  return found;
}
