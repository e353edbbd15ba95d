import { describe, expect, test } from 'vitest';
import { leftOut } from '@/core/design';
import { CROSSINGS, type PointsKind } from '@/core/kinds';
import { cm } from '@/core/measure';
import { ProofRun, SWITCHES } from '@/core/proof';
import { MOVE_IDS, MOVES } from '@/core/proof/moves';
import type { Crossing, LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { undoOrRedo } from '@/ui/parts/undo-keys';

function proofOf(document: LayoutDocument) {
  const run = new ProofRun(compileSystem(document));
  while (!run.step(10_000));
  return run.result();
}

describe('a proof says nothing of what it has not looked at', () => {
  test('where a rule never settles nothing else was looked at, and that rule is told', () => {
    const oval = learningOval();
    const flickers = {
      ...oval,
      rules: [{ id: 'r1', name: 'flick', text: 'not PREVIOUS(flick)' }],
    } as LayoutDocument;
    const { verdicts } = proofOf(flickers);
    const results = new Map(verdicts.map(({ property, result }) => [property, result]));
    expect(results.get('rules never settle')).toBe('fails');
    results.delete('rules never settle');
    expect([...results.values()].filter((result) => result !== 'not looked at' && result !== 'fails')).toEqual([]);
    expect([...results.values()]).toContain('not looked at');
    /** Which says something: without that rule all of it is. */
    expect(proofOf(oval).verdicts.map(({ result }) => result)).not.toContain('not looked at');
  });
  test('half a minute with power on comes before, and that is said', () => {
    expect(proofOf(learningOval()).assumptions.join(' ')).toContain(
      'Power has been on for 30 seconds before any train moves',
    );
  });
});

describe('what a layout has and a proof leaves out', () => {
  const oval = learningOval();
  const crossing = (kind: string): Crossing =>
    ({
      id: `x-${kind}`,
      name: `X ${kind}`,
      kind: kind as Crossing['kind'],
      a: { line: 'oval', at: cm(100) },
      b: { line: 'other', at: cm(10) },
      clearance: cm(20),
      lies: [],
      certainty: 'fixed',
    }) as unknown as Crossing;

  test('every kind that is read as another is named, and no other', () => {
    for (const [kind, entry] of Object.entries(CROSSINGS)) {
      const said = leftOut({ ...oval, crossings: [crossing(kind)] }).join(' ');
      if ((entry as PointsKind).readAs) expect(said).toContain(`X ${kind}, a ${entry.title.toLowerCase()}, is read as`);
      else expect(said).toBe('');
    }
  });
  test('joints of lift-outs are named with their places', () => {
    const joint = {
      id: 'x1',
      kind: 'liftOut',
      line: 'oval',
      at: cm(77),
      certainty: 'fixed',
    } as LayoutDocument['features'][number];
    expect(leftOut({ ...oval, features: [...oval.features, joint] })).toEqual([
      expect.stringMatching(/^No lift-out is ever out: .*77 cm.* on Oval\.$/),
    ]);
    expect(leftOut(oval)).toEqual([]);
  });
});

describe('chords that take back and do again', () => {
  const chord = (key: string, more: Partial<Parameters<typeof undoOrRedo>[0]> = {}) =>
    undoOrRedo({ key, ctrlKey: true, metaKey: false, altKey: false, shiftKey: false, ...more });
  test.each([
    ['z', {}, 'undo'],
    ['Z', {}, 'undo'],
    ['Z', { shiftKey: true }, 'redo'],
    ['z', { shiftKey: true }, 'redo'],
    ['y', {}, 'redo'],
    ['Y', {}, 'redo'],
    ['z', { ctrlKey: false, metaKey: true }, 'undo'],
    ['z', { ctrlKey: false }, undefined],
    ['z', { altKey: true }, undefined],
    ['x', {}, undefined],
  ] as const)('%s with %j: %s', (key, more, does) => {
    expect(chord(key, more)).toBe(does);
  });
});

describe('what is said to fall into one scan', () => {
  test('is what the proof tries so, neither more nor less', () => {
    const tried = MOVE_IDS.filter((id) => MOVES[MOVE_IDS.indexOf(id)]!.pairs);
    expect(tried).toEqual(['goes on', 'timer ends', 'points are asked for', 'points arrive', 'fails']);
    expect(SWITCHES['one scan'].says).toMatch(
      /trains that go on, points that are asked for or come to lie, timers that end, and what fails$/,
    );
  });
});
