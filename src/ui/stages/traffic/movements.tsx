'use client';
import { showNumber } from '@/core/measure';
import type { Movement } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { CommitText } from '@/ui/parts/commit-text';
import { Fold } from '@/ui/parts/fold';
import { RadioList } from '@/ui/parts/one-of';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const TURNS: { value: Movement['turnsBack']; says: string }[] = [
  { value: 'no', says: 'goes on' },
  { value: 'engine', says: 'its engine runs round it' },
  { value: 'train', says: 'it goes back as it is' },
];

/** Who runs where, and how often: the traffic that is to be protected. */
export function Movements() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const { movements, trains } = document;
  const hourly = movements.reduce((sum, { perHour }) => sum + perHour, 0);
  const add = () =>
    store.getState().edit({
      do: 'add movement',
      movement: {
        train: trains[movements.length % trains.length]!.id,
        from: document.areas[0]?.name ?? 'here',
        to: document.areas[1]?.name ?? 'there',
        facing: 'up',
        perHour: 1,
        turnsBack: 'no',
        notes: '',
      },
    });
  return (
    <PanelSection title="Timetable">
      {trains.length === 0 ? (
        <p className="text-ink2">There is no train yet. Survey holds the roster that trains are made of.</p>
      ) : (
        <>
          <p className="text-ink2">
            {movements.length === 0
              ? 'Say which train runs from where to where, and how often.'
              : `${movements.length} ${movements.length === 1 ? 'movement' : 'movements'}, ${showNumber(hourly, 1)} an hour in all.`}
          </p>
          <ul>
            {movements.map((one) => (
              <li key={one.id} className="border-b border-hair">
                <Fold
                  title={
                    <span>
                      {trains.find(({ id }) => id === one.train)?.name}
                      <span className="font-normal text-ink3">
                        {`: ${one.from} to ${one.to}, ${document.directions[one.facing]}, ${showNumber(one.perHour, 1)} an hour`}
                      </span>
                    </span>
                  }
                >
                  <MovementFields movement={one} />
                </Fold>
              </li>
            ))}
          </ul>
          <button type="button" className="button mt-2" onClick={add}>
            Add a movement
          </button>
        </>
      )}
    </PanelSection>
  );
}

function MovementFields({ movement }: { movement: Movement }) {
  const store = useWorkbenchStore();
  const trains = useWorkbench((s) => s.document.trains);
  const directions = useWorkbench((s) => s.document.directions);
  const { id } = movement;
  const attempt = (change: Partial<Omit<Movement, 'id'>>) =>
    store.getState().attempt({ do: 'change movement', id, change });
  const change = (part: Partial<Omit<Movement, 'id'>>) =>
    store.getState().edit({ do: 'change movement', id, change: part });
  return (
    <div className="flex flex-col gap-2 pb-3">
      <Choice
        label="Train"
        value={movement.train}
        options={trains.map((one) => ({ value: one.id, says: one.name }))}
        onChange={(train) => change({ train })}
      />
      <div className="grid grid-cols-2 gap-2">
        <CommitText label="From" value={movement.from} onCommit={(from) => attempt({ from })} />
        <CommitText label="To" value={movement.to} onCommit={(to) => attempt({ to })} />
      </div>
      <RadioList
        inline
        label="Direction"
        value={movement.facing}
        options={[
          { value: 'up', says: directions.up },
          { value: 'down', says: directions.down },
        ]}
        onChange={(facing) => change({ facing })}
      />
      <NumberField
        key={movement.perHour}
        label="How often in an hour"
        value={movement.perHour}
        least={0.1}
        most={60}
        unit="times"
        onCommit={(perHour) => change({ perHour })}
      />
      <Choice
        label="Having come there"
        value={movement.turnsBack}
        options={TURNS}
        onChange={(turnsBack) => change({ turnsBack })}
      />
      <button type="button" className="button self-start" onClick={() => store.getState().edit({ do: 'delete', id })}>
        Delete this movement
      </button>
    </div>
  );
}
