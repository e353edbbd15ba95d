import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { usualWishes } from '@/core/divide';
import { fromMm, layoutSpeedMmPerS, mostBrakingMm, STOP_SHORT_MM, showLength, stoppingNeed } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';

describe('what a train needs to stop', () => {
  /** 100 mm/s braking with 50 mm/s²: 100 mm; at 112 mm/s 125.44; 112 × 0.04 s = 4.48; and 40 before the signal. Worked by hand. */
  test('is one total of named terms: v² ÷ 2a, faster than surveyed, two scans, and what is kept before the signal', () => {
    const { terms, totalMm } = stoppingNeed(100, 50);
    expect(terms.map(({ mm }) => Number(mm.toFixed(2)))).toEqual([100, 25.44, 4.48, 40]);
    expect(totalMm).toBeCloseTo(169.92, 6);
    expect(terms.map(({ says }) => says)).toEqual([
      'braking distance from top speed',
      'up to 12 % faster than surveyed',
      'two scans until it begins to brake',
      'kept before the signal',
    ]);
  });
  test('without what is kept before the signal it is what runs and proofs go by', () => {
    for (const [v, a] of [
      [100, 50],
      [351.2, 80],
      [12, 400],
    ] as const)
      expect(stoppingNeed(v, a).totalMm - STOP_SHORT_MM).toBeCloseTo(mostBrakingMm(v, a), 9);
  });
  test('stands as the same figure beside signals, in findings, for lift-outs and where the track is divided', () => {
    const needs = (d: LayoutDocument) =>
      Math.max(
        ...d.trains.map(
          ({ topSpeedKmh, brakingMmPerS2 }) =>
            stoppingNeed(layoutSpeedMmPerS(topSpeedKmh, d.scale), brakingMmPerS2).totalMm,
        ),
      );
    const valley = ondrelValley();
    expect(new Set(viewDesign(valley).stopping.map((one) => one.needs))).toEqual(new Set([fromMm(needs(valley))]));
    const short = withTrains(ring('Twelve', 12, 25), 1, 25);
    const d: LayoutDocument = {
      ...short,
      trains: short.trains.map((train) => ({ ...train, topSpeedKmh: 100, brakingMmPerS2: 90 })),
      features: [
        ...short.features,
        {
          id: 'out',
          kind: 'liftOut',
          line: short.lines[0]!.id,
          at: { tenthUm: 7e5, typed: '7 cm' },
          guarded: false,
          certainty: 'fixed',
        } as LayoutDocument['features'][number],
      ],
    };
    const figure = showLength(fromMm(needs(d)), d.shownUnit);
    const { findings } = checkDesign(d);
    const late = findings.find(({ kind }) => kind === 'braking longer than its warning')!;
    expect(late.figures.map(({ value }) => value)).toContain(figure);
    expect(late.says).toContain(`it needs ${figure}`);
    const out = findings.find(({ kind }) => kind === 'lift-out without protection')!;
    expect(out.figures.map(({ value }) => value)).toEqual([figure]);
    expect(showLength(usualWishes(d).stopping, d.shownUnit)).toBe(figure);
  });
});
