import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import {
  applyChange,
  applyEdit,
  type Edit,
  fixedSince,
  fixedThatMoves,
  type LayoutDocument,
  LIST_NAMES,
  readDocument,
  spanOf,
  thingsOf,
} from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { done, refused } from './editing';

const at = (d: LayoutDocument, id: string) => spanOf(d, id)!.from / 1e5;

test('what is fixed keeps its day, and is told before it moves', () => {
  const d = learningOval();
  const ideas = done(d, { do: 'fix', id: 'g1', certainty: 'tentative', on: '2026-11-27' }).document;
  expect(fixedThatMoves(ideas, { do: 'move', id: 'g1', at: cm(61) })).toEqual([]);
  const fixed = done(ideas, { do: 'fix all', ids: ['g1', 'g2'], certainty: 'fixed', on: '2026-11-27' }).document;
  expect(fixedThatMoves(fixed, { do: 'move', id: 'g1', at: cm(61) })).toEqual([
    { id: 'g1', says: 'Gap at 60 cm on Oval', since: '2026-11-27' },
  ]);
  const several = fixedThatMoves(fixed, { do: 'move all', ids: ['g1', 's-S1', 'g3'], by: 1 });
  expect(several.map(({ id, since }) => [id, since])).toEqual([
    ['g1', '2026-11-27'],
    ['s-S1', undefined],
    ['g3', undefined],
  ]);
  expect(fixedThatMoves(fixed, { do: 'delete', id: 'g1' })).toEqual([]);
  expect(fixedSince(done(fixed, { do: 'fix', id: 'g1', certainty: 'tentative' }).document, 'g1')).toBeUndefined();
});

describe('several things at once', () => {
  test('gaps move with the signals at them, each by the same; nothing else moves', () => {
    const d = learningOval();
    const { document, says } = done(d, { do: 'move all', ids: ['g1', 'g2'], by: cm(5).tenthUm });
    expect(says).toBe('Move 2 things by 5 cm');
    expect(['g1', 's-S1', 'g2', 's-S2', 'g3', 's-S3'].map((id) => at(document, id))).toEqual([
      65, 65, 185, 185, 300, 300,
    ]);
    expect(done(d, { do: 'move all', ids: ['g1', 's-S1'], by: -cm(5).tenthUm }).document.features[0]!.at.typed).toBe(
      '55 cm',
    );
  });
  test('one may take the place that another leaves, but none that is taken', () => {
    const d = learningOval();
    const all = ['g1', 'g2', 'g3'];
    expect(at(done(d, { do: 'move all', ids: all, by: cm(20).tenthUm }).document, 'g3')).toBe(320);
    expect(refused(d, { do: 'move all', ids: ['g1'], by: cm(120).tenthUm })).toContain('already a gap');
    expect(at(done(d, { do: 'move all', ids: [...all, 'g4'], by: -cm(60).tenthUm }).document, 'g1')).toBe(0);
  });
  test.each<[string, Edit, string]>([
    ['before the start', { do: 'move all', ids: ['g1', 'g2'], by: -cm(61).tenthUm }, 'before the start of its line'],
    ['past the end', { do: 'move all', ids: ['g3', 'g4'], by: cm(70).tenthUm }, 'past'],
    ['one that is gone', { do: 'move all', ids: ['g1', 'gone'], by: 1 }, 'Not all of them'],
    ['a train', { do: 'fix all', ids: ['tr1'], certainty: 'fixed' }, 'Not all of them'],
    ['names of things without', { do: 'renumber', ids: ['g1', 's-S1'], word: 'S', from: 1 }, 'Only things with names'],
    ['a name that is taken', { do: 'renumber', ids: ['s-S1', 's-S2'], word: 'S', from: 3 }, 'The name S3 is taken'],
    ['no word', { do: 'renumber', ids: ['s-S1'], word: ' ', from: 3 }, 'Say what their names begin with'],
    ['nothing to delete', { do: 'delete all', ids: ['g1', 'gone'] }, 'Not all of them'],
  ])('%s is refused, and nothing is done', (_, edit, problem) => {
    expect(refused(learningOval(), edit)).toContain(problem);
  });
  test('signals are numbered along the line, in whatever order they were chosen', () => {
    const d = learningOval();
    const { document } = done(d, { do: 'renumber', ids: ['s-S3', 's-S1', 's-S4', 's-S2'], word: 'S', from: 2 });
    expect(['s-S1', 's-S2', 's-S3', 's-S4'].map((id) => document.features.find((f) => f.id === id))).toMatchObject(
      [2, 3, 4, 5].map((n) => ({ name: `S${n}` })),
    );
  });
  test('fixed, and deleted, as one step', () => {
    const d = learningOval();
    const { document } = done(d, { do: 'fix all', ids: ['g1', 'g2'], certainty: 'tentative' });
    expect(document.features.filter(({ certainty }) => certainty === 'tentative').map(({ id }) => id)).toEqual([
      'g1',
      'g2',
    ]);
    const gone = done(d, { do: 'delete all', ids: ['g1', 's-S1'] });
    expect(gone.document.features).toHaveLength(d.features.length - 2);
    expect(applyChange(gone.document, gone.inverse)).toEqual(d);
  });
  test('any of the demo, moved by anything: refused, or sound and taken back whole (fast-check)', () => {
    const d = smallValley();
    const ids = LIST_NAMES.flatMap((list) =>
      thingsOf(d, list)
        .filter(({ certainty }) => certainty !== undefined)
        .map(({ id }) => id),
    );
    let moved = 0;
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...ids), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: -90, max: 90 }),
        (some, by) => {
          const result = applyEdit(d, { do: 'move all', ids: some, by: cm(by).tenthUm });
          if (!result.ok) return;
          moved += 1;
          expect(readDocument(JSON.parse(JSON.stringify(result.change.document))).ok).toBe(true);
          expect(applyChange(result.change.document, result.change.inverse)).toEqual(d);
          for (const id of some) expect(at(result.change.document, id)).toBeCloseTo(at(d, id) + by, 6);
        },
      ),
      { numRuns: 200 },
    );
    expect(moved).toBeGreaterThan(20);
  });
});
