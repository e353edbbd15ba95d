import { X } from 'lucide-react';
import type { ReactNode } from 'react';

/** The panel on the right: what is selected, why it is so, and what can be done. */
export function Panel({
  title,
  subject,
  onClose,
  children,
}: {
  title: string;
  subject?: string;
  onClose?: () => void;
  children: ReactNode;
}) {
  return (
    <aside aria-label={title} className="isolate flex w-[302px] shrink-0 flex-col border-l border-line bg-paper">
      <div className="flex h-[38px] shrink-0 items-center justify-between border-b border-line px-4">
        <h2 className="text-[0.9rem] font-semibold">{title}</h2>
        <span className="flex items-center gap-2 text-ink3">
          {subject}
          {onClose && (
            <button
              type="button"
              className="cursor-pointer rounded-sm p-0.5 text-ink2"
              onClick={onClose}
              aria-label="Close the selection"
            >
              <X size={15} aria-hidden />
            </button>
          )}
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">{children}</div>
    </aside>
  );
}

export function PanelSection({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-4 border-t border-line pt-3 first:mt-0 first:border-t-0 first:pt-0">
      <h3 className="mb-1.5 text-[0.9rem] font-semibold">{title}</h3>
      {children}
    </section>
  );
}

export function PanelTitle({ children }: { children: ReactNode }) {
  return <p className="mb-1 text-[1.15rem] font-bold leading-6">{children}</p>;
}
