import { describe, expect, test } from 'vitest';
import { causesIn } from '@/core/design';
import { sensorKind } from '@/core/kinds';
import { writeProgram } from '@/core/logic';
import { cm } from '@/core/measure';
import { Explorer, ProofModel, ProofRun, proofKey } from '@/core/proof';
import { Rehearsal } from '@/core/simulation';
import {
  applyEdit,
  type Edit,
  idsForNames,
  type LayoutDocument,
  LIST_NAMES,
  namesById,
  thingsOf,
  withNames,
} from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomPatterns } from '../../tools/fuzz/random-patterns';
import { done } from './editing';

const edited = (d: LayoutDocument, ...edits: Edit[]): LayoutDocument =>
  edits.reduce((now, edit) => done(now, edit).document, d);
const keyOf = (d: LayoutDocument): string => compileSystem(d).key;
const example = (id: string) => exampleLayout(EXAMPLES.find((one) => one.id === id)!);

/** The same layout with another name for everything that has one. */
function renamed(d: LayoutDocument): LayoutDocument {
  const other = structuredClone(d);
  for (const list of LIST_NAMES)
    for (const thing of thingsOf(other, list))
      if (typeof thing.name === 'string' && list !== 'rules') thing.name = `Z ${thing.name}`.slice(0, 20);
  other.directions = { up: 'clockwise', down: 'back' };
  return other;
}

/** What runs, compared without the key: the rules as they are written with ids, and all of the document that is no word for people. */
function whatRuns(d: LayoutDocument): string {
  const { program, partition } = compileSystem(d);
  const { called: _, ...unnamed } = program;
  const forPeople = new Set(['name', 'typed', 'notes', 'certainty', 'fixedOn', 'drawing', 'shownUnit', 'directions']);
  const { lines, joins, turnouts, crossings, trains, vehicles, scale, power } = d;
  /** Of what watches a section it counts which one, and not where in it. */
  const sensors = d.sensors.map(({ anchor, ...one }) =>
    sensorKind(one.kind).reachMm === 'section' ? one : { ...one, anchor },
  );
  const watched = partition.sections.map((section) => section.sensors);
  const rest = { lines, joins, turnouts, crossings, trains, vehicles, sensors, watched, scale, power };
  return writeProgram(unnamed) + JSON.stringify(rest, (field, value) => (forPeople.has(field) ? undefined : value));
}

describe('the key of what runs', () => {
  const oval = learningOval();
  test('names, units, notes and what is sure make no difference', () => {
    expect(keyOf(renamed(oval))).toBe(keyOf(oval));
    const same = edited(
      oval,
      { do: 'show unit', unit: 'inch' },
      { do: 'stand signals', side: 'left' },
      { do: 'fix', id: oval.features[0]!.id, certainty: 'tentative' },
      { do: 'name directions', up: 'out', down: 'home' },
    );
    expect(keyOf(same)).toBe(keyOf(oval));
  });
  test('neither do they on the demo and on any example', () => {
    for (const d of [ondrelValley(), ...EXAMPLES.map(exampleLayout)]) expect(keyOf(renamed(d)), d.name).toBe(keyOf(d));
  });
  test.each<[string, Edit]>([
    ['a gap added', { do: 'add cut', kind: 'gap', line: 'oval', at: cm(33) }],
    ['a gap moved', { do: 'move', id: oval.features[0]!.id, at: cm(61) }],
    ['a hold time', { do: 'change sensor', id: oval.sensors[0]!.id, change: { holdMs: 999 } }],
    ['a kind of sensor', { do: 'change sensor', id: oval.sensors[0]!.id, change: { kind: 'isolated rail' } }],
    ['a train faster', { do: 'change train', id: oval.trains[0]!.id, change: { topSpeedKmh: 99 } }],
    ['a train gone', { do: 'delete', id: oval.trains[0]!.id }],
    ['a line longer', { do: 'change line', id: 'oval', length: cm(999) }],
    ['a rule of one’s own', { do: 'own rules', put: [{ name: 'mine', text: 'true' }], drop: [], about: 'mine' }],
  ])('%s does', (_, edit) => expect(keyOf(edited(oval, edit))).not.toBe(keyOf(oval)));

  test('what signals of an area show while nobody is at its post does', () => {
    const d = example('post');
    const area = d.areas.find(({ whenEmpty }) => whenEmpty !== undefined)!;
    const other = { ...area, whenEmpty: area.whenEmpty === 'stop' ? ('caution' as const) : ('stop' as const) };
    const changed = { ...d, areas: d.areas.map((one) => (one === area ? other : one)) };
    expect(keyOf(changed)).not.toBe(keyOf(d));
    expect(proofKey(compileSystem(changed))).not.toBe(proofKey(compileSystem(d)));
  });
});

