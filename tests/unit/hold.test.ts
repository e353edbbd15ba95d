import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chanceShown, shortestHoldMs } from '@/core/detection';
import { Random } from '@/core/simulation';
import { applyEdit } from '@/core/survey';
import { smallValley } from '@/demo/small-valley';

describe('the hold that hides drop-outs', () => {
  /** By hand: one drop-out of 100 ms on average, once in e^3 passings: 300 ms. Twenty: 1 − (1 − 0.001)^(1/20) is 5.0025e-5, and −100 ln of that 990.3. */
  test.each([
    [{ meanMs: 100, perPassing: 1, inPassings: 20 }, 300],
    [{ meanMs: 100, perPassing: 20, inPassings: 1000 }, 1000],
    [{ meanMs: 150, perPassing: 20, inPassings: 1000 }, 1500],
    [{ meanMs: 1, perPassing: 1, inPassings: 2 }, 50],
  ])('%j asks for %d ms', (dropouts, holdMs) => expect(shortestHoldMs(dropouts)).toBe(holdMs));
  test('is long enough, and 50 ms less would not be', () => {
    const dropouts = fc.record({
      meanMs: fc.integer({ min: 20, max: 2000 }),
      perPassing: fc.integer({ min: 1, max: 200 }),
      inPassings: fc.integer({ min: 2, max: 100_000 }),
    });
    fc.assert(
      fc.property(dropouts, (one) => {
        const hold = shortestHoldMs(one);
        expect(chanceShown(hold, one)).toBeLessThanOrEqual(1 / one.inPassings + 1e-12);
        if (hold >= 50) expect(chanceShown(hold - 50, one)).toBeGreaterThan(1 / one.inPassings);
      }),
    );
  });
  /** Drop-outs drawn one by one with the published generator PCG32 (its vectors are tested elsewhere), and counted. */
  test.each([
    [200, 5, 600],
    [150, 20, 700],
    [80, 3, 100],
  ])('mean %d ms, %d in a passing, hold %d ms: as often as when they are drawn', (meanMs, perPassing, hold) => {
    const random = new Random(42);
    const passings = 60_000;
    let shown = 0;
    for (let i = 0; i < passings; i++) {
      let longest = 0;
      for (let k = 0; k < perPassing; k++) longest = Math.max(longest, -meanMs * Math.log(1 - random.uniform()));
      if (longest > hold) shown += 1;
    }
    const expected = chanceShown(hold, { meanMs, perPassing, inPassings: 2 });
    const deviation = Math.sqrt((expected * (1 - expected)) / passings);
    expect(Math.abs(shown / passings - expected)).toBeLessThan(4 * deviation);
  });
  test('sensors take it together, as one step', () => {
    const d = smallValley();
    const ids = d.sensors.map(({ id }) => id);
    const done = applyEdit(d, { do: 'hold sensors', ids, holdMs: 1500 });
    expect(done.ok && done.change.document.sensors.every(({ holdMs }) => holdMs === 1500)).toBe(true);
    expect(applyEdit(d, { do: 'hold sensors', ids: ['gone'], holdMs: 1500 }).ok).toBe(false);
  });
});
