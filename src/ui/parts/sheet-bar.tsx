import type { ReactNode } from 'react';

/** The line above the sheet: what is shown, and its switches. */
export function SheetBar({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="@container shrink-0 border-b border-line bg-sheet">
      <div className="flex min-h-[37px] flex-wrap items-center gap-x-4 gap-y-1 px-4 py-1">
        <h1 className="text-[0.95rem] font-semibold @max-lg:sr-only">{title}</h1>
        {children}
      </div>
    </div>
  );
}
