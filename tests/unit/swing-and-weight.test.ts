import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { lightCarFindings, swingFindings } from '@/core/detection';
import { SENSOR_KIND_IDS, type SensorKindId } from '@/core/kinds';
import { cm } from '@/core/measure';
import type { Feature, LayoutDocument, Sensor, Vehicle } from '@/core/survey';
import { sensor, vehicle } from '@/demo/build';
import { learningOval } from '@/demo/learning-oval';
import { done } from './editing';

const CURVE: Feature = {
  id: 'c1',
  kind: 'curve',
  line: 'oval',
  at: cm(100),
  to: cm(200),
  radius: cm(40),
  hand: 'left',
  certainty: 'fixed',
};
/** One coach of 28 cm on bogies 20 cm apart, and a spot in a curve of 40 cm. */
function inCurve(side: Sensor['side'], kind: SensorKindId = 'optical', at = 150): LayoutDocument {
  const d = learningOval();
  d.vehicles = [vehicle('long', 'Long railcar', 28, [3, 5, 23, 25], () => true, 300, 'railcar')];
  d.trains = [{ ...d.trains[0]!, vehicles: ['long'] }];
  d.features.push(CURVE);
  d.sensors.push({ ...sensor('P1', kind, 'oval', at), side });
  return d;
}

describe('a spot beside a curve', () => {
  test('on its inside the nose swings away from it: by so many mm as geometry says', () => {
    const [told, ...more] = swingFindings(inCurve('left'));
    expect(more).toEqual([]);
    expect(told).toMatchObject({ id: 'inside-curve d-P1', severity: 'check' });
    /** The middle of the bogies runs √(400² − 100²) = 387.298 mm from the centre, the nose √(387.298² + 140²) = 411.825 mm: 11.8 mm outside. */
    expect(told!.says).toContain('the nose of Red train swings 11.8 mm away from it');
  });
  test('by one click it stands outside, and nothing more is told', () => {
    const d = inCurve('left');
    const after = done(d, swingFindings(d)[0]!.fixes[0]!.edit).document;
    expect(after.sensors.at(-1)!.side).toBe('right');
    expect(swingFindings(after)).toEqual([]);
    expect(checkDesign(after).findings.some(({ kind }) => kind === 'spot on the inside of a curve')).toBe(false);
  });
  test('a side that nobody has said is a note', () => {
    expect(swingFindings(inCurve(undefined))).toMatchObject([{ severity: 'note' }]);
  });
  test.each<[string, LayoutDocument]>([
    ['on the outside', inCurve('right')],
    ['on straight track', inCurve('left', 'optical', 250)],
    ['with no train', { ...inCurve('left'), trains: [] }],
    ['with a curve so wide that nothing swings', wide()],
    ...SENSOR_KIND_IDS.filter((kind) => kind !== 'optical').map((kind): [string, LayoutDocument] => [
      `of what does not look at the side of a vehicle: ${kind}`,
      inCurve('left', kind),
    ]),
  ])('nothing is told %s', (_, d) => expect(swingFindings(d)).toEqual([]));
  function wide(): LayoutDocument {
    const d = inCurve('left');
    d.features = d.features.map((one) => (one.id === 'c1' ? { ...CURVE, radius: cm(900) } : one));
    return d;
  }
});

describe('cars lighter than their guide weight', () => {
  /** NMRA RP-20.1 for HO: 1 oz and 1/2 oz an inch, so that a car of 6" weighs 4 oz, which is 113.4 g; three quarters are 85 g. */
  const car = (grams: number, change: Partial<Vehicle> = {}): LayoutDocument => {
    const d = learningOval();
    const one = { ...vehicle('car', 'Hopper', 15.24, [3, 12], () => true, grams, 'wagon'), ...change };
    return { ...d, vehicles: [...d.vehicles, one], trains: [{ ...d.trains[0]!, vehicles: ['v-engine', 'car'] }] };
  };
  test('are told with both weights, once for a train', () => {
    const [told, ...more] = lightCarFindings(car(80));
    expect(more).toEqual([]);
    expect(told).toMatchObject({ severity: 'note', subject: 'tr1' });
    expect(told!.says).toContain('Hopper of Red train is seen by its wheels, but weighs much less than the guide');
    expect(told!.figures).toEqual([{ name: 'Hopper', value: '80 g, guide 113.4 g' }]);
  });
  test.each<[string, LayoutDocument]>([
    ['near the guide', car(86)],
    ['not weighed', car(0)],
    ['that no detector sees by its wheels', car(80, { axles: [{ at: cm(3), feeds: 'nothing', plastic: undefined }] })],
    ['that is driven', car(80, { kind: 'engine' })],
    ['where only spots watch', { ...car(80), sensors: [] }],
  ])('nothing is told of one %s', (_, d) => expect(lightCarFindings(d)).toEqual([]));
});
