import type { LockingRow } from '@/core/design';
import { saveFile } from '@/ui/parts/save-file';
import { conflictsOf, flankOf, freeOf, keepsOf, pointsOf, releaseOf } from './say-row';

export const TITLES = [
  'Signal',
  'Leads to',
  'Shows',
  'Points',
  'Must be free',
  'Flank',
  'Not with',
  'Keeps',
  'Lets go when',
];

/** The table as text, cell by cell. */
export const cellsOf = (row: LockingRow, rows: readonly LockingRow[]): string[] => [
  row.signal.name,
  row.exit,
  row.never ? 'never cleared' : row.aspects.join(', '),
  pointsOf(row).join(', '),
  freeOf(row),
  flankOf(row),
  conflictsOf(row, rows)
    .map(({ says }) => says)
    .join(', '),
  keepsOf(row),
  releaseOf(row),
];

/** As comma-separated values (RFC 4180). */
export async function saveTable(layout: string, rows: readonly LockingRow[]): Promise<void> {
  const { default: Papa } = await import('papaparse');
  const text = Papa.unparse([TITLES, ...rows.map((row) => cellsOf(row, rows))]);
  saveFile(`${layout} locking table.csv`, `${text}\r\n`, 'text/csv');
}
