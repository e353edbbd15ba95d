'use client';
import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ReactNode, useState } from 'react';

/** Rows under headers; a header is a button that sorts by its column, up, down, and as they were. */
export function DataTable<T>({
  label,
  rows,
  columns,
  rowId,
  foot,
  filter = '',
  most = Number.POSITIVE_INFINITY,
  onPoint,
}: {
  label: string;
  rows: T[];
  // biome-ignore lint/suspicious/noExplicitAny: what a column reads is its own affair
  columns: ColumnDef<T, any>[];
  rowId: (row: T) => string;
  /** Only rows are shown that have this text in one of their cells. */
  filter?: string;
  /** How many rows are shown; the rest is counted. */
  most?: number;
  /** The row that is pointed at or has the focus, if any. */
  onPoint?: (row: T | undefined) => void;
  /** Rows at the foot, which sorting leaves in place. */
  foot?: ReactNode;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const table = useReactTable({
    data: rows,
    columns,
    getRowId: rowId,
    state: { sorting, globalFilter: filter },
    globalFilterFn: 'includesString',
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const all = table.getRowModel().rows;
  return (
    <table aria-label={label} className="w-full text-left">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="border-b border-line">
            {group.headers.map(({ id, column, getContext }) => {
              const sorted = column.getIsSorted();
              return (
                <th
                  key={id}
                  scope="col"
                  aria-sort={sorted ? (sorted === 'asc' ? 'ascending' : 'descending') : 'none'}
                  className="py-1 pr-3 align-bottom"
                >
                  {column.getCanSort() ? (
                    <button
                      type="button"
                      className="inline-flex cursor-pointer items-center gap-1 rounded-sm text-left hover:bg-accent-tint"
                      onClick={column.getToggleSortingHandler()}
                    >
                      {flexRender(column.columnDef.header, getContext())}
                      {sorted === 'asc' && <ArrowUp size={13} aria-hidden />}
                      {sorted === 'desc' && <ArrowDown size={13} aria-hidden />}
                    </button>
                  ) : (
                    flexRender(column.columnDef.header, getContext())
                  )}
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {all.slice(0, most).map((row) => (
          <tr
            key={row.id}
            className={`border-b border-hair ${onPoint ? 'hover:bg-accent-tint' : ''}`}
            onPointerEnter={onPoint && (() => onPoint(row.original))}
            onPointerLeave={onPoint && (() => onPoint(undefined))}
            onFocus={onPoint && (() => onPoint(row.original))}
            onBlur={onPoint && (() => onPoint(undefined))}
          >
            {row.getVisibleCells().map((cell) => (
              <td key={cell.id} className="py-1 pr-3">
                {flexRender(cell.column.columnDef.cell, cell.getContext())}
              </td>
            ))}
          </tr>
        ))}
        {all.length > most && (
          <tr>
            <td colSpan={columns.length} className="py-1 text-ink2">
              and {all.length - most} more: filter or sort to see them
            </td>
          </tr>
        )}
        {foot}
      </tbody>
    </table>
  );
}
