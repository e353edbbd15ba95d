'use client';
import { type KeyboardEvent, memo, useState } from 'react';
import type { RosterColumn, RosterContext } from '@/core/roster';
import type { Vehicle } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { useWorkbenchStore } from '@/ui/state/store';

/** “4 1/2” is never broken between two lines. */
const inOnePiece = (text: string): string => text.replace(/(\d) (\d+\/\d)/g, '$1\u00a0$2');

/** A text of fewer letters is not broken. */
const SHORT = 12;

/** One cell of the roster: what a column says of a vehicle, changed where it stands. Enter or F2 opens it, Escape leaves it as it was. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one cell in its three states: shown, typed into, refused.
export const RosterCell = memo(function RosterCell({
  column,
  vehicle,
  scale,
  shownUnit,
}: { column: RosterColumn; vehicle: Vehicle } & RosterContext) {
  const store = useWorkbenchStore();
  const [typed, setTyped] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const context = { scale, shownUnit };
  const shown = column.write(vehicle, context);
  const before = column.writeTyped?.(vehicle, context) ?? shown;
  const label = `${column.title} of ${vehicle.name}`;
  const say = (text: string): boolean => {
    const read = column.read(text.trim(), vehicle, context);
    const refused = read.ok
      ? store.getState().attempt({
          do: 'keep vehicles',
          vehicles: [{ ...vehicle, ...read.value }],
          says: `${column.title} of ${vehicle.name}: ${text.trim() || 'none'}`,
        })
      : read.problem;
    setProblem(refused);
    return refused === undefined;
  };
  const told = problem && (
    <p role="alert" className="max-w-56 text-fail">
      {problem}
    </p>
  );
  if (column.choices)
    return (
      <>
        <Choice
          label={label}
          labelled="unseen"
          value={shown}
          options={column.choices.map((value) => ({ value, says: value }))}
          onChange={say}
        />
        {told}
      </>
    );
  const leave = () => {
    if (typed === undefined || typed.trim() === before || say(typed)) setTyped(undefined);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') leave();
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    setTyped(undefined);
    setProblem(undefined);
  };
  if (typed === undefined)
    return (
      <button
        type="button"
        aria-label={`${label}: ${shown || 'none'}`}
        className={`min-h-6 min-w-10 cursor-text rounded-sm px-1 text-left hover:bg-accent-tint ${shown.length < SHORT ? 'whitespace-nowrap' : 'min-w-36'}`}
        onClick={() => setTyped(before)}
        onKeyDown={(event) => event.key === 'F2' && setTyped(before)}
      >
        {shown ? inOnePiece(shown) : <span className="text-ink3">–</span>}
      </button>
    );
  return (
    <>
      <input
        className={`field ${problem ? 'border-fail' : ''}`}
        aria-label={label}
        aria-invalid={problem !== undefined}
        size={Math.max(6, Math.min(40, typed.length + 2))}
        // biome-ignore lint/a11y/noAutofocus: it was opened to be typed into
        autoFocus
        value={typed}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={leave}
        onKeyDown={onKeyDown}
      />
      {told}
    </>
  );
});
