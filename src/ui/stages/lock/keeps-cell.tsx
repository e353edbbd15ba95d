'use client';
import { type KeyboardEvent, useState } from 'react';
import type { LockingRow } from '@/core/design';
import { routeLocking } from '@/core/patterns';
import type { Edit } from '@/core/survey';
import { useWorkbenchStore } from '@/ui/state/store';
import { keepsOf } from './say-row';

const { least, most, option } = routeLocking.options![0]!;

/** What stands there is there to be typed over. */
function begin(input: HTMLInputElement | null): void {
  input?.focus();
  input?.select();
}

/** How long the points of a route stay locked after its signal was put back: typed in its cell; empty, it is as usual again. */
export function KeepsCell({ row }: { row: LockingRow }) {
  const store = useWorkbenchStore();
  const [text, setText] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const { keepsMs, over } = row;
  if (keepsMs === undefined) return <>{keepsOf(row)}</>;
  const points = `the points from ${row.signal.name} to ${row.exit} stay locked`;
  const says = `How long ${points}`;
  if (text === undefined)
    return (
      <button
        type="button"
        title={`${says}: click to change it`}
        aria-label={`${keepsOf(row)}: change how long ${points}`}
        className="cursor-pointer rounded-sm hover:bg-accent-tint"
        onClick={() => setText(String(keepsMs / 1000))}
      >
        {keepsOf(row)}
      </button>
    );
  const stop = () => {
    setText(undefined);
    setProblem(undefined);
  };
  const commit = () => {
    const typed = text.replace(',', '.').replace(/\s*s$/, '').trim();
    const ms = typed === '' ? undefined : Math.round(Number(typed) * 1000);
    if (ms !== undefined && !(ms >= least && ms <= most))
      return setProblem(`Seconds, from ${least / 1000} to ${most / 1000}`);
    if (ms !== keepsMs) {
      const edits = over.map((id) => ({ do: 'set option', id, pattern: routeLocking.id, option, value: ms }) as const);
      const edit: Edit =
        edits.length === 1 ? edits[0]! : { do: 'one after another', edits, says: `Change ${says.toLowerCase()}` };
      const refused = store.getState().attempt(edit);
      if (refused) return setProblem(refused);
    }
    stop();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') stop();
  };
  return (
    <>
      <input
        aria-label={`${says}, in seconds`}
        aria-invalid={problem !== undefined}
        inputMode="decimal"
        className={`field w-14 px-1 py-0 ${problem ? 'border-fail' : ''}`}
        value={text}
        ref={begin}
        onChange={({ target }) => setText(target.value)}
        onKeyDown={onKeyDown}
        onBlur={commit}
      />
      {problem && (
        <span role="alert" className="block text-fail">
          {problem}
        </span>
      )}
    </>
  );
}
