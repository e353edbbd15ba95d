'use client';
import type { DistrictView } from '@/core/design';
import { TRACK_POWER_IDS, TRACK_POWERS } from '@/core/kinds';
import { showLength } from '@/core/measure';
import { Caution } from '@/ui/parts/caution';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { DeleteButton, Rename } from '@/ui/reasoning/selection-parts';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const POWERS = TRACK_POWER_IDS.map((value) => ({ value, says: TRACK_POWERS[value].says }));
const NONE: readonly DistrictView[] = [];

/** How trains get their current: it decides what can be noticed, whether rails can meet the wrong way round, and which booster feeds what. */
export function TrackPower() {
  const store = useWorkbenchStore();
  const power = useWorkbench((s) => s.document.power);
  const ownReturns = useWorkbench((s) => s.document.ownReturns);
  const districts = useWorkbench((s) => s.design?.districts ?? NONE);
  const { edit } = store.getState();
  return (
    <PanelSection title="Power">
      <Choice
        label="Trains run on"
        value={power}
        options={POWERS}
        onChange={(next) => edit({ do: 'set power', power: next, ownReturns })}
      />
      {TRACK_POWERS[power].inTrack && (
        <>
          <p className="mt-2 text-ink2">
            {districts.length === 0 ? (
              <>
                Several <Term word="booster">boosters</Term>? Enter the feeders, and at each say from which it is led:
                “feeder 96 booster East”.
              </>
            ) : (
              <>Each booster with its district:</>
            )}
          </p>
          <ul>
            {districts.map((district) => (
              <District key={district.booster.id} district={district} />
            ))}
          </ul>
          {(districts.length > 1 || ownReturns) && (
            <>
              <CheckBox
                checked={ownReturns ?? false}
                onChange={(on) => edit({ do: 'set power', power, ownReturns: on ? true : undefined })}
              >
                They share no return: gaps between them cut both rails
              </CheckBox>
              <Caution work="supplies" />
            </>
          )}
        </>
      )}
    </PanelSection>
  );
}

/** What one booster feeds; where that is, is shown when it is pointed at, and its feeders are chosen by a click. */
function District({ district: { booster, feeders, pieces, length } }: { district: DistrictView }) {
  const store = useWorkbenchStore();
  const unit = useWorkbench((s) => s.document.shownUnit);
  const [first, ...besides] = pieces;
  const point = () =>
    store.getState().set({
      pointed: first && { line: first.line, at: first.from, to: first.to, besides, says: booster.name },
    });
  const leave = () => store.getState().set({ pointed: undefined });
  return (
    <li className="border-b border-hair py-1">
      <button
        type="button"
        className="w-full cursor-pointer rounded-sm text-left hover:bg-accent-tint"
        onPointerEnter={point}
        onPointerLeave={leave}
        onFocus={point}
        onBlur={leave}
        onClick={() => {
          leave();
          store.getState().select(feeders[0]);
          for (const other of feeders.slice(1)) store.getState().choose(other);
        }}
      >
        <span className="block truncate font-medium">{booster.name}</span>
        <span className="text-ink3">
          {showLength(length, unit)} of track, {feeders.length === 1 ? '1 feeder' : `${feeders.length} feeders`}
        </span>
      </button>
      <Fold title="Rename or delete it">
        <Rename key={booster.name} name={booster.name} renaming={(name) => ({ do: 'rename', id: booster.id, name })} />
        <DeleteButton id={booster.id} what={booster.name} />
      </Fold>
    </li>
  );
}
