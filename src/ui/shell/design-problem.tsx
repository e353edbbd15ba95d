'use client';
import { CircleAlert } from 'lucide-react';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What is shown is not of the present layout, since that could not be worked out: why, and the way back. */
export function DesignProblem() {
  const store = useWorkbenchStore();
  const problem = useWorkbench((s) => s.designProblem);
  const last = useWorkbench((s) => s.past[s.past.length - 1]?.says);
  if (problem === undefined) return null;
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line bg-fail-tint px-4 py-1.5 text-fail"
    >
      <CircleAlert size={15} aria-hidden className="shrink-0" />
      <p className="min-w-0 flex-1">
        Blocks, rules and findings could not be worked out of the layout as it is now ({problem}). What is shown of them
        is of before. Your edits are kept.
      </p>
      {last !== undefined && (
        <button type="button" className="button" onClick={() => store.getState().undo()}>
          Undo: {last}
        </button>
      )}
    </div>
  );
}
