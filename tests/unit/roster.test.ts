import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ABILITIES, FEEDS, VEHICLE_KIND_IDS } from '@/core/kinds';
import { cm, guideGrams } from '@/core/measure';
import {
  likelyLength,
  newVehicle,
  ROSTER_COLUMNS,
  readAxles,
  readRoster,
  writeAxles,
  writeRoster,
} from '@/core/roster';
import { applyEdit, type LayoutDocument, newDocument, readDocument, type Vehicle } from '@/core/survey';
import { smallValley } from '@/demo/small-valley';

const H0 = { scale: 'H0', shownUnit: 'cm' } as const;
const take = (document: LayoutDocument, text: string) => {
  const { vehicles } = readRoster(text, document);
  const edited = applyEdit(document, { do: 'keep vehicles', vehicles, says: 'Take up' });
  if (!edited.ok) throw new Error(edited.problem);
  return edited.change.document;
};
const plain = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

describe('guide weights, NMRA RP-20.1 as quoted in the check values', () => {
  test('HO, 6 inches: 4 ounces; N, 4 inches: 1.1 ounces', () => {
    expect(guideGrams(6 * 254_000, 'HO')).toBeCloseTo(113.398, 3);
    expect(guideGrams(4 * 254_000, 'N')).toBeCloseTo(31.1845, 4);
    expect(guideGrams(10 * 254_000, 'O')).toBeCloseTo(15 * 28.349523125, 6);
    expect(guideGrams(6 * 254_000, 'Z')).toBeUndefined();
  });
});

describe('axles as a cell says them', () => {
  test('places, what they feed, and plastic, in any order', () => {
    const read = readAxles('11 resistor; 2 cm motor;5.5 ; 14 cm plastic', cm(16).tenthUm, H0);
    expect(read.ok && read.value.map(({ at, feeds, plastic }) => [at.tenthUm / 1e5, feeds, plastic ?? false])).toEqual([
      [2, 'motor', false],
      [5.5, 'nothing', false],
      [11, 'resistor', false],
      [14, 'nothing', true],
    ]);
    expect(read.ok && writeAxles(read.value, ({ typed }) => typed)).toBe(
      '2 cm motor; 5.5 cm; 11 cm resistor; 14 cm plastic',
    );
  });
  test.each([
    ['2; 17', 'The axle at 17 lies beyond the vehicle, which is 16 cm long.'],
    ['2 cm wood', '“2 cm wood” is no axle'],
    ['-3', 'below zero'],
    [Array(25).fill('1').join(';'), 'at most 24 axles'],
  ])('%s', (text, problem) => {
    const read = readAxles(text, cm(16).tenthUm, H0);
    expect(read.ok ? '' : read.problem).toContain(problem);
  });
});

