import { describe, expect, test } from 'vitest';
import { checkDesign, interlockingChecks, lockingTable } from '@/core/design';
import { fromMm, scaleRatio } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { planned } from '@/demo/plans';
import { smallValley } from '@/demo/small-valley';
import { LOOP, TRAP } from './locking-plans';

/** Paragraphs of 49 CFR part 236, paraphrased by us, from memory. */
function failing(d: LayoutDocument): Record<string, string[]> {
  const design = checkDesign(d);
  const rows = lockingTable(design);
  return Object.fromEntries(
    interlockingChecks(design, rows).map(({ paragraph, fails, of }) => {
      expect(of).toBeGreaterThan(0);
      return [paragraph, fails.map(({ row }) => rows.find(({ id }) => id === row)!.signal.name)];
    }),
  );
}
const loop = () => planned({ name: 'Loop', text: LOOP });
const signal = (d: LayoutDocument, name: string) => {
  const found = d.features.find((f) => f.kind === 'signal' && f.name === name)!;
  if (found.kind !== 'signal') throw new Error(name);
  return found;
};
/** So many feet of the prototype, on the layout. */
const scaleFt = (d: LayoutDocument, feet: number) => fromMm((feet * 304.8) / scaleRatio(d.scale));

describe('what the prototype asks of an interlocking', () => {
  test('a loop and a valley meet all of it', () => {
    for (const d of [loop(), smallValley()])
      expect(failing(d)).toEqual({ '.302': [], '.303': [], '.305': [], '.307': [], '.308': [] });
  });
  test('.302: route locking within 13 ft past the signal: met with the gap 12 ft past it, not with 14', () => {
    for (const [feet, told] of [
      [12, []],
      [14, ['A', 'A']],
    ] as const) {
      const d = loop();
      const a = signal(d, 'A');
      a.at = { tenthUm: Math.round(a.at.tenthUm - scaleFt(d, feet)), typed: '' };
      expect([feet, failing(d)['.302']]).toEqual([feet, told]);
    }
  });
  test('.303 and .307: a rule of somebody’s own that asks nothing of the points is told', () => {
    const d = loop();
    const { system, scheme } = checkDesign(d);
    const [route] = scheme.routesOf[0]!;
    const name = `free.${route!.reading.signal.id}.${route!.id}`;
    expect(system.program.declarations.some((one) => one.name === name)).toBe(true);
    d.rules = [{ name, text: 'true' } as never];
    const told = failing(d);
    expect(told['.303']).toEqual(['A']);
    expect(told['.307']).toEqual(['A']);
  });
  test('.307: points of which no contact tells are not proved to lie anywhere', () => {
    const d = loop();
    d.turnouts.find(({ name }) => name === 'T1')!.patterns = ['position assumed'];
    expect(failing(d)).toEqual({
      '.302': [],
      '.303': [],
      '.305': [],
      '.307': ['A', 'A', 'MW', 'LW'],
      '.308': [],
    });
  });
  test('points that guard a route from beside it are asked, too; an overlap keeps others out by the rules', () => {
    const trap = planned({ name: 'Trap', text: TRAP });
    trap.turnouts.find(({ name }) => name === 'T2')!.patterns = ['flank protection'];
    const { '.303': through, '.307': proved } = failing(trap);
    expect([through, proved]).toEqual([[], []]);
    const d = loop();
    for (const name of ['ME', 'LE', 'MW', 'LW']) signal(d, name).patterns = ['overlap'];
    expect(failing(d)['.308']).toEqual([]);
  });
  test('.305: points that are let go before the slowest train has stopped are told', () => {
    const d = loop();
    d.turnouts[0]!.settings = [{ pattern: 'route locking', option: 'releaseMs', value: 500 }];
    expect(new Set(failing(d)['.305'])).toEqual(new Set(['A', 'MW', 'LW']));
  });
  test('.305: of several points on a route those that are let go first count', () => {
    const d = smallValley();
    const t3 = d.turnouts.find(({ name }) => name === 'T3')!;
    t3.settings = [{ pattern: 'route locking', option: 'releaseMs', value: 500 }];
    /** T3 alone is let go early; T4, on the same routes, is not. */
    expect(new Set(failing(d)['.305'])).toEqual(new Set(['UC2E', 'UC3E', 'UW']));
  });
  test('.308: two signals that a post clears are kept apart by no rule alone', () => {
    const d = loop();
    for (const name of ['A', 'LW']) signal(d, name).patterns = ['authority'];
    expect(failing(d)['.308']).toContain('A');
  });
});
