import { describe, expect, test } from 'vitest';
import {
  apartAfter,
  brakingDistanceMm,
  clearanceOf,
  crossingAngle,
  guideGrams,
  isScale,
  layoutSpeedMmPerS,
  readLength,
  readSpeed,
  runTimeS,
  SCALES,
  type ScaleId,
  scaleRatio,
  showLength,
  stoppingDistanceMm,
  stoppingTimeS,
  throwInside,
  throwOutside,
} from '@/core/measure';

/** Ratio, mm of the model for a foot, mm/s at 60 mph and at 100 km/h. Source: NMRA S-1.2, MOROP NEM 010; arithmetic exact. */
const TABLE: [ScaleId, number, number, number, number][] = [
  ['Z', 220, 1.38545, 121.92, 126.263],
  ['N', 160, 1.905, 167.64, 173.611],
  ['N-UK', 148, 2.05946, 181.232, 187.688],
  ['TT', 120, 2.54, 223.52, 231.481],
  ['HO', 87.1, 3.49943, 307.949, 318.918],
  ['H0', 87, 3.50345, 308.303, 319.285],
  ['OO', 76.2, 4.0, 352.0, 364.538],
  ['S', 64, 4.7625, 419.1, 434.028],
  ['O', 48, 6.35, 558.8, 578.704],
  ['0', 45, 6.77333, 596.053, 617.284],
  ['O-UK', 43.5, 7.0069, 616.607, 638.57],
  ['1', 32, 9.525, 838.2, 868.056],
  ['G', 22.5, 13.54667, 1192.107, 1234.568],
];

describe('scales', () => {
  test.each(TABLE)('%s has the published ratio and speeds', (scale, ratio, mmPerFoot, at60mph, at100kmh) => {
    expect(scaleRatio(scale)).toBe(ratio);
    const foot = readLength('1 scale ft', 'cm', scale);
    expect(foot.ok && foot.value.tenthUm / 10_000).toBeCloseTo(mmPerFoot, 3);
    const mph = readSpeed('60 mph', scale);
    expect(mph.ok && layoutSpeedMmPerS(mph.kmh, scale)).toBeCloseTo(at60mph, 2);
    expect(layoutSpeedMmPerS(100, scale)).toBeCloseTo(at100kmh, 2);
  });

  /** Arithmetic by hand: a foot is 304.8 mm, 100 km/h is 27,777.8 mm/s; a clearance of crossing number 6 as H0's, but for the gauge and the ratio. */
  test('one of its own, by its ratio', () => {
    const bricks: ScaleId = '1:38 on 37.5';
    expect(isScale(bricks) && scaleRatio(bricks)).toBe(38);
    const foot = readLength('1 scale ft', 'cm', bricks);
    expect(foot.ok && foot.value.tenthUm / 10_000).toBeCloseTo(304.8 / 38, 3);
    expect(layoutSpeedMmPerS(100, bricks)).toBeCloseTo(27777.78 / 38, 2);
    expect(clearanceOf(6, '1:87 on 16.5')).toBe(clearanceOf(6, 'H0'));
    expect(guideGrams(1_000_000, bricks)).toBeUndefined();
  });

  test.each([
    '1:0 on 45',
    '1:0.5 on 45',
    '1:1001 on 45',
    '1:38 on 2.9',
    '1:38 on 201',
    '1:38',
    '1:38.25 on 45',
    '38 on 45',
    'toString',
    '',
    87,
  ])('%j is no scale', (id) => expect(isScale(id)).toBe(false));

  test('every scale of the list is checked', () =>
    expect(TABLE.map((row) => row[0]).sort()).toEqual(Object.keys(SCALES).sort()));

  test('40 km/h at 1:87 is 127.714 mm/s (derived)', () => expect(layoutSpeedMmPerS(40, 'H0')).toBeCloseTo(127.714, 3));

  test.each([
    [15, 76.987],
    [20, 102.65],
    [30, 153.975],
    [40, 205.3],
    [45, 230.962],
  ])('%d mph in HO is %d mm/s (derived)', (mph, mmPerS) => {
    const read = readSpeed(`${mph} smph`, 'HO');
    expect(read.ok && layoutSpeedMmPerS(read.kmh, 'HO')).toBeCloseTo(mmPerS, 2);
  });
});

describe('motion (elementary mechanics, worked examples)', () => {
  test('300 mm/s at 150 mm/s² stops in 300 mm and 2 s', () => {
    expect(stoppingDistanceMm(300, 0, 150)).toBe(300);
    expect(stoppingTimeS(300, 0, 150)).toBe(2);
  });
  test('60 mph in HO, 100 mm/s², 0.25 s of reaction: 551.152 mm, 3.32949 s', () => {
    expect(stoppingDistanceMm(307.949, 0.25, 100)).toBeCloseTo(551.152, 2);
    expect(stoppingTimeS(307.949, 0.25, 100)).toBeCloseTo(3.32949, 4);
  });
  test('from 300 to 100 at 80 takes 500 mm', () => expect(brakingDistanceMm(300, 100, 80)).toBe(500));
  test('100 km/h at full size, 0.7 m/s², 2 s: 606.702 m, 41.6825 s', () => {
    const v = 100 / 3.6;
    expect(stoppingDistanceMm(v, 2, 0.7)).toBeCloseTo(606.702, 2);
    expect(stoppingTimeS(v, 2, 0.7)).toBeCloseTo(41.6825, 3);
  });
  test('a run from rest to rest: 2000 mm in 9.66667 s, 500 mm in 4.47214 s', () => {
    expect(runTimeS(2000, 300, 100)).toBeCloseTo(9.66667, 4);
    expect(runTimeS(500, 300, 100)).toBeCloseTo(4.47214, 4);
  });
});

