'use client';
import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A button for what takes more with it than one sees: what that is is said first. */
export function AskFirst({
  button,
  title,
  yes,
  no,
  onYes,
  children,
}: {
  button: string;
  title: string;
  yes: string;
  no: string;
  onYes: () => void;
  children: ReactNode;
}) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger className="button">{button}</AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="zoomed fixed left-1/2 top-1/2 z-50 max-h-[90%] w-[480px] max-w-[96%] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-edge bg-paper px-4 py-3 text-ink shadow-xl">
          <AlertDialog.Title className="text-[1.05rem] font-bold">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mt-2">{children}</div>
          </AlertDialog.Description>
          <div className="mt-4 flex gap-2">
            <AlertDialog.Action className="button button-main" onClick={onYes}>
              {yes}
            </AlertDialog.Action>
            <AlertDialog.Cancel className="button">{no}</AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