describe('the roster as a table', () => {
  test('written out and taken up again it is the same: the demo', () => {
    const demo = smallValley();
    expect(plain(take(demo, writeRoster(demo)))).toEqual(plain(demo));
    const fresh = take({ ...demo, vehicles: [], trains: [] }, writeRoster(demo));
    const without = (all: Vehicle[]) => all.map(({ id: _, ...rest }) => plain(rest));
    expect(without(fresh.vehicles)).toEqual(without(demo.vehicles));
  });
  test('and so is any roster (fast-check)', () => {
    const length = fc.integer({ min: 1, max: 4000 }).map((mm) => cm(mm / 10));
    const name = fc.string({ minLength: 1, maxLength: 60 }).map((text) => text.trim() || 'A');
    const vehicle = length.chain((long) => {
      const within = fc
        .integer({ min: 0, max: long.tenthUm })
        .map((tenthUm) => ({ tenthUm, typed: `${tenthUm / 1e5} cm` }));
      return fc.record({
        name,
        kind: fc.constantFrom(...VEHICLE_KIND_IDS),
        length: fc.constant(long),
        axles: fc
          .array(
            fc.record({
              at: within,
              feeds: fc.constantFrom(...FEEDS),
              plastic: fc.constantFrom(undefined, true as const),
            }),
            { maxLength: 24 },
          )
          .map((axles) => axles.sort((a, b) => a.at.tenthUm - b.at.tenthUm)),
        grams: fc.integer({ min: 0, max: 200_000 }).map((tenths) => tenths / 10),
        magnetAt: fc.option(within, { nil: undefined }),
        takesNone: fc.constantFrom(undefined, true as const),
        leastRadius: fc.option(length, { nil: undefined }),
        decoder: fc.option(fc.subarray([...ABILITIES]), { nil: undefined }),
      });
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(vehicle, { selector: (one) => one.name, maxLength: 12 }),
        fc.constantFrom('cm', 'inch'),
        (vehicles, unit) => {
          const d = {
            ...newDocument('Any', 'H0', unit),
            vehicles: vehicles.map((one, i) => ({ ...one, id: `v${i}` })),
          };
          const known = readRoster(writeRoster(d), d);
          expect(known.bad).toEqual([]);
          expect(plain(known.vehicles)).toEqual(plain(d.vehicles));
          const fresh = take({ ...d, vehicles: [] }, writeRoster(d));
          /** A vehicle without axles gets those that are usual. */
          fresh.vehicles.forEach((one, i) => {
            if (vehicles[i]!.axles.length > 0)
              expect(plain({ ...one, id: '' })).toEqual(plain({ ...vehicles[i], id: '' }));
          });
        },
      ),
      { numRuns: 300 },
    );
  });
  /** By the ounce of 28.349523125 g. */
  test.each([
    ['cm', '250', 250, '250 g'],
    ['cm', '8.8 oz', 249.475_8, '249.5 g'],
    ['inch', '8.8', 249.475_8, '8.8 oz'],
    ['inch', '250 g', 250, '8.8 oz'],
    ['inch', '4 ounces', 113.398_1, '4 oz'],
    ['inch', '0', 0, '0 oz'],
  ] as const)('weights where %s rules: %s is %f g, shown as %s', (unit, text, grams, shown) => {
    const column = ROSTER_COLUMNS.find(({ key }) => key === 'grams')!;
    const d = newDocument('Any', 'H0', unit);
    const read = column.read(text, {} as never, d);
    if (!read.ok) throw new Error(read.problem);
    expect(read.value.grams).toBeCloseTo(grams, 3);
    expect(column.write({ grams: read.value.grams } as never, d)).toBe(shown);
    for (const wrong of ['heavy', '1.2.3', '-4', '900 oz', '250 kg'])
      expect(column.read(wrong, {} as never, d).ok, wrong).toBe(false);
  });
  test.each([
    ['cm', '24 cm', '24 cm'],
    ['cm', '9 1/2"', '24.13 cm'],
    ['inch', '24 cm', '9 7/16"'],
    ['inch', '9 1/2', '9 1/2 in'],
    ['inch', '0.8 ft', '0.8 ft'],
    ['inch', '40 scale ft', '40 scale ft'],
    ['cm', '40 scale ft', '40 scale ft'],
  ] as const)(
    'lengths where %s rules: what was typed as %s is shown as %s, and changed from there',
    (unit, text, shown) => {
      const d = newDocument('Any', 'H0', unit);
      const coach = newVehicle('coach', 'Coach', d);
      const at = (key: string) => ROSTER_COLUMNS.find((one) => one.key === key)!;
      const length = at('length').read(text, coach, d);
      const axles = at('axles').read(`${text} resistor`, { ...coach, length: cm(200) }, d);
      if (!length.ok || !axles.ok) throw new Error('Neither is wrong.');
      const changed = { ...coach, ...length.value, ...axles.value };
      expect(at('length').write(changed, d)).toBe(shown);
      expect(at('axles').write(changed, d)).toBe(`${shown} resistor`);
      expect(at('length').writeTyped!(changed, d)).toBe(text === '9 1/2' ? '9 1/2 in' : text);
    },
  );
  test('beneath a title that says a unit plain numbers are in that', () => {
    const grams = (title: string) =>
      readRoster(`Name\t${title}\nOre\t95\nTank\t3 oz\n`, newDocument('Any', 'H0', 'inch')).vehicles.map((one) =>
        Number(one.grams.toFixed(1)),
      );
    expect(grams('Grams')).toEqual([95, 85]);
    expect(grams('Ounces')).toEqual([2693.2, 85]);
    expect(grams('Weight')).toEqual([2693.2, 85]);
  });
  test('pasted from a spreadsheet: tabs, titles in any order, some left out, unknown ones told', () => {
    const read = readRoster(
      'Length\tName\tColour\tKind\n11.5\tOre 1\tred\ttwo-axle wagon\n\t\t\t\n9 cm\tTank\t\tEngine\n',
      newDocument('A'),
    );
    expect(read.leftOut).toEqual(['Colour']);
    expect(read.rows).toBe(2);
    expect(read.vehicles.map(({ name, kind, length, axles }) => [name, kind, length.typed, axles.length])).toEqual([
      ['Ore 1', 'wagon', '11.5 cm', 2],
      ['Tank', 'engine', '9 cm', 4],
    ]);
    expect(read.vehicles[1]!.axles.every(({ feeds, at }) => feeds === 'motor' && at.tenthUm < cm(9).tenthUm)).toBe(
      true,
    );
  });
  test('without titles, and separated by semicolons', () => {
    const read = readRoster('Ore 1;Two-axle wagon;11 cm\nOre 2;Guard’s van;10 cm', newDocument('A'));
    expect(read.vehicles.map(({ name, kind }) => [name, kind])).toEqual([
      ['Ore 1', 'wagon'],
      ['Ore 2', 'van'],
    ]);
  });
  test('a vehicle that is known is changed in what the row says, and in nothing else', () => {
    const demo = smallValley();
    const { vehicles } = readRoster('Name,Grams\nBrake van,72', demo);
    expect(vehicles).toEqual([{ ...demo.vehicles.find(({ name }) => name === 'Brake van'), grams: 72 }]);
  });
  test('5,000 rows with 10 % faults: each told by row, and the good ones kept', () => {
    const faults = ['-3', '12 km', 'long', '0', '1,200'];
    const rows = Array.from(
      { length: 5000 },
      (_, i) => `Car ${i}\tcoach\t${i % 10 === 7 ? faults[((i / 10) % 5) | 0] : '22 cm'}`,
    );
    const read = readRoster(`Name\tKind\tLength\n${rows.join('\n')}`, newDocument('A'));
    expect([read.rows, read.vehicles.length, read.bad.length]).toEqual([5000, 4500, 500]);
    expect(read.bad.map(({ row }) => row)).toEqual(Array.from({ length: 500 }, (_, i) => 10 * i + 9));
    expect(read.bad.every(({ problem }) => problem.startsWith('Length: '))).toBe(true);
  });
  test.each([
    ['Name,Kind\nA,Rocket', 'There is no kind “Rocket”.'],
    ['Name\nA\nA', '“A” is in row 2 already.'],
    ['Name,Length\n,12', 'It has no name.'],
    ['Name,Grams\nA,heavy', 'Weight: “heavy” is no weight'],
    ['Name,Decoder\nA,dances', 'Decoder: “dances” is none of'],
    ['Name,Magnet,Length\nA,30,20', 'Magnet: It hangs beyond the vehicle.'],
    ['Name,Lit\nA,perhaps', 'Lit: Say yes or no.'],
    [`Name\n${'x'.repeat(61)}`, 'at most 60 letters'],
  ])('%s', (text, problem) => {
    const { bad, vehicles } = readRoster(text, newDocument('A'));
    expect(bad[0]?.problem).toContain(problem);
    expect(vehicles.length).toBeLessThan(2);
  });
});

