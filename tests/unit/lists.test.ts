import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import {
  applyChange,
  applyEdit,
  callThing,
  compareDocuments,
  DOCUMENT_VERSION,
  freshId,
  type LayoutDocument,
  LIST_NAMES,
  LISTS,
  newDocument,
  placeThing,
  readDocument,
  referenceFaults,
  thingsOf,
} from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { randomLine } from './random-line';

const LAYOUTS = [smallValley(), learningOval(), ...Array.from({ length: 12 }, (_, i) => randomLine(i + 1))];
const everything = (d: LayoutDocument) =>
  LIST_NAMES.flatMap((list) => thingsOf(d, list).map((thing) => ({ list, thing })));
const sound = (d: LayoutDocument) => {
  const reading = readDocument(d);
  return reading.ok ? [] : reading.faults;
};

describe('the table of lists', () => {
  test('a new layout has every list, empty, and can be read', () => {
    const d = newDocument('New');
    for (const list of LIST_NAMES) expect(thingsOf(d, list)).toEqual([]);
    expect(sound(d)).toEqual([]);
  });
  test('the version of the document is that of the newest list', () => {
    expect(DOCUMENT_VERSION).toBe(Math.max(4, ...LIST_NAMES.map((list) => LISTS[list].since ?? 1)));
  });
  test('every reference leads to a list there is, and whatever is kept from going says why', () => {
    for (const list of LIST_NAMES)
      for (const { to, whenGone } of LISTS[list].refers) {
        expect(LIST_NAMES).toContain(to);
        if (typeof whenGone === 'object' && 'keeps' in whenGone) expect(whenGone.keeps).toMatch(/^[a-z].* /);
      }
  });
  test('ids that are made are free, whatever list they are for', () => {
    for (const d of LAYOUTS) {
      const used = new Set(everything(d).map(({ thing }) => thing.id));
      for (const list of LIST_NAMES) expect(used.has(freshId(d, LISTS[list].prefix))).toBe(false);
    }
  });
  test('things are called by what they are, and told apart by where they are', () => {
    const d = smallValley();
    const called = Object.fromEntries(everything(d).map(({ list, thing }) => [thing.id, callThing(list, thing, 'cm')]));
    const [first] = d.turnouts;
    expect(called[first!.id]).toBe(`Turnout ${first!.name}`);
    const gap = d.features.find(({ kind }) => kind === 'gap')!;
    expect(placeThing(d, 'features', gap as never)).toBe(`Gap at ${gap.at.typed} on Main`);
    const signal = d.features.find(({ kind }) => kind === 'signal')!;
    expect(placeThing(d, 'features', signal as never)).toBe('Signal UC1E, 232 cm on Undercroft 1');
  });
});

describe('deleting anything on any layout', () => {
  test('is refused with the names of what keeps it, or leaves a layout that can be read; taking it back gives the same layout', () => {
    let [done, refused] = [0, 0];
    for (const d of LAYOUTS)
      for (const { list, thing } of everything(d)) {
        const result = applyEdit(d, { do: 'delete', id: thing.id });
        if (!result.ok) {
          refused += 1;
          expect(result.problem).toMatch(/Delete (that|those) first\.$|still has things on it|has no vehicles/);
          continue;
        }
        done += 1;
        const { document, inverse } = result.change;
        expect(thingsOf(document, list).some(({ id }) => id === thing.id)).toBe(false);
        expect({ list, id: thing.id, faults: sound(document) }).toMatchObject({ faults: [] });
        expect(compareDocuments(applyChange(document, inverse), d)).toEqual([]);
      }
    expect(done).toBeGreaterThan(500);
    expect(refused).toBeGreaterThan(20);
  });
  test('takes nothing that has nothing to do with it', () => {
    const d = smallValley();
    for (const { list, thing } of everything(d)) {
      const result = applyEdit(d, { do: 'delete', id: thing.id });
      if (!result.ok || LISTS[list].takesAlong || list === 'lines') continue;
      const gone = compareDocuments(d, result.change.document);
      expect(gone.filter(({ change }) => change === 'removed')).toHaveLength(1);
    }
  });
  test('a turnout goes with its track, and a track with things on it stays', () => {
    const d = smallValley();
    const turnout = d.turnouts.find(({ name }) => name === 'T1')!;
    const refused = applyEdit(d, { do: 'delete', id: turnout.id });
    const track = d.lines.find(({ id }) => id === turnout.legs[0]!.line)!.name;
    expect(refused.ok ? '' : refused.problem).toContain(`Track ${track} leads from T1 and still has things on it`);
  });
});

describe('what does not fit together is told, each fault with its place', () => {
  const faultsOf = (change: (d: LayoutDocument) => void) => {
    const d = structuredClone(smallValley());
    change(d);
    return referenceFaults(d).map(({ place, problem }) => `${place}: ${problem}`);
  };
  test.each<[string, (d: LayoutDocument) => void, RegExp]>([
    [
      'an id twice',
      (d) => d.blocks.push({ ...d.blocks[0]! }),
      /^blocks\[\d+\]\.id: The id “.*” is used twice, first at blocks/,
    ],
    [
      'a vehicle that is not there',
      (d) => d.trains[0]!.vehicles.push('v-none'),
      /trains\[0\]\.vehicles\[\d+\]: There is no vehicle/,
    ],
    [
      'a turnout that throws with none',
      (d) => Object.assign(d.turnouts[0]!, { throwsWith: 't-none' }),
      /throwsWith: There is no turnout/,
    ],
    [
      'a start past the end',
      (d) => Object.assign(d.trains[0]!.start!, { at: cm(99_999) }),
      /trains\[0\]\.start\.at: .*past the end/,
    ],
    [
      'an end used twice',
      (d) => d.joins.push({ id: 'j-two', a: d.joins[0]!.a, b: d.joins[0]!.b }),
      /already used at joins\[0\]\.a/,
    ],
    [
      'a gap on a gap',
      (d) => d.features.push({ ...d.features.find(({ kind }) => kind === 'gap')!, id: 'g-two' }),
      /already a gap or block mark at/,
    ],
    [
      'an area that ends first',
      (d) => Object.assign(d.areas[0]!, { to: cm(0) }),
      /areas\[0\]\.to: Area .* ends before it begins/,
    ],
  ])('%s', (_, change, told) => {
    expect(faultsOf(change).join('\n')).toMatch(told);
  });
});
