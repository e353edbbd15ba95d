import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import {
  applyEdit,
  compareDocuments,
  type Edit,
  type LayoutDocument,
  mergeDocuments,
  readDocument,
  separateIds,
} from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { Draw, randomLine } from './random-line';

function edited(document: LayoutDocument, ...edits: Edit[]): LayoutDocument {
  return edits.reduce((now, edit) => {
    const result = applyEdit(now, edit);
    if (!result.ok) throw new Error(result.problem);
    return result.change.document;
  }, document);
}
const says = (a: LayoutDocument, b: LayoutDocument) => compareDocuments(a, b).map((d) => d.says);

describe('comparing two versions', () => {
  const oval = learningOval();
  test('a version does not differ from itself, nor from its own copy read from a file, nor by the order of things', () => {
    const demo = smallValley();
    expect(compareDocuments(demo, JSON.parse(JSON.stringify(demo)))).toEqual([]);
    expect(compareDocuments(demo, { ...demo, features: [...demo.features].reverse() })).toEqual([]);
  });
  test('what was added, moved, renamed and removed is told in words, with its places', () => {
    const changed = edited(
      oval,
      { do: 'add cut', kind: 'mark', line: 'oval', at: cm(100) },
      { do: 'move', id: 'g1', at: cm(62) },
      { do: 'rename layout', name: 'Club oval' },
      { do: 'delete', id: oval.sensors[0]!.id },
    );
    const told = says(oval, changed);
    expect(told).toContain('Name of the layout: Learning oval became Club oval');
    expect(told).toContain('Gap at 60 cm moved to 62 cm');
    expect(told).toContain('Block mark at 100 cm added');
    expect(told.some((t) => /^Current detector \S+ removed$/.test(t))).toBe(true);
    const moved = compareDocuments(oval, changed).find((d) => d.key === 'features g1')!;
    expect(moved.before).toEqual({ line: 'oval', from: cm(60).tenthUm, to: cm(60).tenthUm });
    expect(moved.after!.from).toBe(cm(62).tenthUm);
  });
  test('a changed figure is told with both values', () => {
    const train = oval.trains[0]!;
    const faster = edited(oval, { do: 'change train', id: train.id, change: { topSpeedKmh: 77 } });
    expect(says(oval, faster)).toEqual([`Train ${train.name} top speed ${train.topSpeedKmh} became 77`]);
  });
});

describe('settling what two windows changed', () => {
  const base = learningOval();
  const mine = edited(base, { do: 'move', id: 'g1', at: cm(63) }, { do: 'rename layout', name: 'Mine' });
  const theirs = edited(base, { do: 'add cut', kind: 'gap', line: 'oval', at: cm(200) });
  const keys = (a: LayoutDocument, b: LayoutDocument) => new Set(compareDocuments(a, b).map((d) => d.key));

  test('each side’s own changes are taken when the two touched different things', () => {
    const merged = mergeDocuments(mine, theirs, keys(base, mine));
    expect(
      says(merged, edited(theirs, { do: 'move', id: 'g1', at: cm(63) }, { do: 'rename layout', name: 'Mine' })),
    ).toEqual([]);
    expect(readDocument(merged).ok).toBe(true);
  });
  test('all mine is my version, none of mine is theirs: for random pairs of layouts too', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const draw = new Draw(seed);
      const [a, b] = [randomLine(1 + draw.below(200)), randomLine(1 + draw.below(200))];
      const all = keys(a, b);
      expect(compareDocuments(mergeDocuments(a, b, all), a)).toEqual([]);
      expect(compareDocuments(mergeDocuments(a, b, new Set()), b)).toEqual([]);
    }
  });
  test('things that both sides added under one id are told apart, with all that points at them', () => {
    const siding = (at: number): Edit => ({
      do: 'add turnout',
      turnout: {
        line: 'oval',
        at: cm(at),
        kind: 'turnout',
        facing: 'up',
        hand: 'left',
        clearance: cm(18),
        motor: 'slow',
        throwMs: 800,
        spareContacts: 1,
        lies: ['straight'],
        certainty: 'tentative',
      },
      leads: { kind: 'dead end', name: `Spur ${at}`, length: cm(70) },
    });
    const [a, b] = [edited(base, siding(120)), edited(base, siding(350))];
    const own = separateIds(base, a, b);
    expect(own.turnouts[0]!.id).not.toBe(b.turnouts[0]!.id);
    expect(own.turnouts[0]!.legs[0]!.line).not.toBe(b.turnouts[0]!.legs[0]!.line);
    const merged = mergeDocuments(own, b, keys(base, own));
    expect(readDocument({ ...merged, turnouts: merged.turnouts.map((t, i) => ({ ...t, name: `T${i}` })) }).ok).toBe(
      true,
    );
    expect(merged.lines.map((l) => l.name).sort()).toEqual([...base.lines.map((l) => l.name), 'Spur 120', 'Spur 350']);
    expect(separateIds(base, base, b)).toBe(base);
  });
  test('choices that do not fit together are found by the check of the document', () => {
    const gone = {
      ...theirs,
      lines: [],
      referenceLine: '',
      turnouts: [],
      joins: [],
      features: [],
      blocks: [],
      sensors: [],
    };
    const empty = { ...gone, areas: [], trains: [], vehicles: [], crossings: [] };
    const reading = readDocument(mergeDocuments(mine, empty, new Set(['features g1'])));
    expect(reading.ok ? [] : reading.faults.map((f) => f.problem)).toContain('There is no line “oval”.');
  });
});
