import type { ReactNode } from 'react';

/** The line above the sheet: what is shown, and its switches. */
export function SheetBar({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="flex min-h-[38px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-sheet px-4 py-1">
      <h1 className="text-[0.95rem] font-semibold">{title}</h1>
      {children}
    </div>
  );
}
