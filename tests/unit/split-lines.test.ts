import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import {
  applyChange,
  applyEdit,
  type Edit,
  type LayoutDocument,
  LIST_NAMES,
  readDocument,
  thingsOf,
} from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { done, refused } from './editing';
import { whatHappens, whatIsSaid } from './same-layout';

/** What is said, but for the ends of track, which are told for each line. */
const said = (d: LayoutDocument) => {
  const all = whatIsSaid(d);
  return { ...all, findings: all.findings.filter((finding) => !finding.includes('track end without a buffer')) };
};
/** Lengths as they are, not as they were typed, and things in no order. */
const plain = (d: LayoutDocument) => {
  const text = JSON.stringify(d, (key, value) => (key === 'typed' ? undefined : value));
  const value = JSON.parse(text) as LayoutDocument;
  return LIST_NAMES.map((list) => thingsOf(value, list).sort((a, b) => (a.id < b.id ? -1 : 1)));
};

const LAYOUTS = [
  smallValley(),
  learningOval(),
  ...EXAMPLES.map(exampleLayout),
  ...Array.from({ length: 40 }, (_, seed) => randomLayout(seed + 300)),
];

describe('a line split changes nothing but the numbers, and merged again it is what it was', () => {
  test.each(LAYOUTS.map((d) => [d.name, d] as const))('%s', (_, d) => {
    const draw = new Draw(d.name.length + d.lines.length);
    const before = said(d);
    const runs = whatHappens(d);
    for (const { id, length } of d.lines) {
      const at = draw.whole(1, length.tenthUm - 1);
      const edit: Edit = { do: 'split line', id, at: { tenthUm: at, typed: '' } };
      const result = applyEdit(d, edit);
      if (!result.ok) throw new Error(result.problem);
      const { document, inverse } = result.change;
      expect(readDocument(JSON.parse(JSON.stringify(document))).ok).toBe(true);
      expect(document.lines).toHaveLength(d.lines.length + 1);
      expect(said(document)).toEqual(before);
      expect(whatHappens(document)).toEqual(runs);
      expect(applyChange(document, inverse)).toEqual(d);
      const across = d.features.some((f) => f.line === id && 'to' in f && f.at.tenthUm < at && f.to.tenthUm > at);
      const areaAcross = d.areas.some((area) => area.line === id && area.from.tenthUm < at && area.to.tenthUm > at);
      if (across || areaAcross) continue;
      const merged = done(document, { do: 'merge lines', join: document.joins[0]!.id }).document;
      expect(plain(merged)).toEqual(plain(d));
    }
  });
});

describe('where a line is split', () => {
  test('what is read there goes to the side from which it is read', () => {
    const { document } = done(learningOval(), { do: 'split line', id: 'oval', at: cm(180) });
    expect(document.lines.map(({ name, length }) => [name, length.typed])).toEqual([
      ['Oval', '180 cm'],
      ['Oval 2', '300 cm'],
    ]);
    expect(document.features.find(({ id }) => id === 's-S2')).toMatchObject({ line: 'oval', at: cm(180) });
    expect(document.features.find(({ id }) => id === 'g3')).toMatchObject({ line: document.lines[1]!.id, at: cm(120) });
    expect(document.trains.map(({ start }) => start!.at.typed)).toEqual(['170 cm', '110 cm']);
  });
  test('a stretch across it becomes two', () => {
    const d = learningOval();
    d.features.push({
      id: 'x-p',
      kind: 'platform',
      line: 'oval',
      at: cm(100),
      to: cm(260),
      name: 'Long',
      certainty: 'fixed',
    });
    const { document } = done(d, { do: 'split line', id: 'oval', at: cm(180) });
    const platforms = document.features.filter(({ kind }) => kind === 'platform');
    expect(platforms).toMatchObject([
      { line: 'oval', at: cm(100), to: cm(180), name: 'Long' },
      { line: document.lines[1]!.id, at: { tenthUm: 0 }, to: cm(80), name: 'Long' },
    ]);
  });
  test.each<[string, Edit, string]>([
    ['at its end', { do: 'split line', id: 'main', at: cm(0) }, 'between its ends'],
    [
      'in points',
      { do: 'split line', id: 'main', at: smallValley().turnouts.find(({ line }) => line === 'main')!.at },
      'stands there',
    ],
    ['gone', { do: 'split line', id: 'x', at: cm(5) }, 'no longer there'],
    ['a circuit with itself', { do: 'merge lines', join: smallValley().joins[0]!.id }, 'joined to itself'],
    ['not joined', { do: 'merge lines', join: 'x' }, 'no longer joined'],
  ])('%s: refused', (_, edit, problem) => {
    expect(refused(smallValley(), edit)).toContain(problem);
  });
});