/** An edit of any kind, by chance: most are possible. */
function anyEdit(d: LayoutDocument, draw: Draw): Edit | undefined {
  const list = LIST_NAMES[draw.below(LIST_NAMES.length)]!;
  const things = thingsOf(d, list);
  const thing = things[draw.below(Math.max(1, things.length))];
  const [signal, sensor, train, turnout] = [
    d.features.filter(({ kind }) => kind === 'signal')[draw.below(3)],
    d.sensors[draw.below(Math.max(1, d.sensors.length))],
    d.trains[draw.below(Math.max(1, d.trains.length))],
    d.turnouts[draw.below(Math.max(1, d.turnouts.length))],
  ];
  const kinds: (() => Edit | undefined)[] = [
    () => thing && { do: 'delete', id: thing.id },
    () => thing && { do: 'rename', id: thing.id, name: `N${draw.below(1000)}` },
    () => thing && { do: 'move', id: thing.id, at: cm(draw.below(300)) },
    () => sensor && { do: 'change sensor', id: sensor.id, change: { holdMs: draw.below(4) * 400 } },
    () => train && { do: 'change train', id: train.id, change: { topSpeedKmh: 40 + draw.below(4) * 10 } },
    () => turnout && { do: 'change turnout', id: turnout.id, change: { throwMs: 500 + draw.below(3) * 500 } },
    () => turnout && { do: 'change turnout', id: turnout.id, change: { lies: ['diverging'] } },
    () => signal && { do: 'use pattern', id: signal.id, pattern: 'timed caution', on: draw.chance(0.7) },
    () => ({ do: 'own rules', put: [{ name: `mine${draw.below(2)}`, text: 'true' }], drop: [], about: 'mine' }),
    () => ({ do: 'set power', power: draw.chance(0.5) ? 'two-rail DC' : 'two-rail digital' }),
    () => ({ do: 'show unit', unit: draw.chance(0.5) ? 'inch' : 'cm' }),
    () => ({ do: 'turnouts in', turnoutsIn: draw.chance(0.5) ? 'routes' : 'blocks' }),
  ];
  return kinds[draw.below(kinds.length)]!();
}

test('any edit after which rules, track or trains are others changes the key; a new name never does', () => {
  let [others, names] = [0, 0];
  for (let seed = 1; seed <= 40; seed++) {
    const draw = new Draw(seed);
    let d = withRandomPatterns(randomLayout(seed), seed);
    for (let i = 0; i < 12; i++) {
      const edit = anyEdit(d, draw);
      const result = edit && applyEdit(d, edit);
      if (!result?.ok) continue;
      const next = result.change.document;
      const before = keyOf(d);
      if (edit!.do === 'rename' || edit!.do === 'show unit') {
        expect(keyOf(next), `${seed}.${i} ${JSON.stringify(edit)}`).toBe(before);
        names += 1;
      } else if (whatRuns(next) !== whatRuns(d)) {
        expect(keyOf(next), `${seed}.${i} ${JSON.stringify(edit)}`).not.toBe(before);
        others += 1;
      }
      d = next;
    }
  }
  expect(others).toBeGreaterThan(100);
  expect(names).toBeGreaterThan(20);
});

describe('what has one key does the same', () => {
  test.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])(
    'random layout %i under other names: harms, states and runs',
    (seed) => {
      const looked = [randomLayout(seed), renamed(randomLayout(seed))].map((d) => {
        const system = compileSystem(d);
        const explorer = new Explorer(new ProofModel(system));
        while (!explorer.run(2000) && explorer.states < 20_000) {}
        const run = new Rehearsal(system, seed);
        for (let tick = 0; tick < 3000; tick++) run.step();
        return {
          key: system.key,
          hazards: [...explorer.hazards.keys()].sort(),
          states: explorer.states,
          trace: run.traceHash,
        };
      });
      expect(looked[1]).toEqual(looked[0]);
    },
  );
});

describe('a proof outlives new names, and tells with them', () => {
  const told = (d: LayoutDocument) => {
    const run = new ProofRun(compileSystem(d), 30_000);
    while (!run.step(5000));
    const { verdicts, key, trains } = run.result(causesIn(d));
    return {
      key,
      says: JSON.stringify([
        verdicts.map(({ counterexample, cause }) => [counterexample, cause?.says, cause?.why]),
        trains,
      ]),
    };
  };
  test.each(['circuits', 'loops', 'arms', 'worth', 'magnet'])('on “%s”', (id) => {
    const d = example(id);
    const unnamed = told(idsForNames(d));
    expect(unnamed.key).toBe(told(d).key);
    expect(withNames(unnamed.says, namesById(d))).toBe(told(d).says);
    const other = renamed(d);
    expect(withNames(unnamed.says, namesById(other))).toBe(told(other).says);
  });
});
