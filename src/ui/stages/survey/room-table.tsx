'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo } from 'react';
import { type Room, roomForTrains } from '@/core/design';
import { showLength } from '@/core/measure';
import { DataTable } from '@/ui/parts/data-table';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const COLUMN = createColumnHelper<Room>();

/** Which train fits which block and platform, the worst case first; where it is, is shown when a row is pointed at. */
export function RoomTable() {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const rows = useMemo(() => (design ? roomForTrains(design.document, design.blocks) : []), [design]);
  const columns = useMemo(() => {
    if (!design) return [];
    const { shownUnit, trains } = design.document;
    const shown = (length: number) => showLength(length, shownUnit);
    return [
      COLUMN.accessor('name', {
        header: 'Where',
        cell: ({ row: { original } }) => <SelectThing id={original.id}>{original.name}</SelectThing>,
      }),
      COLUMN.accessor('length', {
        header: 'Long',
        cell: ({ getValue }) => <span className="whitespace-nowrap">{shown(getValue())}</span>,
      }),
      ...trains.map(({ id, name }, t) =>
        COLUMN.accessor((room) => room.spare[t]!, {
          id,
          header: name,
          cell: ({ getValue }) => {
            const spare = getValue();
            return spare < 0 ? (
              <strong className="whitespace-nowrap text-fail" title={`${shown(-spare)} too long`}>
                −{shown(-spare)}
                <span className="sr-only"> too long</span>
              </strong>
            ) : (
              <span className="whitespace-nowrap">+{shown(spare)}</span>
            );
          },
        }),
      ),
    ];
  }, [design]);
  if (rows.length === 0) return <p className="text-ink2">Nothing yet: it takes a block or a platform, and a train.</p>;
  return (
    <div className="max-h-80 overflow-auto">
      <DataTable
        label="Which train fits where"
        rows={rows}
        columns={columns}
        rowId={({ id }) => id}
        onPoint={(room) =>
          store.getState().set({
            pointed: room && { line: room.on.line, at: room.on.from, to: room.on.to },
          })
        }
      />
    </div>
  );
}
