import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { consistOf, sharedVehicleFindings } from '@/core/detection';
import { applyEdit, type LayoutDocument, readDocument, sharedVehicles } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { generatedTraffic } from '@/demo/generated';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { passingLoop } from '@/demo/passing-loop';
import { smallValley } from '@/demo/small-valley';
import { done } from './editing';

const SHIPPED = [learningOval(), ondrelValley(), passingLoop(['up', 'down', 'up']), ...EXAMPLES.map(exampleLayout)];

const mended = (document: LayoutDocument, id: string) => done(document, { do: 'give own vehicles', id }).document;
const consists = (d: LayoutDocument) => d.trains.map((train) => consistOf(d, train));

describe('one vehicle in two places', () => {
  test.each([...SHIPPED, generatedTraffic(4)].map((d) => [d.name, d] as const))('%s has none', (_, d) => {
    expect(sharedVehicles(d)).toEqual([]);
  });
  test('is told with where, and mended by one edit that changes no train', () => {
    const before = smallValley();
    const told = sharedVehicleFindings(before);
    expect(told.map(({ id }) => id)).toEqual([
      'shared-vehicle v-tank',
      'shared-vehicle v-coach',
      'shared-vehicle v-trailer',
      'shared-vehicle v-wagon',
      'shared-vehicle v-wagon-r',
    ]);
    expect(told[0]!.says).toContain('stands in Morning stopper and in Quarry empties. What is measured');
    expect(told[1]!.says).toContain('stands in Night mail 4 times. What is measured');
    const after = told.reduce((d, { fixes }) => mended(d, (fixes[0]!.edit as { id: string }).id), before);
    expect(sharedVehicleFindings(after)).toEqual([]);
    const reading = readDocument(after);
    expect(reading.ok ? [] : reading.faults).toEqual([]);
    expect(consists(after)).toEqual(consists(before));
    const names = after.vehicles.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(names.slice(0, 7)).toEqual([
      'Tank engine',
      'Tank engine 2',
      'Mail engine',
      'Railcar',
      'Lit coach',
      'Lit coach 2',
      'Lit coach 3',
    ]);
    const severe = (d: LayoutDocument) => checkDesign(d).findings.filter(({ kind }) => !kind.startsWith('one vehicle'));
    expect(severe(after).map(({ id }) => id)).toEqual(severe(before).map(({ id }) => id));
  });
  test('one that changes over between trains of which only one is on the track is a note', () => {
    const d = smallValley();
    const off = d.trains.map((train) => (train.id === 'tr-quarry' ? { ...train, start: undefined } : train));
    const [tank] = sharedVehicleFindings({ ...d, trains: off });
    expect(tank).toMatchObject({ severity: 'note', subject: 'tr-quarry' });
    expect(tank!.says).toContain('Only one of these trains can be on the track at a time.');
  });
  test.each([
    ['v-railcar', 'Railcar is in one place alone.'],
    ['gone', 'That vehicle is no longer there.'],
  ])('%s: %s', (id, problem) => {
    expect(applyEdit(smallValley(), { do: 'give own vehicles', id })).toMatchObject({ ok: false, problem });
  });
  test('a name that ends with a number goes on counting, and stays within what a name may be long', () => {
    const d = smallValley();
    const long = `${'Wagon of the quarry line '.repeat(4).slice(0, 58)} 9`;
    const names = new Map([
      ['v-coach', 'Coach 7'],
      ['v-wagon', long],
    ]);
    const named = { ...d, vehicles: d.vehicles.map((one) => ({ ...one, name: names.get(one.id) ?? one.name })) };
    const after = mended(mended(named, 'v-coach'), 'v-wagon').vehicles.map(({ name }) => name);
    expect(after).toEqual(expect.arrayContaining(['Coach 7', 'Coach 8', 'Coach 9', 'Coach 10']));
    const reading = readDocument(mended(named, 'v-wagon'));
    expect(reading.ok ? [] : reading.faults).toEqual([]);
  });
});
