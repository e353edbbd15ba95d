import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { consistOf, unseenOf, vehiclesOf } from '@/core/detection';
import { cm } from '@/core/measure';
import { applyChange, type Edit, type LayoutDocument, readDocument, type Train } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { done, refused } from './editing';

const trainOf = (document: LayoutDocument, id: string): Train => document.trains.find((train) => train.id === id)!;

/** An engine 20 cm long with its motor on the axles at 4 and 6, and a wagon 10 cm long with one axle seen, at 2. */
function two(): LayoutDocument {
  const d = learningOval();
  const plain = { grams: 0, magnetAt: undefined };
  d.vehicles = [
    {
      ...plain,
      id: 'e',
      name: 'E',
      kind: 'engine',
      length: cm(20),
      axles: [4, 6].map((at) => ({ at: cm(at), feeds: 'motor' })),
    },
    {
      ...plain,
      id: 'w',
      name: 'W',
      kind: 'wagon',
      length: cm(10),
      axles: [
        { at: cm(2), feeds: 'resistor' },
        { at: cm(8), feeds: 'nothing' },
      ],
    },
  ];
  d.trains = [
    { ...d.trains[0]!, vehicles: ['e', 'w'] },
    { ...d.trains[1]!, vehicles: ['w'] },
  ];
  return d;
}
const seenAt = (d: LayoutDocument, id = 'tr1') => consistOf(d, trainOf(d, id)).parts.current.map(({ from }) => from);

describe('a train as it stands, by hand', () => {
  test('what is seen of it, and where its engine takes power', () => {
    expect(seenAt(two())).toEqual([40, 60, 220]);
    expect(consistOf(two(), trainOf(two(), 'tr1')).pickUpsMm).toEqual([40, 60]);
  });
  test('a wagon turned in it', () => {
    const { document } = done(two(), { do: 'change train', id: 'tr1', change: { turned: [1] } });
    expect(seenAt(document)).toEqual([40, 60, 280]);
    expect(unseenOf(document, consistOf(document, trainOf(document, 'tr1'))).tailMm).toBe(20);
  });
  test('all of it turned: the wagon leads, backwards, and the engine pushes', () => {
    const { document, inverse } = done(two(), { do: 'turn train', id: 'tr1' });
    expect(seenAt(document)).toEqual([80, 240, 260]);
    expect(consistOf(document, trainOf(document, 'tr1')).pickUpsMm).toEqual([240, 260]);
    expect(applyChange(document, inverse)).toEqual(two());
  });
  test('an engine in the middle takes power where it is; without one the first vehicle is taken for it', () => {
    const d = two();
    d.trains[0]!.vehicles = ['w', 'e', 'w'];
    expect(consistOf(d, d.trains[0]!).pickUpsMm).toEqual([140, 160]);
    expect(consistOf(d, d.trains[1]!).pickUpsMm).toEqual([20, 80]);
  });
});

