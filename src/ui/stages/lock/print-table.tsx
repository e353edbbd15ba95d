'use client';
import type { LockingRow } from '@/core/design';
import { PrintWindow } from '@/ui/parts/print-window';
import { useWorkbench } from '@/ui/state/store';
import { cellsOf, TITLES } from './save-table';

/** The locking table on paper. */
export function PrintTable({ rows, onClose }: { rows: readonly LockingRow[]; onClose: () => void }) {
  const name = useWorkbench((s) => s.document.name);
  return (
    <PrintWindow
      title="Locking table"
      says="Lay the paper across. N is straight, R diverging."
      choices={<output className="text-ink2">{rows.length} routes</output>}
      name="Locking table"
      sheets={(title) => (
        <table aria-label={title} className="w-full border-collapse text-left text-[11px]">
          <caption className="pb-2 text-left text-[13px] font-bold">{name}: locking table</caption>
          <thead>
            <tr>
              {TITLES.map((one) => (
                <th key={one} scope="col" className="border border-edge px-1.5 py-1 align-bottom">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id} className="break-inside-avoid">
                {cellsOf(row, rows).map((cell, i) => (
                  <td key={i} className={`border border-edge px-1.5 py-0.5 align-top ${i < 2 ? 'font-semibold' : ''}`}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      onClose={onClose}
    />
  );
}
