'use client';
import { type KeyboardEvent, useState } from 'react';
import { type Finding, isOpen } from '@/core/findings';
import type { Edit } from '@/core/survey';
import { TextField } from '@/ui/parts/text-field';
import { useWorkbenchStore } from '@/ui/state/store';

/** Somebody lives with a finding, and writes why; or does so no longer. */
export function AcceptFinding({ finding }: { finding: Finding<Edit> }) {
  const store = useWorkbenchStore();
  const [why, setWhy] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const { id, severity, says, accepted, saidThen } = finding;
  if (accepted !== undefined)
    return (
      <div className="flex flex-wrap items-baseline gap-x-3 text-ink2">
        <span>
          <span className="font-semibold">Accepted:</span> {accepted}
        </span>
        <button
          type="button"
          className="cursor-pointer rounded-sm text-accent hover:bg-accent-tint"
          onClick={() => store.getState().edit({ do: 'accept no longer', finding: id })}
        >
          Accept it no longer
        </button>
        {saidThen && <span className="basis-full">When that was decided, it said: {saidThen}</span>}
      </div>
    );
  if (!isOpen(finding)) return null;
  if (why === undefined)
    return (
      <button
        type="button"
        className="cursor-pointer rounded-sm text-accent hover:bg-accent-tint"
        onClick={() => setWhy('')}
      >
        Accept it …
      </button>
    );
  const accept = () => setProblem(store.getState().attempt({ do: 'accept', finding: id, severity, says, why }));
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') accept();
    if (event.key === 'Escape') setWhy(undefined);
  };
  return (
    <div className="mt-1 flex flex-wrap items-end gap-2">
      <TextField
        label="It may stay as it is, because"
        className="min-w-[16rem] grow"
        value={why}
        maxLength={300}
        problem={problem}
        autoFocus
        onChange={({ target }) => setWhy(target.value)}
        onKeyDown={onKeyDown}
      />
      <button type="button" className="button" onClick={accept}>
        Accept
      </button>
      <button type="button" className="button" onClick={() => setWhy(undefined)}>
        Cancel
      </button>
    </div>
  );
}
