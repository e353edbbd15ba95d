'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import type { LockingRow, TrackTurnout } from '@/core/design';
import { signalsOf, systemOf } from '@/core/survey';
import { DataTable } from '@/ui/parts/data-table';
import { OneOf } from '@/ui/parts/one-of';
import { Term } from '@/ui/parts/term';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ByItself } from './by-itself';
import { KeepsCell } from './keeps-cell';
import { PrintTable } from './print-table';
import { saveTable } from './save-table';
import { conflictsOf, flankOf, freeOf, pointsOf, releaseOf, routeOf } from './say-row';
import { TrackTurnouts } from './track-turnouts';

const ROWS = [
  { value: 'routes', says: 'Routes' },
  { value: 'turnouts', says: 'Turnouts' },
  { value: 'by itself', says: 'By itself' },
] as const;
const COLUMN = createColumnHelper<LockingRow>();

/** Every route beneath the sheet: what it needs, what it excludes, and when it lets go. */
export function LockingTable({
  rows,
  turnouts,
  chosen,
  onChoose,
}: {
  rows: LockingRow[] | undefined;
  turnouts: TrackTurnout[];
  chosen: string | undefined;
  onChoose: (row: LockingRow) => void;
}) {
  const store = useWorkbenchStore();
  const name = useWorkbench((s) => s.document.name);
  const [filter, setFilter] = useState('');
  const [printing, setPrinting] = useState(false);
  const [by, setBy] = useState<(typeof ROWS)[number]['value']>('routes');
  const isCycle = by === 'by itself';
  const columns = useColumns(rows, chosen, onChoose);
  const pointAt = (row: LockingRow | undefined) => {
    const shown = row ?? rows?.find(({ id }) => id === chosen);
    store.getState().set({ routes: shown && { route: shown.track } });
  };
  return (
    <section
      aria-label="Locking table"
      className={`flex min-h-[180px] shrink-0 flex-col border-t border-line bg-sheet ${isCycle ? 'h-[56%]' : 'h-[48%]'}`}
    >
      <div className="flex flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-line px-4 py-1">
        <h2 className="text-[0.95rem] font-semibold">
          {isCycle ? 'By itself' : <Term word="lockingTable">Locking table</Term>}
        </h2>
        <output className="grow text-ink2">
          {isCycle
            ? 'how many trains can run, and the round that they make'
            : rows === undefined
              ? 'Working it out …'
              : `${rows.length} ${rows.length === 1 ? 'route' : 'routes'}; N straight, R diverging`}
        </output>
        <OneOf joined label="What is shown" value={by} options={ROWS} onChange={setBy} />
        {!isCycle && (
          <>
            <input
              type="search"
              aria-label="Only rows with"
              placeholder="Only rows with …"
              className="field w-28"
              value={filter}
              onChange={({ target }) => setFilter(target.value)}
            />
            <button
              type="button"
              className="button"
              disabled={!rows?.length}
              onClick={() => rows && void saveTable(name, rows)}
            >
              Save as CSV
            </button>
            <button type="button" className="button" disabled={!rows?.length} onClick={() => setPrinting(true)}>
              Print …
            </button>
          </>
        )}
      </div>
      <div tabIndex={0} className="min-h-0 flex-1 overflow-auto px-4 text-[0.85rem] leading-[1.15rem]">
        {isCycle ? (
          <ByItself />
        ) : rows?.length === 0 ? (
          <p className="py-3 text-ink2">
            A route begins at a signal. Place one in Signal, and every way that its trains can take has a row here.
          </p>
        ) : by === 'turnouts' ? (
          <TrackTurnouts turnouts={turnouts} filter={filter} />
        ) : (
          <DataTable
            label="Routes"
            rows={rows ?? []}
            columns={columns}
            rowId={({ id }) => id}
            filter={filter}
            onPoint={pointAt}
          />
        )}
      </div>
      {printing && rows && <PrintTable rows={rows} onClose={() => setPrinting(false)} />}
    </section>
  );
}