describe('one cell changed', () => {
  const cell = (key: string, text: string, vehicle: Omit<Vehicle, 'id'>) => {
    const read = ROSTER_COLUMNS.find((column) => column.key === key)!.read(text, vehicle, H0);
    return read.ok ? { ...vehicle, ...read.value } : read.problem;
  };
  test('lit: every axle that feeds nothing feeds lamps, resistors stay; and dark again', () => {
    const coach = newVehicle('coach', 'Coach', H0);
    coach.axles[0]!.feeds = 'resistor';
    const lit = cell('lit', 'yes', coach) as Vehicle;
    expect(lit.axles.map(({ feeds }) => feeds)).toEqual(['resistor', 'lamp', 'lamp', 'lamp']);
    expect((cell('lit', 'no', lit) as Vehicle).axles).toEqual(coach.axles);
  });
  test('shorter: an axle that would lie beyond keeps its share', () => {
    const coach = newVehicle('coach', 'Coach', H0, cm(20));
    const shorter = cell('length', '15', coach) as Vehicle;
    expect(shorter.axles.map(({ at }) => at.tenthUm / 1e5)).toEqual([2, 4.4, 11.7, 13.5]);
  });
  test('what is likely of a kind is to scale', () => {
    expect(likelyLength('coach', H0).typed).toBe('25.5 cm');
    expect(likelyLength('wagon', { scale: 'N', shownUnit: 'cm' }).typed).toBe('5.5 cm');
  });
  test('whatever is taken up can be read as a document', () => {
    const d = take(newDocument('A'), 'Name,Kind,Axles\nA,coach,\nB,engine,2 motor; 5 plastic');
    expect(readDocument(plain(d)).ok).toBe(true);
  });
});
