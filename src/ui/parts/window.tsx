'use client';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { type ReactNode, useState } from 'react';

/** A window over the workbench: a title, a way out, and room. Focus stays inside; Escape closes it where it may be closed. */
export function Window({
  title,
  says,
  wide = false,
  onClose,
  children,
}: {
  title: string;
  says: string;
  wide?: boolean;
  /** Absent when a choice has to be made first. */
  onClose?: () => void;
  children: ReactNode;
}) {
  /** Where the focus goes back to. */
  const [before] = useState(() => (typeof document === 'undefined' ? null : document.activeElement));
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose?.()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          className={`zoomed fixed left-1/2 top-1/2 z-50 flex max-h-[94%] -translate-x-1/2 -translate-y-1/2 flex-col rounded-lg border border-edge bg-paper text-ink shadow-xl ${wide ? 'w-[96%]' : 'w-[560px] max-w-[96%]'}`}
          onInteractOutside={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (before instanceof HTMLElement || before instanceof SVGElement) before.focus();
          }}
        >
          <div className="flex shrink-0 items-start justify-between gap-4 border-b border-line px-4 py-3">
            <div>
              <Dialog.Title className="text-[1.05rem] font-bold">{title}</Dialog.Title>
              <Dialog.Description className="mt-0.5 text-ink2">{says}</Dialog.Description>
            </div>
            {onClose && (
              <Dialog.Close className="button px-1.5" aria-label="Close">
                <X size={15} aria-hidden />
              </Dialog.Close>
            )}
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
