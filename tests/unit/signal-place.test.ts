import { describe, expect, test } from 'vitest';
import { checkDesign, sightMm, signalPlace } from '@/core/design';
import { cm } from '@/core/measure';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { fork } from './fork';

describe('how far one sees along a curve', () => {
  /** From memory: the usual geometry of sight past an obstacle inside a curve: M = R (1 − cos(S / 2R)), S along the arc. */
  test.each([
    [360, 60],
    [500, 60],
    [900, 60],
    [600, 40],
  ])(
    'radius %i mm, %i mm clear: the chord is shorter than the arc of the textbook by less than a tenth',
    (radius, clear) => {
      const arc = 2 * radius * Math.acos(1 - clear / radius);
      expect(sightMm(radius, clear)).toBeLessThan(arc);
      expect(sightMm(radius, clear)).toBeGreaterThan(arc * 0.9);
    },
  );
  test('by hand: 500 mm and 60 mm give 2 √56400 = 474.97 mm', () => {
    expect(sightMm(500, 60)).toBeCloseTo(474.974, 2);
  });
});

describe('where a signal stands', () => {
  const home = (d: LayoutDocument) => signalsOf(d).find(({ name }) => name === 'Home')!;
  test('blades, overlap of 180 m (2069 mm at 1:87; British prototype practice), nothing hidden', () => {
    const d = fork('three-aspect');
    const place = signalPlace(d, home(d));
    expect(place.points).toEqual({ name: 'T', off: cm(20).tenthUm });
    expect(place.overlap / 10_000).toBeCloseTo(2069, 0);
    expect(place).toMatchObject({ hidden: false });
    expect(place.curve).toBeUndefined();
  });
  test('a head that a curve hides for the fastest train, and one in a tunnel, are told', () => {
    const d = learningOval();
    const [first] = signalsOf(d);
    const span = { line: first!.line, at: cm(0), to: cm(first!.at.tenthUm / 1e5 + 5), certainty: 'fixed' as const };
    const curved = {
      ...d,
      features: [...d.features, { id: 'x90', kind: 'curve' as const, radius: cm(40), hand: 'left' as const, ...span }],
    };
    const kinds = (of: LayoutDocument) => checkDesign(of).findings.map(({ kind }) => kind);
    expect(kinds(curved)).toContain('head that a curve hides');
    const wide = { ...curved, features: curved.features.map((f) => (f.id === 'x90' ? { ...f, radius: cm(4000) } : f)) };
    expect(kinds(wide as LayoutDocument)).not.toContain('head that a curve hides');
    const hidden = { ...d, features: [...d.features, { id: 'x91', kind: 'hidden' as const, ...span }] };
    expect(kinds(hidden as LayoutDocument)).toContain('head where nobody sees it');
    expect(kinds(d)).not.toContain('head where nobody sees it');
  });
});
