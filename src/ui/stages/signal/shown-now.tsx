'use client';
import { type Signal, signalsOf, systemOf } from '@/core/survey';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { shownTried } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What every signal shows for what is set up by hand. */
export function ShownNow() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const trial = useWorkbench((s) => s.trial);
  const aspects = useWorkbench(shownTried)?.aspects ?? [];
  const standing = useWorkbench((s) => s.design?.standing.blocks) ?? [];
  const signals = signalsOf(document);
  const empty = trial.occupied.length === 0 && !trial.moved && !(trial.trains && standing.length > 0);
  const atStop = ({ system }: Signal, s: number) => {
    const stop = systemOf(document, system).aspects[0].id;
    return (aspects[s] ?? stop) === stop;
  };
  return (
    <PanelSection title="What the signals show">
      {signals.length === 0 && (
        <p className="text-ink2">
          There is no <Term word="signal">signal</Term> yet. Place one at a block’s end in Survey.
        </p>
      )}
      {empty && signals.length > 0 && signals.every(atStop) && (
        <p className="mb-1 text-ink2">Nothing is asked, so all stay at stop.</p>
      )}
      <ul>
        {signals.map((signal, s) => {
          const aspect = aspects[s];
          const system = systemOf(document, signal.system);
          return (
            <li key={signal.id}>
              <button
                type="button"
                className="flex w-full cursor-pointer items-center gap-2 rounded-sm px-1 py-0.5 text-left hover:bg-accent-tint"
                onClick={() => store.getState().select(signal.id)}
              >
                <AspectLamps system={system} aspect={aspectOf(system, aspect)} />
                <span className="grow">{signal.name}</span>
                <span className="text-ink2">{aspect}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </PanelSection>
  );
}
