import type { ReactNode } from 'react';
import { useWorkbenchStore } from '@/ui/state/store';

/** A name in a table that leads to its thing. */
export function SelectThing({ id, children }: { id: string; children: ReactNode }) {
  const store = useWorkbenchStore();
  return (
    <button
      type="button"
      className="cursor-pointer rounded-sm text-left text-accent hover:bg-accent-tint"
      onClick={() => store.getState().select(id)}
    >
      {children}
    </button>
  );
}