describe('lengths as people say them', () => {
  test.each([
    ['96 cm', 9_600_000],
    ['960 mm', 9_600_000],
    ['3 ft 2 in', 38 * 254_000],
    [`3'2"`, 38 * 254_000],
    ['38"', 38 * 254_000],
    ['37 1/2"', 37.5 * 254_000],
    ['1/16 in', 15_875],
    ['1.2 m', 12_000_000],
    ['2 m 5 cm', 20_500_000],
    ['96', 9_600_000],
    ['.5 cm', 50_000],
    ['3’2”', 38 * 254_000],
  ])('%s', (text, tenthUm) => {
    const read = readLength(text, 'cm', 'H0');
    expect(read).toMatchObject({ ok: true, value: { tenthUm } });
  });

  test('a bare number takes the shown unit', () =>
    expect(readLength('38', 'inch', 'H0')).toMatchObject({
      ok: true,
      value: { tenthUm: 38 * 254_000, typed: '38 in' },
    }));
  test('40 scale ft at 1:87 is 14.0138 cm', () => {
    const read = readLength('40 scale ft', 'cm', 'H0');
    expect(read.ok && read.value.tenthUm).toBe(Math.round((40 * 3_048_000) / 87));
  });
  test('what was typed is kept', () =>
    expect(readLength(`3'2"`, 'cm', 'H0')).toMatchObject({ value: { typed: `3'2"` } }));

  test.each([
    ['', 'Type a length'],
    ['-5 cm', 'below zero'],
    ['1,200', 'two ways'],
    [`3'2`, 'has no unit'],
    ['12 parsecs', 'not a unit'],
    ['2 in 3 ft', 'larger unit first'],
    ['1/0 in', 'divides by zero'],
    ['11 km', 'not a unit'],
    ['10001 m', 'longer than 10 km'],
    ['abc', 'cannot read'],
  ])('%s is refused in words', (text, part) => {
    const read = readLength(text, 'cm', 'H0');
    expect(read.ok).toBe(false);
    expect(!read.ok && read.problem).toContain(part);
  });

  test.each([
    [9_600_000, 'cm', '96 cm'],
    [9_655_000, 'cm', '96.55 cm'],
    [38 * 254_000, 'inch', '38"'],
    [37.5 * 254_000, 'inch', '37 1/2"'],
    [15_875, 'inch', '1/16"'],
    [9_600_000, 'inch', '37 13/16"'],
    [-9_600_000, 'inch', '-37 13/16"'],
    [-15_875, 'inch', '-1/16"'],
    [7_000, 'inch', '0"'],
    [30_000 + 24 * 25_400, 'inch', '2 1/2"'],
  ] as const)('%d tenths of a micrometre are shown in %s as %s', (length, unit, shown) =>
    expect(showLength(length, unit)).toBe(shown),
  );

  test('speeds over 1000 km/h and unknown units are refused', () => {
    expect(readSpeed('2000 km/h', 'H0').ok).toBe(false);
    expect(readSpeed('fast', 'H0').ok).toBe(false);
    expect(readSpeed('16 cm/s', 'H0')).toMatchObject({ ok: true, kmh: expect.closeTo(50.112, 3) });
  });
});

/** Derived; the worked examples are from the project’s table of check values, computed apart from this program. */
describe('geometry of turnouts and curves', () => {
  test.each([
    [4, 14.25],
    [6, 9.52728],
    [8, 7.15267],
    [9, 6.35966],
  ])('one in %i is %f degrees', (number, degrees) => expect(crossingAngle(number)).toBeCloseTo(degrees, 4));
  test('tracks of one in six are 34 mm apart after 202.583 mm', () =>
    expect(apartAfter(34, 6)).toBeCloseTo(202.583, 3));
  test('a vehicle of 280 mm on bogies 180 mm apart, on a curve of 600 mm', () => {
    expect(throwInside(600, 180)).toBeCloseTo(6.7884, 4);
    expect(throwOutside(600, 180, 280)).toBeCloseTo(9.508, 4);
    /** The approximations B²/8R and (L² − B²)/8R. */
    expect(throwInside(600, 180)).toBeCloseTo(6.75, 1);
    expect(throwOutside(600, 180, 280)).toBeCloseTo(9.58333, 0);
  });
  test('a sharper turnout is clear sooner, and a larger scale later', () => {
    expect(clearanceOf(4, 'H0')).toBeLessThan(clearanceOf(6, 'H0'));
    expect(clearanceOf(6, 'N')).toBeLessThan(clearanceOf(6, 'H0'));
    /** 6 · 16.5 + 3000/87 / tan 9.52728°, by hand. */
    expect(clearanceOf(6, 'H0')).toBeCloseTo(99 + 205.46, 1);
  });
});
