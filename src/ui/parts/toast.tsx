'use client';
import { X } from 'lucide-react';
import { Toast } from 'radix-ui';

/** A short notice at the foot that goes by itself, with a way to take back what it tells. */
export function Notices({
  notice,
  altText = 'Undo it by Ctrl+Z',
  onUndo,
  onGone,
}: {
  notice: { key: number; says: string } | undefined;
  /** What undoes it otherwise, once the notice has gone. */
  altText?: string;
  onUndo: () => void;
  onGone: () => void;
}) {
  return (
    <Toast.Provider duration={8000} swipeDirection="down" label="Notice">
      {notice && (
        <Toast.Root
          key={notice.key}
          onOpenChange={(open) => !open && onGone()}
          className="flex items-center gap-3 rounded-md border border-edge bg-raised px-3 py-2 text-ink shadow-lg"
        >
          <Toast.Description>{notice.says}</Toast.Description>
          <Toast.Action altText={altText} className="button" onClick={onUndo}>
            Undo
          </Toast.Action>
          <Toast.Close aria-label="Close the notice" className="cursor-pointer rounded-sm p-0.5 text-ink2">
            <X size={14} aria-hidden />
          </Toast.Close>
        </Toast.Root>
      )}
      <Toast.Viewport className="zoomed fixed bottom-12 left-1/2 z-40 -translate-x-1/2" />
    </Toast.Provider>
  );
}
