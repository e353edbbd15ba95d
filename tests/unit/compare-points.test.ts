import { describe, expect, test } from 'vitest';
import { comparePoints } from '@/core/design';
import { usualWishes } from '@/core/divide';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { train, vehicle } from '@/demo/build';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { planned } from '@/demo/plans';

/** A passing loop without a gap yet, and a train of so many cars behind an engine, none of which is seen. */
function loop(cars: number): LayoutDocument {
  const d = planned({
    name: 'Loop',
    text: `line Main 700
line Loop 260
line Main
buffer 0
buffer
turnout 220 left "T1" to Loop start clear 12
turnout 480 left trailing "T2" to Loop end clear 12`,
  });
  const ids = Array.from({ length: cars }, (_, i) => `v${i}`);
  d.vehicles = [
    vehicle('ve', 'Engine', 16, [4, 12], () => true, 300),
    ...ids.map((id) => vehicle(id, id, 16, [4, 12], () => false, 80, 'coach')),
  ];
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.trains = [train('tr', 'Mail', ['ve', ...ids], 40, { line: d.lines[0]!.id, at: 150, facing: 'up' }, rates)];
  return d;
}

describe('points in blocks, and in sections of their own', () => {
  test('of their own takes more gaps and sections, and lets them be thrown for a train that waits', () => {
    const d = loop(1);
    expect(signalsOf(d)).toEqual([]);
    const [blocks, routes] = comparePoints(d, usualWishes(d));
    expect([blocks!.turnoutsIn, routes!.turnoutsIn, blocks!.impossible, routes!.impossible]).toEqual([
      'blocks',
      'routes',
      false,
      false,
    ]);
    expect(routes!.gaps).toBeGreaterThan(blocks!.gaps);
    expect(routes!.sections).toBeGreaterThan(blocks!.sections);
    expect(blocks!.waiting).toEqual(['T1', 'T2']);
    expect(routes!.waiting).toEqual([]);
  });
  test('in a short section of their own an unseen end can lie over them; in the block before their blades that is longer', () => {
    const d = loop(4);
    const [blocks, routes] = comparePoints(d, usualWishes(d));
    expect(routes!.loose).toEqual(['T1', 'T2']);
    expect(blocks!.loose.length).toBeLessThanOrEqual(routes!.loose.length);
    expect(comparePoints(loop(0), usualWishes(loop(0))).map(({ loose }) => loose)).toEqual([[], []]);
  });
  test('where no division is possible that is said, and nothing is counted', () => {
    const d = exampleLayout(EXAMPLES.find(({ name }) => name === 'Two circuits and a crossover')!);
    const none = comparePoints(d, { ...usualWishes(d), trains: 99 });
    expect(none.map(({ impossible, gaps, sections }) => [impossible, gaps, sections])).toEqual([
      [true, 0, 0],
      [true, 0, 0],
    ]);
  });
});
