'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { VEHICLE_KIND_IDS, VEHICLES, type VehicleKindId } from '@/core/kinds';
import { mmOf, showWeight } from '@/core/measure';
import { newVehicle, ROSTER_COLUMNS, weightSays, writeRoster } from '@/core/roster';
import type { LayoutDocument, Vehicle } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { DataTable } from '@/ui/parts/data-table';
import { saveFile } from '@/ui/parts/save-file';
import { TextField } from '@/ui/parts/text-field';
import { heightOf, VehicleShape } from '@/ui/reasoning/vehicle-shape';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ChangeMany } from './change-many';
import { RosterCell } from './roster-cell';

const MOST_SHOWN = 200;
const COLUMN = createColumnHelper<Vehicle>();
const KINDS = VEHICLE_KIND_IDS.map((value) => ({ value, says: VEHICLES[value].title }));
/** The width of the longest vehicle in the table. */
const PICTURE_PX = 110;

/** Every vehicle in a row; cells are changed in place, several rows at once. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a table, column by column.
export function VehicleTable() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const { vehicles, scale, shownUnit } = document;
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [filter, setFilter] = useState('');
  const [kind, setKind] = useState<VehicleKindId>('wagon');
  const longest = Math.max(1, ...vehicles.map(({ length }) => mmOf(length.tenthUm)));
  const columns = useMemo(
    () => [
      COLUMN.display({
        id: 'chosen',
        header: () => <span className="sr-only">Chosen</span>,
        cell: ({ row: { original } }) => (
          <CheckBox
            checked={chosen.has(original.id)}
            onChange={(on) => setChosen((all) => new Set(on ? [...all, original.id] : without(all, original.id)))}
          >
            <span className="sr-only">Choose {original.name}</span>
          </CheckBox>
        ),
      }),
      COLUMN.display({
        id: 'picture',
        header: () => <span className="sr-only">To scale</span>,
        cell: ({ row: { original } }) => <Picture vehicle={original} scale={scale} longest={longest} />,
      }),
      ...ROSTER_COLUMNS.map((column) =>
        COLUMN.accessor((vehicle) => column.sortsBy?.(vehicle) ?? column.write(vehicle, { scale, shownUnit }), {
          id: column.key,
          header: () => <span title={column.means}>{column.title}</span>,
          cell: ({ row: { original } }) => (
            <>
              <RosterCell column={column} vehicle={original} scale={scale} shownUnit={shownUnit} />
              {column.key === 'grams' && <Guide vehicle={original} scale={scale} shownUnit={shownUnit} />}
            </>
          ),
        }),
      ),
    ],
    [chosen, longest, scale, shownUnit],
  );
  const add = () => {
    const { title } = VEHICLES[kind];
    const names = new Set(vehicles.map(({ name }) => name));
    let n = 1;
    while (names.has(`${title} ${n}`)) n += 1;
    const vehicle = newVehicle(kind, `${title} ${n}`, document);
    store.getState().edit({ do: 'keep vehicles', vehicles: [vehicle], says: `Add ${vehicle.name}` });
  };
  const present = vehicles.filter(({ id }) => chosen.has(id));
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <Choice label="A new one" className="w-44" value={kind} options={KINDS} onChange={setKind} />
        <button type="button" className="button button-main" onClick={add}>
          Add it
        </button>
        <TextField
          label="Show only rows with"
          className="w-48"
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <button
          type="button"
          className="button"
          disabled={vehicles.length === 0}
          onClick={() =>
            saveFile(`${document.name.replaceAll('.', ' ')} roster.csv`, writeRoster(document), 'text/csv')
          }
        >
          Save as a table (CSV)
        </button>
      </div>
      {present.length > 0 && <ChangeMany vehicles={present} onDone={() => setChosen(new Set())} />}
      {vehicles.length === 0 ? (
        <p className="text-ink2">
          No vehicle yet. Add one, or take up a table from a spreadsheet: copied cells, or a CSV file.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto">
          <DataTable
            label="Vehicles"
            rows={vehicles}
            columns={columns}
            rowId={({ id }) => id}
            filter={filter}
            most={MOST_SHOWN}
          />
        </div>
      )}
    </>
  );
}

const without = (all: ReadonlySet<string>, id: string): string[] => [...all].filter((other) => other !== id);

function Picture({ vehicle, scale, longest }: { vehicle: Vehicle; scale: LayoutDocument['scale']; longest: number }) {
  const long = mmOf(vehicle.length.tenthUm);
  const high = heightOf(scale);
  const px = PICTURE_PX / longest;
  return (
    <svg
      aria-hidden
      viewBox={`-1 -1 ${long + 2} ${high + 2}`}
      width={(long + 2) * px}
      height={Math.min(40, (high + 2) * px)}
    >
      <VehicleShape vehicle={vehicle} scale={scale} />
    </svg>
  );
}

function Guide({ vehicle, scale, shownUnit }: { vehicle: Vehicle } & Pick<LayoutDocument, 'scale' | 'shownUnit'>) {
  const says = weightSays(vehicle, { scale, shownUnit });
  if (!says) return null;
  return (
    <span className={`block whitespace-nowrap px-1 ${says.tooLight ? 'text-warn' : 'text-ink3'}`}>
      {says.tooLight ? 'light: ' : ''}guide{' '}
      {showWeight(shownUnit === 'cm' ? Math.round(says.guide) : says.guide, shownUnit)}
    </span>
  );
}
