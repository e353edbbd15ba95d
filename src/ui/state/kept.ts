import { useCallback, useEffect, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { useWorkbenchStore } from './store';

/**
 * What somebody has begun to type, under a name of its own: it is there again when its field comes back, after Escape, another stage or another
 * window, for as long as the layout is open. `anew`: begins with `first` whatever was kept.
 */
export function useKept<T>(name: string, first: T, anew = false): [T, (next: T) => void] {
  const { kept } = useWorkbenchStore().getState();
  const [value, setValue] = useState<T>(() => (kept.has(name) && !anew ? (kept.get(name) as T) : first));
  const put = useCallback(
    (next: T) => {
      kept.set(name, next);
      setValue(next);
    },
    [kept, name],
  );
  return [value, put];
}

/** The same of a whole form. */
export function useKeptForm<T extends FieldValues>(name: string, { getValues, reset }: UseFormReturn<T>): void {
  const { kept } = useWorkbenchStore().getState();
  useEffect(() => {
    const typed = kept.get(name) as T | undefined;
    if (typed) reset(typed, { keepDefaultValues: true });
    return () => void kept.set(name, getValues());
  }, [kept, name, getValues, reset]);
}
