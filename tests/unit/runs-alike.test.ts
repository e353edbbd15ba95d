import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { Explorer, ProofModel } from '@/core/proof';
import { Rehearsal } from '@/core/simulation';
import { applyEdit, type Edit, type LayoutDocument, runsAlike } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { randomLayout } from '../../tools/fuzz/random-layout';

const edited = (d: LayoutDocument, ...edits: Edit[]): LayoutDocument =>
  edits.reduce((now, edit) => {
    const result = applyEdit(now, edit);
    if (!result.ok) throw new Error(result.problem);
    return result.change.document;
  }, d);

/** The same layout with another name for everything that has one. */
function renamed(d: LayoutDocument): LayoutDocument {
  const other = structuredClone(d);
  const lists = [
    other.lines,
    other.turnouts,
    other.crossings,
    other.blocks,
    other.sensors,
    other.vehicles,
    other.trains,
  ];
  for (const thing of [...lists.flat(), ...other.features])
    if ('name' in thing) thing.name = `Z ${thing.name}`.slice(0, 20);
  other.directions = { up: 'clockwise', down: 'back' };
  return other;
}

describe('documents that run alike', () => {
  const oval = learningOval();
  test('names, units, notes and what is sure make no difference', () => {
    expect(runsAlike(oval, renamed(oval))).toBe(true);
    const same = edited(
      oval,
      { do: 'show unit', unit: 'inch' },
      { do: 'fix', id: oval.features[0]!.id, certainty: 'tentative' },
      { do: 'name directions', up: 'out', down: 'home' },
    );
    expect(runsAlike(oval, same)).toBe(true);
  });
  test.each<[string, Edit]>([
    ['a gap added', { do: 'add cut', kind: 'gap', line: 'oval', at: cm(33) }],
    ['a gap moved', { do: 'move', id: oval.features[0]!.id, at: cm(61) }],
    ['a hold time', { do: 'change sensor', id: oval.sensors[0]!.id, change: { holdMs: 999 } }],
    ['a kind of sensor', { do: 'change sensor', id: oval.sensors[0]!.id, change: { kind: 'isolated rail' } }],
    ['a train faster', { do: 'change train', id: oval.trains[0]!.id, change: { topSpeedKmh: 99 } }],
    ['a train gone', { do: 'delete', id: oval.trains[0]!.id }],
    ['a line longer', { do: 'change line', id: 'oval', length: cm(999) }],
  ])('%s does', (_, edit) => expect(runsAlike(oval, edited(oval, edit))).toBe(false));
});

describe('what is true of one is true of the other', () => {
  test.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])(
    'random layout %i under other names: harms, states and runs',
    (seed) => {
      const looked = [randomLayout(seed), renamed(randomLayout(seed))].map((d) => {
        const explorer = new Explorer(new ProofModel(d));
        while (!explorer.run(2000) && explorer.set.size < 20_000) {}
        const run = new Rehearsal(d, seed);
        for (let tick = 0; tick < 3000; tick++) run.step();
        return { harms: [...explorer.harms.keys()].sort(), states: explorer.set.size, trace: run.traceHash };
      });
      expect(looked[1]).toEqual(looked[0]);
    },
  );
});
