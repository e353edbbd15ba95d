'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo } from 'react';
import type { TrackTurnout } from '@/core/design';
import { divergingHeld } from '@/core/patterns';
import { signalsOf, systemOf } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { DataTable } from '@/ui/parts/data-table';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useEdit } from '@/ui/reasoning/selection-parts';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { useWorkbench } from '@/ui/state/store';

const COLUMN = createColumnHelper<TrackTurnout>();

/** The turnouts that each track meets, signal by signal: what is shown for either position, for somebody to check. */
export function TrackTurnouts({ turnouts, filter }: { turnouts: TrackTurnout[]; filter: string }) {
  const columns = useColumns();
  if (turnouts.length === 0) return <p className="py-3 text-ink2">No signal leads over a turnout.</p>;
  return (
    <DataTable
      label="Turnouts on each track"
      rows={turnouts}
      columns={columns}
      rowId={({ id }) => id}
      filter={filter}
    />
  );
}

function useColumns() {
  const document = useWorkbench((s) => s.document);
  const edit = useEdit();
  return useMemo(() => {
    const systems = new Map(signalsOf(document).map(({ id, system }) => [id, systemOf(document, system)]));
    const lamps = (aspects: readonly string[], signal: string) => {
      const system = systems.get(signal);
      if (aspects.length === 0) return <span className="text-ink2">always stop</span>;
      return (
        <span className="flex" title={aspects.join(', ')}>
          {system && aspects.map((id) => <AspectLamps key={id} system={system} aspect={aspectOf(system, id)} />)}
          <span className="sr-only">{aspects.join(', ')}</span>
        </span>
      );
    };
    const words = (aspects: readonly string[]) => (aspects.length === 0 ? 'always stop' : aspects.join(', '));
    return [
      COLUMN.accessor(({ track, read }) => `${track.name}, ${read}`, { id: 'track', header: 'Track' }),
      COLUMN.accessor(({ signal }) => signal.name, {
        id: 'signal',
        header: 'Signal',
        cell: ({ row: { original } }) => <SelectThing id={original.signal.id}>{original.signal.name}</SelectThing>,
      }),
      COLUMN.accessor(({ motor }) => motor.name, {
        id: 'turnout',
        header: 'Turnout',
        cell: ({ row: { original } }) => (
          <>
            <SelectThing id={original.motor.id.split(':')[0]!}>{original.motor.name}</SelectThing>
            {original.together.length > 0 && (
              <span className="text-ink2"> throws with {original.together.join(' and ')}</span>
            )}
          </>
        ),
      }),
      COLUMN.accessor(({ facing }) => (facing ? 'facing' : 'trailing'), { id: 'met', header: 'Met' }),
      COLUMN.accessor(({ shows }) => words(shows.straight), {
        id: 'straight',
        header: 'Lies straight',
        cell: ({ row: { original } }) => lamps(original.shows.straight, original.signal.id),
      }),
      COLUMN.accessor(({ shows }) => words(shows.diverging), {
        id: 'diverging',
        header: 'Lies diverging',
        cell: ({ row: { original } }) => lamps(original.shows.diverging, original.signal.id),
      }),
      COLUMN.display({
        id: 'held',
        header: 'Aside',
        cell: ({ row: { original } }) =>
          original.facing && (
            <CheckBox
              checked={original.held}
              onChange={(on) => edit({ do: 'use pattern', id: original.signal.id, pattern: divergingHeld.id, on })}
            >
              hold whatever leads aside<span className="sr-only"> at {original.signal.name}</span>
            </CheckBox>
          ),
      }),
    ];
  }, [document, edit]);
}
