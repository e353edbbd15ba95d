'use client';
import type { ReactNode } from 'react';
import { Window } from './window';

/** A window with what is printed, looked at beforehand: what can be chosen above it, and a button that prints. */
export function PrintWindow({
  title,
  says,
  choices,
  name,
  sheets,
  onClose,
}: {
  title: string;
  says: string;
  choices: ReactNode;
  /** The name of what is printed. */
  name: string;
  /** The sheets, once to look at and once to print, under different names. */
  sheets: (name: string) => ReactNode;
  onClose: () => void;
}) {
  return (
    <Window wide title={title} says={says} onClose={onClose}>
      <div className="flex flex-wrap items-center gap-4 border-b border-line px-4 py-2">
        {choices}
        <span className="grow" />
        <button type="button" className="button button-main" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <div tabIndex={0} className="on-paper min-h-0 flex-1 overflow-auto bg-sheet p-4">
        {sheets(name)}
      </div>
      <div className="paper-pages on-paper" aria-hidden="true">
        {sheets(`Printed ${name.charAt(0).toLowerCase()}${name.slice(1)}`)}
      </div>
    </Window>
  );
}
