import { describe, expect, test } from 'vitest';
import { checkDesign, spotPlace } from '@/core/design';
import { cm } from '@/core/measure';
import type { LayoutDocument, Sensor } from '@/core/survey';
import { signal, turnout } from '@/demo/build';
import { learningOval } from '@/demo/learning-oval';

const spot = (id: string, at: number, kind: Sensor['kind'] = 'optical'): Sensor => ({
  id,
  name: id.toUpperCase(),
  kind,
  anchor: { line: 'oval', at: cm(at) },
  holdMs: 100,
  input: undefined,
  certainty: 'tentative',
});
const oval = (change: Partial<LayoutDocument> = {}): LayoutDocument => ({
  ...learningOval(),
  features: [],
  sensors: [spot('p1', 100)],
  ...change,
});
const of = (d: LayoutDocument, id = 'p1') => spotPlace(d, d.sensors.find((one) => one.id === id)!)!;

describe('where a spot stands', () => {
  test('a section has no place', () => expect(spotPlace(learningOval(), learningOval().sensors[0]!)).toBeUndefined());
  /** 14 cm at 1:87 are 12.18 m; 40 scale feet are 12.192 m, on the layout 14.01 cm, and 50 are 17.52 cm. */
  test('from the nearest signal, at full size', () => {
    const d = oval({ features: [signal('S1', 'oval', 114, 'up'), signal('S2', 'oval', 130, 'up')] });
    const { name, off, fullMm, usual } = of(d).signal!;
    expect([name, off / 1e5]).toEqual(['S1', 14]);
    expect(fullMm / 1000).toBeCloseTo(0.14 * 87, 6);
    expect(usual.map((one) => Math.round(one / 1e3) / 100)).toEqual([14, 17.5]);
  });
  /** Blades at 80, clearance 20 by the builder: at 100 it is just clear, at 90 it is 10 cm within; before the blades there is one track, and nothing to be clear of. */
  test('from blades, and beyond clearance or not', () => {
    const points = turnout('T1', 'oval', 80, 'up', 'left', 'leg');
    const d = oval({
      lines: [...learningOval().lines, { id: 'leg', name: 'Leg', length: cm(100), drawing: undefined }],
      turnouts: [points],
      sensors: [spot('p1', 100), spot('p2', 90), spot('p3', 70)],
    });
    const clear = points.clearance.tenthUm;
    expect(of(d).points).toMatchObject({ name: 'T1', off: cm(20).tenthUm, beyondClearance: cm(20).tenthUm - clear });
    expect(of(d, 'p2').points!.beyondClearance).toBe(cm(10).tenthUm - clear);
    expect(of(d, 'p3').points).toMatchObject({ off: cm(10).tenthUm, beyondClearance: undefined });
  });
  /** References 11: R 600, B 180, L 280 mm are 6.78840 mm inside and 9.50800 mm outside. */
  test('in a curve, the published throw', () => {
    const d = oval({
      features: [
        {
          id: 'c1',
          kind: 'curve',
          line: 'oval',
          at: cm(50),
          to: cm(150),
          radius: cm(60),
          hand: 'left',
          certainty: 'fixed',
        },
      ],
    });
    d.vehicles = [
      {
        ...d.vehicles[0]!,
        name: 'Long',
        length: cm(28),
        axles: [4, 6, 22, 24].map((at) => ({ at: cm(at), feeds: 'nothing' as const, plastic: undefined })),
      },
    ];
    d.trains = [];
    expect(of(d).curve!.inside.mm).toBeCloseTo(6.7884, 4);
    expect(of(d).curve!.outside.mm).toBeCloseTo(9.508, 3);
    expect(of(oval({ ...d, sensors: [spot('p1', 200)] })).curve).toBeUndefined();
  });
  test('two spots tell a direction when the fastest nose takes longer than two looks at the inputs', () => {
    const d = oval({ sensors: [spot('p1', 100), spot('p2', 110), spot('p3', 110.5)] });
    const pair = of(d).pair!;
    expect([pair.name, pair.tells]).toEqual(['P2', true]);
    expect(of(d, 'p2').pair).toMatchObject({ name: 'P3', tells: false });
  });
  /** Engine of 14 cm with axles at 3 to 12, coaches of 16 with axles at 2, 4, 12, 14: from 46 back, the longest between two of metal is 8 cm. */
  test('the longest gap between wheels, less what the spot reaches, and its hold at half speed', () => {
    const d = oval({ sensors: [spot('p1', 100, 'treadle')] });
    const { long, holdMs, train } = of(d).gap!;
    expect(long).toBe(cm(8 - 1.6).tenthUm);
    const half = d.trains.find(({ name }) => name === train)!.topSpeedKmh / 3.6 / 87 / 2;
    expect(holdMs).toBe(Math.ceil(0.064 / half / 0.1) * 100);
    expect(of(oval()).gap).toBeUndefined();
  });
});

describe('findings about where sensors stand and how long they hold', () => {
  const found = (d: LayoutDocument, kind: string) => checkDesign(d).findings.filter((one) => one.kind === kind);
  test('two at one place', () => {
    const together = oval({ sensors: [spot('p1', 100), spot('p2', 100.2), spot('p3', 101)] });
    expect(found(together, 'two sensors at one place').map(({ subject }) => subject)).toEqual(['p2']);
  });
  /** Blocks of 120 cm; 70 km/h at 1:87 are 223.5 mm/s: 5.37 s. */
  test('a hold longer than the fastest train takes, and its remedy', () => {
    const d = learningOval();
    expect(found(d, 'hold longer than a train takes')).toEqual([]);
    const long = { ...d, sensors: d.sensors.map((one, i) => ({ ...one, holdMs: i === 0 ? 6000 : 5300 })) };
    const [one, ...others] = found(long, 'hold longer than a train takes');
    expect([one!.subject, others.length, one!.figures[0]!.value]).toEqual([d.sensors[0]!.id, 0, '5.4 s']);
    expect(one!.fixes[0]!.edit).toMatchObject({ change: { holdMs: 5300 } });
  });
});
