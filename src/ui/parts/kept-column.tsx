'use client';
import { type FormEvent, type ReactNode, useState } from 'react';

/** The left side of a window of kept things: keeps the present one under a name, says what went wrong, and lists the others. */
export function KeptColumn({
  what,
  disabled = false,
  problem,
  onKeep,
  children,
}: {
  /** One word for what is kept. */
  what: string;
  disabled?: boolean;
  problem: string | undefined;
  /** Keeps it; true when it is kept. */
  onKeep: (name: string) => Promise<boolean>;
  children: ReactNode;
}) {
  const [name, setName] = useState('');
  const [unnamed, setUnnamed] = useState(false);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    setUnnamed(!name.trim());
    if (name.trim() && (await onKeep(name))) setName('');
  };
  const shown = unnamed ? `Type a name for this ${what} first.` : problem;
  return (
    <div className="flex w-[330px] shrink-0 flex-col border-r border-line">
      <form onSubmit={keep} className="flex items-end gap-2 border-b border-line px-4 py-3">
        <label className="flex grow flex-col gap-1">
          <span className="text-ink2">Keep the present {what} as</span>
          <input className="field" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
        </label>
        <button type="submit" className="button" disabled={disabled}>
          Keep
        </button>
      </form>
      {shown && (
        <p role="alert" className="mx-4 mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {shown}
        </p>
      )}
      {children}
    </div>
  );
}
