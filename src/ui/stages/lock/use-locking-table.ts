'use client';
import { useEffect, useState } from 'react';
import type { LockingRow } from '@/core/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** The locking table of the present design; of the one before while that is worked out. What it pointed at is cleared with it. */
export function useLockingTable(): LockingRow[] | undefined {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const ask = useWorkbench((s) => s.lockingTable);
  const [rows, setRows] = useState<LockingRow[]>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another design has another table
  useEffect(() => {
    let wanted = true;
    void ask?.().then((found) => wanted && setRows(found));
    return () => {
      wanted = false;
    };
  }, [ask, design]);
  useEffect(() => () => store.getState().set({ routes: undefined }), [store]);
  return rows;
}
