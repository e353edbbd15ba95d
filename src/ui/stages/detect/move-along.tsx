'use client';
import { useEffect, useMemo, useState } from 'react';
import { standsAt, worstOn } from '@/core/design';
import { divideTrack } from '@/core/detection';
import { TRACK_POWERS } from '@/core/kinds';
import { showLength } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { CheckBox } from '@/ui/parts/check-box';
import { PanelSection } from '@/ui/reasoning/panel';
import { STEP, useTrainPlace } from '@/ui/reasoning/train-place';
import { useWorkbenchStore } from '@/ui/state/store';

/** One train moved along a line by hand: what every sensor makes of it there, what of it no block tells, and which points that lets move. */
export function MoveAlong({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const place = useTrainPlace(document);
  const [dead, setDead] = useState(false);
  const { train, line, at = 0, facing = 'up', moved: shown = false } = place ?? {};
  const [lineId, trainId] = [line?.id, train?.id];
  const partition = useMemo(() => divideTrack(document, compileTrack(document)), [document]);
  const found = useMemo(() => {
    const one = document.trains.find((other) => other.id === trainId);
    return one && lineId && standsAt(document, partition, one, { line: lineId, at, facing }, dead);
  }, [document, partition, trainId, lineId, at, facing, dead]);
  /** It is shown on the sheet once it is moved, and for as long as this is looked at. */
  useEffect(() => {
    if (!shown || !found || lineId === undefined) return;
    store.getState().set({ pointed: { line: lineId, at, besides: found.on, danger: found.hidden } });
    return () => store.getState().set({ pointed: undefined });
  }, [store, shown, found, lineId, at]);
  if (!place || !train || !line) return null;
  const says = (length: number) => showLength(length, document.shownUnit);
  const named = (ids: readonly string[]) =>
    ids
      .map(
        (one) =>
          [...document.sensors, ...document.turnouts, ...document.crossings].find((thing) => thing.id === one)?.name,
      )
      .join(', ');
  const worst = () => {
    const found = worstOn(document, partition, train, line.id, facing, STEP);
    if (found) place.moveTo(found.at);
  };
  return (
    <PanelSection title="Move a train along">
      {place.fields}
      {TRACK_POWERS[document.power].inTrack && (
        <CheckBox checked={dead} onChange={setDead}>
          with no power in the track under it
        </CheckBox>
      )}
      <div className="mt-2" role="status">
        {!found ? (
          <p className="text-ink2">There is not track enough behind its nose here, as the points lie.</p>
        ) : (
          <>
            <p>
              {found.sensors.length === 0 ? (
                <strong className="text-fail">No sensor notices it.</strong>
              ) : (
                <>
                  Noticed by <strong>{named(found.sensors)}</strong>.
                </>
              )}
            </p>
            {found.occupied.length > 0 && <p>Occupied: {found.occupied.join(', ')}.</p>}
            {found.free.length > 0 && (
              <p className="text-fail">
                {says(found.hidden.reduce((sum, { from, to }) => sum + to - from, 0))} of it stands in{' '}
                {found.free.join(', ')}, which {found.free.length === 1 ? 'reads' : 'read'} free.
                {found.points.length > 0 && ` Nothing keeps ${named(found.points)} from being thrown under it.`}
              </p>
            )}
            {found.free.length === 0 && <p className="text-ink2">Every block that a part of it stands in says so.</p>}
          </>
        )}
      </div>
      <button type="button" className="button mt-2" onClick={worst}>
        Where most of it is hidden
      </button>
    </PanelSection>
  );
}
