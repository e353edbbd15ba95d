'use client';
import type { LockingRow } from '@/core/design';
import { flankProtection, names } from '@/core/patterns';
import { CheckBox } from '@/ui/parts/check-box';
import { Fold } from '@/ui/parts/fold';
import { Term } from '@/ui/parts/term';
import { Answer } from '@/ui/reasoning/answer';
import { PanelSection, PanelTitle } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useEdit } from '@/ui/reasoning/selection-parts';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { isGuarded, keepsOf, routeOf } from './say-row';

/** One route in plain words: what clears its signal, what must stay at stop meanwhile, and when its points may move again. */
export function RouteReasons({
  row,
  rows,
  onChoose,
}: {
  row: LockingRow;
  rows: readonly LockingRow[];
  onChoose: (row: LockingRow) => void;
}) {
  const { signal, exit, points, beside, free, overlap, also, besides, never } = row;
  const leads = row.id.slice(signal.id.length + 1);
  return (
    <>
      <PanelTitle>
        {signal.name} to {exit}
      </PanelTitle>
      <p className="text-ink2">{ENDINGS[row.ending]}</p>
      {row.commanded && <SetByHand row={row} />}
      <PanelSection title="Now, as the trains stand">
        <Answer
          rule={names.go({ reading: { signal }, id: leads })}
          otherwise={<p className="text-ink2">Working it out …</p>}
        />
      </PanelSection>
      <PanelSection title={never ? 'It is never cleared' : `${signal.name} is cleared once`}>
        {never ? (
          <p className="text-ink2">By its rules as they stand nothing can clear {signal.name} for this route.</p>
        ) : (
          <ul className="list-disc pl-4 text-ink2">
            {points.map(({ motor, name, position, assumed, byHand }) => (
              <li key={motor}>
                <SelectThing id={motor}>{name}</SelectThing> {assumed ? 'counts as lying' : 'is proved to lie'}{' '}
                {position}
                {assumed && ': no contact tells'}
                {byHand && '; a person throws it'}
              </li>
            ))}
            {beside.map(({ motor, name, position, assumed }) => (
              <li key={motor}>
                <SelectThing id={motor}>{name}</SelectThing>, beside it,{' '}
                {assumed ? 'counts as lying' : 'is proved to lie'} {position}
              </li>
            ))}
            {free.map(({ id, name }) => (
              <li key={id}>
                <SelectThing id={id}>{name}</SelectThing> reads free
              </li>
            ))}
            {overlap.map(({ id, name }) => (
              <li key={id}>
                <SelectThing id={id}>{name}</SelectThing>, beyond {exit}, reads free: the{' '}
                <Term word="overlap">overlap</Term>
              </li>
            ))}
            {also.map((says) => (
              <li key={says}>{says}</li>
            ))}
            {besides.map((says) => (
              <li key={says}>or else, whatever stands there: {says}</li>
            ))}
          </ul>
        )}
      </PanelSection>
      <FlankOf row={row} />
      <ConflictsOf row={row} rows={rows} onChoose={onChoose} />
      <PanelSection title="When its points may move again">
        {row.release.length === 0 ? (
          <p className="text-ink2">There are no points on it.</p>
        ) : (
          <ul className="list-disc pl-4 text-ink2">
            {row.release.map(({ motor, name, blocks, arrival }) => (
              <li key={motor}>
                <SelectThing id={motor}>{name}</SelectThing>{' '}
                {blocks.length === 0
                  ? 'is held by no block'
                  : `once ${blocks.join(' and ')} ${blocks.length === 1 ? 'reads' : 'read'} free`}
                {arrival !== undefined && `, and the nose of the train has come to ${arrival}`}
              </li>
            ))}
            {row.keepsMs !== undefined && (
              <li>
                and no sooner than {keepsOf(row)} after {signal.name} went back to stop
              </li>
            )}
          </ul>
        )}
      </PanelSection>
    </>
  );
}

