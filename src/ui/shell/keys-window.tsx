'use client';
import { CheckBox } from '@/ui/parts/check-box';
import { Window } from '@/ui/parts/window';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { rememberLetters, SHORTCUTS } from './shortcuts';

/** Every key there is, and the switch for single letters. */
export function KeysWindow({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore();
  const keysOn = useWorkbench((s) => s.keysOn);
  return (
    <Window title="Keys" says="Everything can be done without a mouse." onClose={onClose}>
      <div tabIndex={0} className="min-h-0 overflow-y-auto px-4 py-3">
        {SHORTCUTS.map(({ title, letters, keys }) => (
          <section key={title} className="mb-4">
            <h3 className="font-semibold">{title}</h3>
            {letters && (
              <CheckBox
                checked={keysOn}
                onChange={(on) => {
                  rememberLetters(on);
                  store.getState().set({ keysOn: on });
                }}
              >
                Single letters act while the sheet has the focus
              </CheckBox>
            )}
            <dl className={`mt-1 ${letters && !keysOn ? 'opacity-60' : ''}`}>
              {keys.map(([key, says]) => (
                <div key={key} className="flex gap-3 border-b border-hair py-1">
                  <dt className="w-28 shrink-0">
                    <kbd className="key whitespace-pre">{key}</kbd>
                  </dt>
                  <dd>{says}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Window>
  );
}
