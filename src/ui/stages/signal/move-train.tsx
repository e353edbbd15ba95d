'use client';
import { useEffect } from 'react';
import { fromMm } from '@/core/measure';
import { PanelSection } from '@/ui/reasoning/panel';
import { useTrainPlace } from '@/ui/reasoning/train-place';
import { shownTried } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** One train moved along a line by hand, alone on the layout: every signal answers as it goes. */
export function MoveTrain() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const stands = useWorkbench((s) => shownTried(s)?.moved);
  const blocks = useWorkbench((s) => s.design?.blocks);
  const isMoved = useWorkbench((s) => s.trial.moved !== undefined);
  const place = useTrainPlace(document);
  const { train, line, at = 0, facing = 'up', moved = false } = place ?? {};
  const [trainId, lineId] = [train?.id, line?.id];
  useEffect(() => {
    if (!moved || trainId === undefined || lineId === undefined) return;
    const { trial, set } = store.getState();
    set({ trial: { ...trial, trains: false, moved: { train: trainId, line: lineId, at, facing } } });
  }, [store, moved, trainId, lineId, at, facing]);
  useEffect(() => {
    if (!isMoved || !stands || lineId === undefined) return;
    const besides = stands.body.map((part) => ({
      line: part.line,
      from: fromMm(Math.min(part.from, part.to)),
      to: fromMm(Math.max(part.from, part.to)),
    }));
    store.getState().set({ pointed: { line: lineId, at, besides } });
    return () => store.getState().set({ pointed: undefined });
  }, [store, isMoved, stands, lineId, at]);
  if (!place) return null;
  const called = (id: string) => blocks?.find((b) => b.id === id)?.name;
  return (
    <PanelSection title="Move a train along">
      {place.fields}
      <div className="mt-2 text-ink2" role="status">
        {isMoved &&
          (stands
            ? stands.blocks.length > 0
              ? `It is seen in ${stands.blocks.map(called).join(', ')}.`
              : 'Nothing sees it here.'
            : 'There is not track enough behind its nose here, as the points lie.')}
      </div>
      {isMoved && (
        <button
          type="button"
          className="button mt-2"
          onClick={() => store.getState().set({ trial: { ...store.getState().trial, moved: undefined } })}
        >
          Take it off
        </button>
      )}
    </PanelSection>
  );
}