/** Somebody sets the route, by hand, with the points as they are thrown here. */
function SetByHand({ row }: { row: LockingRow }) {
  const store = useWorkbenchStore();
  const set = useWorkbench((s) => s.trial.set) ?? NONE;
  const isSet = set.includes(row.id);
  const change = (on: boolean) => {
    const { trial, set: put } = store.getState();
    put({ trial: { ...trial, set: on ? [...set, row.id] : set.filter((one) => one !== row.id) } });
  };
  return (
    <div className="mt-2">
      <CheckBox checked={isSet} onChange={change}>
        Somebody sets it
      </CheckBox>
    </div>
  );
}
const NONE: readonly string[] = [];

const ENDINGS: Record<LockingRow['ending'], string> = {
  signal: 'It leads to the next signal.',
  'end of track': 'It leads to the end of the track.',
  'end of detection': 'It leads into track that nothing watches: whether that is free, no rule can tell.',
  circle: 'It comes back to itself without a signal.',
};

function FlankOf({ row: { flank } }: { row: LockingRow }) {
  const store = useWorkbenchStore();
  if (flank.length === 0) return null;
  return (
    <PanelSection title="What comes from the side">
      <ul className="list-disc pl-4 text-ink2">
        {flank.flatMap(({ at, guards }, i) =>
          guards.map(({ by, about, says }, k) => (
            <li key={`${i} ${k}`} className={isGuarded(by) ? '' : 'text-warn'}>
              {about ? (
                <button
                  type="button"
                  className="cursor-pointer text-left align-top underline decoration-dotted"
                  onClick={() => store.getState().select(about)}
                >
                  {says}
                </button>
              ) : (
                says
              )}
              <span className="sr-only"> at {at.name}</span>
              {about && by !== 'signal' && <Guards motor={about} on={by === 'points'} />}
            </li>
          )),
        )}
      </ul>
    </PanelSection>
  );
}

/** Lets points guard the routes beside them, or no longer. */
function Guards({ motor, on }: { motor: string; on: boolean }) {
  const edit = useEdit();
  const points = useWorkbench((s) =>
    [...s.document.turnouts, ...s.document.crossings].find(({ id }) => motor === id || motor.startsWith(`${id}:`)),
  );
  if (!points) return null;
  return (
    <button
      type="button"
      className="button my-1 block py-0.5"
      onClick={() => edit({ do: 'use pattern', id: points.id, pattern: flankProtection.id, on: !on })}
    >
      {on ? `${points.name} need not guard` : `Let ${points.name} guard the routes beside it`}
    </button>
  );
}

function ConflictsOf({
  row,
  rows,
  onChoose,
}: {
  row: LockingRow;
  rows: readonly LockingRow[];
  onChoose: (row: LockingRow) => void;
}) {
  const store = useWorkbenchStore();
  const { conflicts, track } = row;
  if (conflicts.length === 0) return null;
  const loose = conflicts.filter(({ apart }) => !apart);
  return (
    <PanelSection title="Not with">
      <p className="text-ink2">
        {loose.length === 0
          ? 'The rules as they stand cannot clear any of these while it is cleared.'
          : `Of ${loose.length} of these the rules alone do not say so at a glance (marked): Prove looks whether both can be cleared.`}
      </p>
      <Fold title={`${conflicts.length} ${conflicts.length === 1 ? 'route' : 'routes'}`} open>
        <ul className="flex flex-col gap-1.5">
          {conflicts.map(({ row: nth, says, apart, where }) => {
            const other = rows[nth]!;
            const point = () => store.getState().set({ routes: { route: track, other: other.track, conflict: where } });
            const leave = () => store.getState().set({ routes: { route: track } });
            return (
              <li key={other.id} onPointerEnter={point} onPointerLeave={leave} onFocus={point} onBlur={leave}>
                <button
                  type="button"
                  className={`cursor-pointer font-semibold hover:bg-accent-tint ${apart ? '' : 'text-warn'}`}
                  onClick={() => onChoose(other)}
                >
                  {routeOf(other)}
                </button>
                <span className="block text-ink2">{says}</span>
              </li>
            );
          })}
        </ul>
      </Fold>
    </PanelSection>
  );
}
