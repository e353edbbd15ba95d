'use client';
import { CheckBox } from '@/ui/parts/check-box';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { Posts } from './posts';

/** Trying it by hand: what is set down where. */
export function ByHand() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const trial = useWorkbench((s) => s.trial);
  const standing = useWorkbench((s) => s.design?.standing.blocks) ?? [];
  const blocks = useWorkbench((s) => s.design?.blocks);
  const called = (id: string) => blocks?.find((b) => b.id === id)?.name ?? 'a block that is no longer there';
  const empty = trial.occupied.length === 0 && !(trial.trains && standing.length > 0);
  const changed = Object.keys(trial.points).filter((id) => document.turnouts.some((t) => t.id === id));
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
    </>
  );
}
