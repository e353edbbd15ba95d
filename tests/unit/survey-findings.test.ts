import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { applyEdit, type LayoutDocument, newDocument } from '@/core/survey';
import { readSurvey, withAdditions } from '@/core/walk';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';

const walked = (text: string): LayoutDocument => {
  const bare = newDocument('x');
  const { additions, bad } = readSurvey(text, bare);
  expect(bad).toEqual([]);
  return withAdditions(bare, additions);
};
const said = (document: LayoutDocument, kind: string) =>
  checkDesign(document)
    .findings.filter((finding) => finding.kind === kind)
    .map(({ says }) => says);

describe('a line that meets nothing', () => {
  test('is told among others, by any way of meeting no more', () => {
    const text = 'line Main 480\nline Branch 200';
    expect(said(walked(text), 'line that meets nothing')).toHaveLength(2);
    for (const way of ['joins Main start', 'crossing 90 with Main 200', 'crossover 90 to Main 120 long 30'])
      expect(said(walked(`${text}\n${way}`), 'line that meets nothing'), way).toEqual([]);
    expect(said(walked('line Main 480'), 'line that meets nothing')).toEqual([]);
    expect(said(smallValley(), 'line that meets nothing')).toEqual([]);
  });
});

describe('a cut before the clearance point', () => {
  const loop = 'line Main 480\npassing loop 100 to 300 Loop long 205 no 4';
  /** One in four in H0: 4 · 16.5 mm, and on until the tracks are 34.5 mm apart: 201.8 mm in all, by hand. */
  test.each([
    ['gap 119', true],
    ['gap 121', false],
    ['gap 99', false],
    ['gap 281', true],
    ['gap 279', false],
    ['mark 110', true],
    ['line Loop\ngap 19', true],
    ['line Loop\ngap 21', false],
    ['line Loop\nmark 190', true],
  ])('%s', (cut, inside) => {
    const d = walked(`${loop}\n${cut}`);
    expect(said(d, 'cut inside clearance')).toHaveLength(inside ? 1 : 0);
  });
  test('is moved to the clearance point by its remedy, and then no more told', () => {
    const d = walked(`${loop}\ngap 119\nline Loop\ngap 190`);
    const found = checkDesign(d).findings.filter(({ kind }) => kind === 'cut inside clearance');
    expect(found).toHaveLength(2);
    const mended = found.reduce((document, { fixes }) => {
      const result = applyEdit(document, fixes[0]!.edit);
      if (!result.ok) throw new Error(result.problem);
      return result.change.document;
    }, d);
    expect(said(mended, 'cut inside clearance')).toEqual([]);
    expect(said(smallValley(), 'cut inside clearance')).toEqual([]);
  });
});

describe('two things of one kind with one name', () => {
  test.each(['lines', 'trains', 'sensors', 'signals'] as const)('%s are told, each pair once', (what) => {
    const d = learningOval();
    const lines = [d.lines[0]!, { ...d.lines[0]!, id: 'second', name: d.lines[0]!.name }];
    const alike: Record<typeof what, LayoutDocument> = {
      lines: { ...d, lines },
      trains: { ...d, trains: d.trains.map((train) => ({ ...train, name: 'Same' })) },
      sensors: { ...d, sensors: d.sensors.map((sensor, i) => (i < 2 ? { ...sensor, name: 'Same' } : sensor)) },
      signals: {
        ...d,
        features: d.features.map((f) => (f.kind === 'signal' && /^S[12]$/.test(f.name) ? { ...f, name: 'Same' } : f)),
      },
    };
    const told = (document: LayoutDocument) =>
      checkDesign(document).findings.filter(({ kind }) => kind === 'two things with one name');
    expect(told(alike[what]).map(({ says }) => says)).toEqual([
      expect.stringMatching(new RegExp(`^Two ${what} are called`)),
    ]);
    expect(told(d)).toEqual([]);
  });
});
