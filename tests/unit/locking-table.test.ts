import { describe, expect, test } from 'vitest';
import { checkDesign, type LockingRow, lockingTable } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import { planned } from '@/demo/plans';
import { JUNCTION, LOOP } from './locking-plans';

/** A row as it is written by hand: points, blocks that must be free, what guards the sides, and the routes it excludes. */
type Written = [points: string, free: string, flank: string, not: string];
const words = (all: readonly string[]) => [...new Set(all)].sort().join(' ');

function tableOf(d: LayoutDocument): Record<string, Written> {
  const rows = lockingTable(checkDesign(d));
  const called = ({ signal, exit }: LockingRow) => `${signal.name}-${exit}`;
  return Object.fromEntries(
    rows.map((row) => [
      called(row),
      [
        words(row.points.map(({ name, position }) => `${name}${position === 'straight' ? '+' : '-'}`)),
        words(row.free.map(({ name }) => name)),
        words(row.flank.flatMap(({ guards }) => guards.map(({ short }) => short))),
        words(row.conflicts.map((conflict) => called(rows[conflict.row]!))),
      ],
    ]),
  );
}
const sorted = (table: Record<string, Written>): Record<string, Written> =>
  Object.fromEntries(
    Object.entries(table).map(([route, cells]) => [route, cells.map((cell) => words(cell.split(' ').filter(Boolean)))]),
  ) as Record<string, Written>;

describe('locking tables of classic plans, worked by hand', () => {
  /** Common practice, no source: points set, their track and the next block free, flank by the signal of the other leg, no two over the same track. */
  test('a passing loop on a single line', () => {
    expect(tableOf(planned({ name: 'Loop', text: LOOP }))).toEqual(
      sorted({
        'A-ME': ['T1+', 'P M', 'LW', 'B-MW MW-W LW-W'],
        'A-LE': ['T1-', 'P L', 'MW', 'B-LW MW-W LW-W'],
        'B-MW': ['T2+', 'Q M', 'LE', 'A-ME ME-E LE-E'],
        'B-LW': ['T2-', 'Q L', 'ME', 'A-LE ME-E LE-E'],
        'ME-E': ['T2+', 'Q E', 'LE', 'B-MW B-LW LE-E'],
        'LE-E': ['T2-', 'Q E', 'ME', 'B-MW B-LW ME-E'],
        'MW-W': ['T1+', 'P W', 'LW', 'A-ME A-LE LW-W'],
        'LW-W': ['T1-', 'P W', 'MW', 'A-ME A-LE MW-W'],
      }),
    );
  });
  test('a junction of a double track: the train to the branch and the one from it run side by side', () => {
    expect(tableOf(planned({ name: 'Junction', text: JUNCTION }))).toEqual(
      sorted({
        'D1-DB': ['T1+', 'DJ DB BJ', 'BU', 'BU-UX'],
        'D1-BO': ['T1-', 'DJ', '', ''],
        'BO-BO1': ['', 'BO1', '', ''],
        'U1-UX': ['T2+', 'UJ', 'BU', 'BU-UX'],
        'UX-UB': ['', 'UB', '', ''],
        'BU-UX': ['T2-', 'BJ UJ DJ', 'U1 D1', 'D1-DB U1-UX'],
      }),
    );
  });
});