/** Beside a cell that somebody has changed: a corner, with what was changed. */
function ChangedMark({ says }: { says: string | undefined }) {
  if (says === undefined) return null;
  return (
    <span title={says}>
      <svg width="8" height="8" viewBox="0 0 8 8" className="ml-1 inline-block align-super" aria-hidden="true">
        <path d="M0 0H8V8Z" fill="var(--accent)" />
      </svg>
      <span className="sr-only">, {says}</span>
    </span>
  );
}

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a table, column by column.
function useColumns(rows: LockingRow[] | undefined, chosen: string | undefined, onChoose: (row: LockingRow) => void) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: a table, column by column.
  return useMemo(() => {
    const systems = new Map(signalsOf(document).map(({ id, system }) => [id, systemOf(document, system)]));
    const all = rows ?? [];
    return [
      COLUMN.accessor((row) => routeOf(row), {
        id: 'route',
        header: 'Route',
        cell: ({ row: { original }, getValue }) => (
          <button
            type="button"
            aria-pressed={original.id === chosen}
            className={`cursor-pointer whitespace-nowrap rounded-sm text-left font-semibold hover:bg-accent-tint ${original.id === chosen ? 'bg-accent-tint text-accent' : ''}`}
            onClick={() => onChoose(original)}
          >
            {getValue()}
            <ChangedMark says={original.changed.rules} />
          </button>
        ),
      }),
      COLUMN.accessor(({ aspects }) => aspects.join(', '), {
        id: 'shows',
        header: 'Shows',
        cell: ({ row: { original } }) => {
          const system = systems.get(original.signal.id);
          if (original.never) return <span className="text-warn">never</span>;
          return (
            <span className="flex" title={original.aspects.join(', ')}>
              {system &&
                original.aspects.map((id) => <AspectLamps key={id} system={system} aspect={aspectOf(system, id)} />)}
              <span className="sr-only">{original.aspects.join(', ')}</span>
            </span>
          );
        },
      }),
      COLUMN.accessor((row) => pointsOf(row).join(', '), {
        id: 'points',
        header: 'Points',
        cell: ({ row: { original } }) =>
          pointsOf(original).map((one, i) => (
            <span key={one} className="whitespace-nowrap">
              {one}
              {i + 1 < original.points.length && ', '}
            </span>
          )),
      }),
      COLUMN.accessor((row) => freeOf(row), { id: 'free', header: 'Must be free' }),
      COLUMN.accessor((row) => flankOf(row), {
        id: 'flank',
        header: () => <Term word="flank">Flank</Term>,
        enableSorting: false,
        cell: ({ row: { original }, getValue }) => (
          <span title={original.flank.flatMap(({ guards }) => guards.map(({ says }) => says)).join('. ')}>
            {getValue() || '–'}
          </span>
        ),
      }),
      COLUMN.accessor(
        (row) =>
          conflictsOf(row, all)
            .map(({ says }) => says)
            .join(', '),
        {
          id: 'not',
          header: () => <Term word="conflict">Not with</Term>,
          enableSorting: false,
          cell: ({ row: { original } }) => {
            const cells = conflictsOf(original, all);
            if (cells.length === 0) return '–';
            return cells.map(({ says, rows: others }, i) => {
              const told = original.conflicts.filter(({ row }) => others.includes(row));
              const point = () =>
                store.getState().set({
                  routes: {
                    route: original.track,
                    other: others.flatMap((row) => all[row]!.track),
                    conflict: told.flatMap(({ where }) => where),
                  },
                });
              return (
                <span key={says}>
                  {i > 0 && ', '}
                  <span
                    title={told.map((one) => one.says).join('\n')}
                    className={`whitespace-nowrap ${told.every(({ apart }) => apart) ? '' : 'font-semibold text-warn'}`}
                    onPointerEnter={point}
                    onPointerLeave={() => store.getState().set({ routes: { route: original.track } })}
                  >
                    {says}
                  </span>
                </span>
              );
            });
          },
        },
      ),
      COLUMN.accessor(({ keepsMs }) => keepsMs ?? -1, {
        id: 'keeps',
        header: () => <Term word="approachLocking">Keeps</Term>,
        enableSorting: false,
        cell: ({ row: { original } }) => (
          <>
            <KeepsCell key={original.keepsMs} row={original} />
            <ChangedMark says={original.changed.keeps} />
          </>
        ),
      }),
      COLUMN.accessor((row) => releaseOf(row), {
        id: 'lets go',
        header: 'Lets go when',
        cell: ({ getValue }) => getValue() || '–',
      }),
    ];
  }, [rows, chosen, onChoose, document, store]);
}