describe('split and joined', () => {
  test('the rear part stands behind, or off the track', () => {
    const start = { line: 'oval', at: cm(100), facing: 'up' } as const;
    const { document } = done(two(), { do: 'split train', id: 'tr1', after: 1, name: 'Rear', start });
    expect(document.trains.map(({ name, vehicles }) => [name, vehicles])).toEqual([
      ['Red train', ['e']],
      ['Blue train', ['w']],
      ['Rear', ['w']],
    ]);
    expect(document.trains[2]!.start).toEqual(start);
    expect(readDocument(JSON.parse(JSON.stringify(document))).ok).toBe(true);
  });
  test('turned twice, or split and joined again, a train is what it was (fast-check)', () => {
    const wagon = fc.constantFrom('e', 'w');
    fc.assert(
      fc.property(
        fc.array(wagon, { minLength: 2, maxLength: 9 }),
        fc.infiniteStream(fc.boolean()),
        fc.nat(),
        (vehicles, backwards, cut) => {
          const turned = vehicles.map((_, i) => i).filter(() => backwards.next().value);
          const d = two();
          d.trains[0] = { ...d.trains[0]!, vehicles, turned: turned.length > 0 ? turned : undefined };
          const round = done(d, { do: 'turn train', id: 'tr1' }).document;
          const back = consistOf(round, trainOf(round, 'tr1'));
          const there = consistOf(d, d.trains[0]!);
          expect(back.parts.current.map(({ from }) => Math.round(there.lengthMm - from)).reverse()).toEqual(
            there.parts.current.map(({ from }) => Math.round(from)),
          );
          expect(done(round, { do: 'turn train', id: 'tr1' }).document.trains[0]).toEqual(d.trains[0]);
          const after = 1 + (cut % (vehicles.length - 1));
          const parts = done(d, { do: 'split train', id: 'tr1', after, name: 'Rear' }).document;
          const again = done(parts, { do: 'join trains', id: 'tr1', with: parts.trains[2]!.id }).document;
          expect(again.trains).toEqual(d.trains);
        },
      ),
      { numRuns: 200 },
    );
  });
  test.each<[Edit, string]>([
    [{ do: 'split train', id: 'tr1', after: 2, name: 'Rear' }, 'cannot be split there'],
    [{ do: 'split train', id: 'tr1', after: 1, name: ' ' }, 'Both parts need a name'],
    [{ do: 'join trains', id: 'tr1', with: 'tr1' }, 'no longer there'],
    [{ do: 'turn train', id: 'gone' }, 'no longer there'],
    [{ do: 'change train', id: 'tr1', change: { vehicles: [] } }, 'has no vehicles'],
    [{ do: 'change train', id: 'tr1', change: { turned: [2] } }, 'turns a vehicle that it has not'],
    [{ do: 'keep vehicles', vehicles: [{ ...two().vehicles[0]!, id: 'gone' }], says: '' }, 'no longer there'],
  ])('%j', (edit, problem) => {
    expect(refused(two(), edit)).toContain(problem);
  });
});

describe('resistor axles', () => {
  test('a wheelset of plastic is changed for one of metal', () => {
    const d = two();
    d.vehicles[1]!.axles[1]!.plastic = true;
    const { document } = done(d, { do: 'fit resistor axles', vehicles: ['w'] });
    expect(document.vehicles[1]!.axles.map(({ feeds, plastic }) => [feeds, plastic])).toEqual([
      ['resistor', undefined],
      ['resistor', undefined],
    ]);
  });
  test('one that can take none is refused', () => {
    const d = two();
    d.vehicles[1]!.takesNone = true;
    expect(refused(d, { do: 'fit resistor axles', vehicles: ['w'] })).toContain('can take no resistor axle');
  });
});

test('where wheels take no resistor axle, nothing is fitted, and release by arrival is named', () => {
  const unseen = (d: LayoutDocument) => checkDesign(d).findings.find(({ kind }) => kind === 'unseen tail')!;
  const d = smallValley();
  d.trains = d.trains.map((one) =>
    one.id === 'tr-quarry' ? { ...one, vehicles: ['v-tank', 'v-wagon', 'v-wagon'] } : one,
  );
  expect(unseen(d).advice).toMatch(/^Fit a resistor axle/);
  expect(unseen(d).fixes).toHaveLength(1);
  d.vehicles = d.vehicles.map((one) => (one.id === 'v-wagon' ? { ...one, takesNone: true } : one));
  expect(unseen(d).advice).toMatch(/^The wheels of Empty quarry wagon take no resistor axle\..* by arrival/);
  expect(unseen(d).fixes).toEqual([]);
});

test('a document of version 3 is brought up: what drew current does, the engine leads, its braking was measured', () => {
  const now = smallValley();
  const old = JSON.parse(JSON.stringify({ ...now, version: 3 }));
  for (const vehicle of old.vehicles) {
    delete vehicle.kind;
    vehicle.axles = vehicle.axles.map(({ feeds, ...rest }: { feeds: string }) => ({
      ...rest,
      detectable: feeds !== 'nothing',
    }));
  }
  for (const train of old.trains) {
    train.brakingIs = train.measured.length > 0 ? 'measured' : 'assumed';
    delete train.measured;
  }
  const read = readDocument(old);
  expect(read.ok).toBe(true);
  if (!read.ok) return;
  for (const train of now.trains) {
    const same = trainOf(read.document, train.id);
    expect(consistOf(read.document, same)).toEqual(consistOf(now, train));
    expect(same.measured).toEqual(train.measured);
  }
  expect(vehiclesOf(read.document, read.document.trains[0]!)[0]!.kind).toBe('engine');
});
