import { describe, expect, test } from 'vitest';
import { standsAt, worstOn } from '@/core/design';
import { consistOf, divideTrack } from '@/core/detection';
import { cm } from '@/core/measure';
import { compileScheme } from '@/core/patterns';
import { Plant } from '@/core/plant';
import type { Facing, LayoutDocument } from '@/core/survey';
import { plantParameters } from '@/core/system';
import { compileTrack } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { Draw } from '../../tools/fuzz/draw';
import { randomLine } from './random-line';

const at = (d: LayoutDocument, line: string, where: number, facing: Facing, dead = false, nth = 0) =>
  standsAt(d, divideTrack(d, compileTrack(d)), d.trains[nth]!, { line, at: cm(where).tenthUm, facing }, dead);
/** The last coach has no axle that is seen. */
const withBlindTail = (): LayoutDocument => {
  const d = learningOval();
  d.vehicles = d.vehicles.map((one) => ({
    ...one,
    axles: one.axles.map((axle) => ({ ...axle, feeds: one.id === 'v-engine' ? axle.feeds : ('nothing' as const) })),
  }));
  return d;
};

describe('a train that stands somewhere, by hand', () => {
  /** Engine 14 cm with axles at 3 to 12, two coaches of 16 cm; gaps at 60, 180, 300, 420. */
  test('across a gap with a tail that is not seen', () => {
    const found = at(withBlindTail(), 'oval', 195, 'up')!;
    expect(found.on.map(({ from, to }) => [from / 1e5, to / 1e5])).toEqual([
      [180, 195],
      [149, 180],
    ]);
    expect(found.occupied).toEqual(['B2']);
    expect([found.free, found.hidden.map(({ from, to }) => [from / 1e5, to / 1e5])]).toEqual([['B1'], [[149, 180]]]);
  });
  test('wholly in one block it is told; without power nothing is', () => {
    expect(at(withBlindTail(), 'oval', 250, 'up')).toMatchObject({
      occupied: ['B2'],
      free: [],
      hidden: [],
      points: [],
    });
    expect(at(withBlindTail(), 'oval', 250, 'up', true)).toMatchObject({ sensors: [], occupied: [], free: ['B2'] });
  });
  test('the worst place is where least of it is still seen', () => {
    const d = withBlindTail();
    const partition = divideTrack(d, compileTrack(d));
    /** Its last axle that is seen is 12 cm behind the nose: just over a gap, 34 of its 46 cm hang back. */
    const worst = worstOn(d, partition, d.trains[0]!, 'oval', 'up', cm(1).tenthUm)!;
    expect(worst.hidden / 1e5).toBe(34);
    expect((worst.at / 1e5 - 60) % 120).toBe(12);
  });
  test('no place where there is no track behind it', () => {
    const d = ondrelValley();
    expect(at(d, 'pd', 90, 'down')).toBeUndefined();
  });
});

/** The plant is another way to the same: a train put down at that place, and which of its sensors are on. */
test('what sensors say is what they say of a train put down there', () => {
  let places = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const draw = new Draw(seed + 300);
    const d = seed % 4 === 0 ? ondrelValley() : randomLine(seed);
    const train = draw.pick(d.trains);
    const line = draw.pick(d.lines);
    for (let i = 0; i < 12; i++) {
      const where = draw.whole(1, Math.floor(line.length.tenthUm / 1e5) - 1);
      const facing = draw.pick(['up', 'down'] as const);
      const alone = { ...d, trains: [{ ...train, start: { line: line.id, at: cm(where), facing } }] };
      const scheme = compileScheme(alone);
      const found = standsAt(alone, scheme.partition, alone.trains[0]!, {
        line: line.id,
        at: cm(where).tenthUm,
        facing,
      });
      if (!found) continue;
      places += 1;
      const plant = new Plant(plantParameters(alone), scheme.partition, scheme.readings, () => ({
        speed: 0,
        startDelay: 0,
      }));
      const on = d.sensors
        .filter((_, s) => plant.detected[scheme.partition.fields.ofSensor[s]!] === 1)
        .map(({ id }) => id);
      expect({ seed, where, facing, on: new Set(found.sensors) }).toEqual({ seed, where, facing, on: new Set(on) });
      const long = found.on.reduce((sum, { from, to }) => sum + to - from, 0);
      expect(Math.abs(long / 1e4 - consistOf(alone, alone.trains[0]!).lengthMm)).toBeLessThan(0.01);
    }
  }
  expect(places).toBeGreaterThan(200);
});
