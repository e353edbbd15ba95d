import { describe, expect, test } from 'vitest';
import { checkDesign, type LockingRow, lockingTable } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
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
  test('a terminus of four roads with a double crossover', () => {
    const d = exampleLayout(EXAMPLES.find(({ id }) => id === 'four-roads')!);
    const rows = lockingTable(checkDesign(d));
    const named = ({ signal, exit }: LockingRow) => `${signal.name}-${exit}`;
    const points = Object.fromEntries(
      rows.map((row) => [
        named(row),
        words(row.points.map(({ name, position }) => `${name}${position === 'straight' ? '+' : '-'}`)),
      ]),
    );
    /** T1 and T2 are the ends of the crossover from Arrivals to Departures, T3 and T4 of the other; T5 leads to Road 1, T6 to Road 4. */
    const byHand = {
      'A-Two': 'T1+ T4+ T5+',
      'A-One': 'T1+ T4+ T5-',
      'A-Three': 'T1- T2- T6+',
      'A-Four': 'T1- T2- T6-',
      'D-Three': 'T2+ T3+ T6+',
      'D-Four': 'T2+ T3+ T6-',
      'D-Two': 'T3- T4- T5+',
      'D-One': 'T3- T4- T5-',
      'R1-AA': 'T1+ T4+ T5-',
      'R1-DD': 'T3- T4- T5-',
      'R2-AA': 'T1+ T4+ T5+',
      'R2-DD': 'T3- T4- T5+',
      'R3-AA': 'T1- T2- T6+',
      'R3-DD': 'T2+ T3+ T6+',
      'R4-AA': 'T1- T2- T6-',
      'R4-DD': 'T2+ T3+ T6-',
    };
    expect(points).toEqual(byHand);
    const reason = (one: string, two: string) => {
      const row = rows.find((each) => named(each) === one)!;
      return row.conflicts.find((cell) => named(rows[cell.row]!) === two)?.reason;
    };
    const pairs = [
      ['A-Two', 'D-Two', 'points'],
      /** Both crossovers cross at the diamond. */
      ['A-Three', 'D-Two', 'fouling'],
      ['A-Three', 'R1-DD', 'fouling'],
      ['A-Two', 'R2-AA', 'head-on'],
      ['D-One', 'R1-DD', 'head-on'],
      ['R1-AA', 'R2-AA', 'points'],
      /** Side by side, but in one block, which one detector watches. */
      ['A-Two', 'D-Three', 'block'],
      ['R2-AA', 'R3-DD', 'block'],
    ] as const;
    for (const [one, two, why] of pairs) expect([one, two, reason(one, two)]).toEqual([one, two, why]);
  });
});

test('what somebody has changed is marked: a time, and a rule of one’s own', () => {
  const d = planned({ name: 'Loop', text: LOOP });
  const changed = (of: LayoutDocument) =>
    lockingTable(checkDesign(of)).flatMap(({ signal, changed: { keeps, rules } }) =>
      keeps || rules ? [[signal.name, keeps, rules]] : [],
    );
  expect(changed(d)).toEqual([]);
  d.turnouts[0]!.settings = [{ pattern: 'route locking', option: 'releaseMs', value: 9000 }];
  const [route] = checkDesign(d).scheme.routesOf[0]!;
  d.rules = [
    {
      id: 'r1',
      name: `free.${route!.reading.signal.id}.${route!.id}`,
      text: 'false',
      type: undefined,
      about: undefined,
    },
  ];
  expect(changed(d)).toEqual([
    ['A', 'Set by hand; usual is 5 s', 'A rule of your own decides'],
    ['A', 'Set by hand; usual is 5 s', undefined],
    ['MW', 'Set by hand; usual is 5 s', undefined],
    ['LW', 'Set by hand; usual is 5 s', undefined],
  ]);
});
