'use client';
import { useEffect, useState } from 'react';
import type { LayoutDocument } from '@/core/survey';
import { useWorkbenchStore } from '@/ui/state/store';

type Ask<Found> = (reached: (share: number) => void) => Promise<Found | undefined>;

/** Something about the layout that is tried when somebody asks, with progress; what was found of another layout counts no longer. */
export function useTried<Found extends object>(
  document: LayoutDocument | undefined,
  ask: Ask<Found> | undefined,
  stop: (() => void) | undefined,
) {
  const store = useWorkbenchStore();
  const [share, setShare] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const [found, setFound] = useState<{ what: Found; of: LayoutDocument }>();
  useEffect(() => () => stop?.(), [stop]);
  /** What was found, where it is still of the layout as it is. */
  const look = async (): Promise<Found | undefined> => {
    if (!ask || !document) return undefined;
    setShare(0);
    setProblem(undefined);
    let what: Found | undefined;
    try {
      what = await ask((reached) => setShare((before) => (before === undefined ? before : reached)));
      if (store.getState().document !== document) what = undefined;
      if (what) setFound({ what, of: document });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
    setShare(undefined);
    return what;
  };
  return { share, problem, found: document && found?.of === document ? found.what : undefined, look };
}
