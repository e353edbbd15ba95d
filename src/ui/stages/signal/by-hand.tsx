'use client';
import { type Signal, signalsOf, systemOf } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { shownTried } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { Posts } from './posts';

/** Trying it by hand: what is set down where, and what every signal shows for it. */
export function ByHand() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const trial = useWorkbench((s) => s.trial);
  const aspects = useWorkbench(shownTried)?.aspects ?? [];
  const signals = signalsOf(document);
  const standing = useWorkbench((s) => s.design?.standing.blocks) ?? [];
  const blocks = useWorkbench((s) => s.design?.blocks);
  const called = (id: string) => blocks?.find((b) => b.id === id)?.name ?? 'a block that is no longer there';
  const empty = trial.occupied.length === 0 && !(trial.trains && standing.length > 0);
  const changed = Object.keys(trial.points).filter((id) => document.turnouts.some((t) => t.id === id));
  const atStop = ({ system }: Signal, s: number) => {
    const stop = systemOf(document, system).aspects[0].id;
    return (aspects[s] ?? stop) === stop;
  };
  return (
    <>
      <p className="text-ink2">
        Try it by hand: select a block and set a <Term word="resistor">resistor axle</Term> down in it, or select a{' '}
        <Term word="turnout">turnout</Term> and throw it. Every signal answers at once, by the same rules that run the
        trains.
      </p>
      <PanelSection title="Set up now">
        <CheckBox
          checked={trial.trains ?? false}
          onChange={(trains) => store.getState().set({ trial: { ...trial, trains } })}
        >
          The trains, where they stand at the start
        </CheckBox>
        {trial.trains && standing.length > 0 && (
          <p className="text-ink2">They are seen in {standing.map(called).join(', ')}.</p>
        )}
        {empty && <p className="text-ink2">All blocks are empty.</p>}
        <ul>
          {trial.occupied.map((block) => (
            <li key={block} className="flex items-center justify-between py-0.5">
              An axle stands in {called(block)}
              <button
                type="button"
                className="button"
                onClick={() =>
                  store.getState().set({ trial: { ...trial, occupied: trial.occupied.filter((b) => b !== block) } })
                }
              >
                Lift it
              </button>
            </li>
          ))}
          {changed.map((id) => (
            <li key={id} className="py-0.5">
              {document.turnouts.find((t) => t.id === id)!.name} lies {trial.points[id]}
            </li>
          ))}
        </ul>
        <Posts />
        {(!empty || changed.length > 0) && (
          <button
            type="button"
            className="button mt-2"
            onClick={() => store.getState().set({ trial: { trains: false, occupied: [], points: {} } })}
          >
            Clear the track
          </button>
        )}
      </PanelSection>
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
    </>
  );
}
