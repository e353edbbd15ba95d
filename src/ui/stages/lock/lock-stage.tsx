'use client';
import { useState } from 'react';
import type { LockingRow } from '@/core/design';
import { Panel } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { DesignStage } from '../design-stage';
import { LockSummary } from './lock-summary';
import { LockingTable } from './locking-table';
import { RouteReasons } from './route-reasons';
import { useLockingTable } from './use-locking-table';

/** The locking table beneath the sheet; beside them a route, a turnout, or what there is to say of all of them. */
export function LockStage() {
  const store = useWorkbenchStore();
  const found = useLockingTable();
  const rows = found?.rows;
  const [chosen, setChosen] = useState<string>();
  const isFree = useWorkbench((s) => s.selected === undefined);
  const row = isFree ? rows?.find(({ id }) => id === chosen) : undefined;
  const choose = (next: LockingRow | undefined) => {
    setChosen(next?.id);
    store.getState().select(undefined);
    store.getState().set({ routes: next && { route: next.track } });
  };
  return (
    <DesignStage
      lanes={NO_LANES}
      foot={<LockingTable rows={rows} turnouts={found?.turnouts ?? NO_LANES} chosen={row?.id} onChoose={choose} />}
    >
      {rows && row ? (
        <Panel title="Reasoning" subject={`${row.signal.name} → ${row.exit}`} onClose={() => choose(undefined)}>
          <RouteReasons row={row} rows={rows} onChoose={choose} />
        </Panel>
      ) : (
        <Panel title="Lock">
          <LockSummary
            rows={rows}
            checks={found?.checks ?? NO_LANES}
            automatic={found?.automatic ?? NO_LANES}
            onChoose={choose}
          />
        </Panel>
      )}
    </DesignStage>
  );
}

const NO_LANES: [] = [];
