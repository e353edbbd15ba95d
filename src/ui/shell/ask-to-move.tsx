'use client';
import { AlertDialog } from 'radix-ui';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Asked before something moves on paper that has been cut, drilled or laid in wood. */
export function AskToMove() {
  const store = useWorkbenchStore();
  const asking = useWorkbench((s) => s.asking);
  if (!asking) return null;
  const { things } = asking;
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && store.getState().answer(false)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="zoomed fixed left-1/2 top-1/2 z-50 max-h-[90%] w-[480px] max-w-[96%] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-edge bg-paper px-4 py-3 text-ink shadow-xl">
          <AlertDialog.Title className="text-[1.05rem] font-bold">Move what is fixed?</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mt-2">
              <ul>
                {things.slice(0, 8).map(({ id, says, since }) => (
                  <li key={id}>
                    {says}: fixed{since ? ` since ${since}` : ''}
                  </li>
                ))}
                {things.length > 8 && <li>and {things.length - 8} more</li>}
              </ul>
              <p className="mt-2 text-ink2">
                It has been cut, drilled or laid. Moving it here moves nothing on the layout: it stays fixed, at the new
                place.
              </p>
            </div>
          </AlertDialog.Description>
          <div className="mt-4 flex gap-2">
            <AlertDialog.Action className="button button-main" onClick={() => store.getState().answer(true)}>
              Move it
            </AlertDialog.Action>
            <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
