'use client';
import { HAZARDS } from '@/core/simulation';
import { useWorkbench } from '@/ui/state/store';

/** What is wrong while it lasts, whatever else is looked at: how trains stand, and what signals show. */
export function HazardsNow() {
  const hazards = useWorkbench((s) => s.board?.hazards);
  return (
    <div aria-live="polite">
      {hazards?.map(({ id, of }) => (
        <p key={`${id} ${of.join()}`} className="mb-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {HAZARDS[id].now}: {of.join(', ')}
        </p>
      ))}
    </div>
  );
}
