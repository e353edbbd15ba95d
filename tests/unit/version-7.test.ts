import { expect, test } from 'vitest';
import { inputOf } from '@/core/detection';
import { type LayoutDocument, readDocument, saySensorInput } from '@/core/survey';
import { ondrelValley } from '@/demo/ondrel-valley';
import { randomPoints } from '../../tools/fuzz/random-points';

/** A document as version 6 had it: legs by names of their own, inputs as text, boosters by name. */
function asVersion6({ turnouts, sensors, features, boosters, ...rest }: LayoutDocument): Record<string, unknown> {
  const names = new Map(boosters.map(({ id, name }) => [id, name]));
  return structuredClone({
    ...rest,
    version: 6,
    turnouts: turnouts.map(({ legs: [diverging, second], lies: [lies, secondLies], ...turnout }) => ({
      ...turnout,
      diverging,
      lies,
      ...(second && { second, secondLies }),
    })),
    sensors: sensors.map((sensor) => ({ ...sensor, input: saySensorInput(sensor.input) })),
    features: features.map((one) =>
      one.kind === 'feeder' && one.booster ? { ...one, booster: names.get(one.booster) } : one,
    ),
  });
}
const plain = (document: LayoutDocument) => JSON.parse(JSON.stringify(document)) as LayoutDocument;

test('legs, inputs and boosters of version 6 are what they were', () => {
  const threeWay = Array.from({ length: 20 }, (_, seed) => randomPoints(seed)).find((d) => d.turnouts[0])!;
  const valley = ondrelValley();
  valley.boosters = [
    { id: 'bo1', name: 'East' },
    { id: 'bo2', name: 'West "2"' },
  ];
  const feeder = { kind: 'feeder', line: valley.referenceLine, certainty: 'fixed', fixedOn: undefined } as const;
  for (const [i, booster] of ['bo1', 'bo2', 'bo1'].entries())
    valley.features.push({
      ...feeder,
      id: `x-f${i}`,
      name: `F${i}`,
      at: { tenthUm: 1_000_000 * (i + 1), typed: '' },
      booster,
      reverses: undefined,
    });
  valley.sensors[0]!.input = { module: '2', number: 5 };
  valley.sensors[1]!.input = { module: 'by the window', number: undefined };
  for (const document of [threeWay, valley]) {
    const reading = readDocument(asVersion6(document));
    expect(reading.ok ? [] : reading.faults).toEqual([]);
    if (reading.ok) expect(plain(reading.document)).toEqual(plain(document));
  }
  expect(inputOf(valley.sensors[0]!.input, { inputs: 16, spare: 0 })).toEqual({ module: 2, input: 5 });
});
