'use client';
import { HARMS } from '@/core/simulation';
import { useWorkbench } from '@/ui/state/store';

/** What is wrong while it lasts, whatever else is looked at: how trains stand, and what signals show. */
export function HarmsNow() {
  const harms = useWorkbench((s) => s.board?.harms);
  return (
    <div aria-live="polite">
      {harms?.map(({ id, of }) => (
        <p key={`${id} ${of.join()}`} className="mb-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {HARMS[id].now}: {of.join(', ')}
        </p>
      ))}
    </div>
  );
}
