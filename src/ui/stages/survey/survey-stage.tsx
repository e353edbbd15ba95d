'use client';
import { lazy, memo, Suspense, useDeferredValue, useMemo, useRef, useState } from 'react';
import { consistOf } from '@/core/detection';
import { fromMm, showLength, showSpeed } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { Fold } from '@/ui/parts/fold';
import { Panel, PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { AddPanel } from './add-panel';
import { Directions } from './directions';
import { RoomTable } from './room-table';
import { Tentative } from './tentative';
import { TrackPower } from './track-power';
import { TrainForm } from './train-form';
import { WalkLine } from './walk-line';

/** Fetched when it is opened: dragging, tables and spreadsheets weigh more than the stage. */
const RosterWindow = lazy(() => import('./roster/roster-window'));

/** Things are added, measured and named; trains are listed. */
export function SurveyStage() {
  const field = useRef<HTMLInputElement>(null);
  const letters = useMemo(() => ({ w: () => field.current?.focus() }), []);
  return (
    <DesignStage letters={letters} foot={<WalkLine field={field} />}>
      <Panel title="Survey">
        <AddPanel />
        <Tentative />
        <Trains />
        <TrackPower />
        <Directions />
      </Panel>
    </DesignStage>
  );
}

function Trains() {
  return <TrainsOf document={useDeferredValue(useWorkbench((s) => s.document))} />;
}

const TrainsOf = memo(function TrainsOf({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const [roster, setRoster] = useState(false);
  return (
    <PanelSection title={document.trains.length === 1 ? '1 train' : `${document.trains.length} trains`}>
      <ul className="mb-2">
        {document.trains.map((train) => (
          <li key={train.id} className="flex items-center justify-between gap-2 border-b border-hair py-1">
            <button
              type="button"
              className="min-w-0 cursor-pointer rounded-sm text-left hover:bg-accent-tint"
              onClick={() => store.getState().select(train.id)}
            >
              <span className="block truncate font-medium">{train.name}</span>
              <span className="text-ink3">
                {showLength(fromMm(consistOf(document, train).lengthMm), document.shownUnit)},{' '}
                {showSpeed(train.topSpeedKmh, document.shownUnit)}
              </span>
            </button>
            <button
              type="button"
              className="button"
              onClick={() => store.getState().edit({ do: 'delete', id: train.id })}
              aria-label={`Delete ${train.name}`}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="button mb-2" onClick={() => setRoster(true)}>
        Roster and trains …
      </button>
      {roster && (
        <Suspense fallback={null}>
          <RosterWindow onClose={() => setRoster(false)} />
        </Suspense>
      )}
      <Fold title="Add a train">
        <TrainForm />
      </Fold>
      <Fold title="Which train fits where">
        <RoomTable />
      </Fold>
    </PanelSection>
  );
});
