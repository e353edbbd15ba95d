import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { aspectTree } from '@/core/design/aspect-tree';
import { compileProgram, Interpreter } from '@/core/logic';
import { GIVEN_FOR_MS, names } from '@/core/patterns';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { frameOf, Rehearsal, sayEvent } from '@/core/simulation';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { ring, withTrains } from '@/demo/learning-oval';
import { Draw } from '../../tools/fuzz/draw';
import { spinHazards } from '../../tools/spin';

/** A stop that may be passed by permission, and who goes first of several that a post works. */

const SCAN = 20;
const layout = (system: string, patterns: string[], trains = 0): LayoutDocument => {
  const d = withTrains(ring('Four', 4, 150), trains, 150);
  for (const signal of signalsOf(d)) {
    signal.system = system;
    if (signal.name === 'S1') signal.patterns = patterns;
  }
  return d;
};
function scanning(d: LayoutDocument) {
  const design = checkDesign(d);
  const compiled = compileProgram(design.system.program);
  const rules = new Interpreter(compiled);
  const called = (signal: string) => signalsOf(d).find(({ name }) => name === signal)!;
  let now = 0;
  return {
    set: (name: string, on: boolean) => rules.setInput(compiled.slots.get(name)!, on ? 1 : 0),
    run(ms: number) {
      for (const end = now + ms; now < end; now += SCAN) rules.scan(now);
    },
    shows: (signal: string) => design.system.program.enums.aspect![rules.valueOf(names.shows(called(signal)))],
    press: (signal: string) => names.give(called(signal)),
    given: (signal: string) => names.given(called(signal)),
    value: (name: string) => rules.valueOf(name),
    sensor: (block: string) => {
      const { partition } = design.scheme;
      const { section } = partition.blocks.find(({ name }) => name === block)!;
      return names.detect({ id: partition.sections[section]!.sensors[0]! });
    },
    manned: names.manned({ id: 'post' }),
    beyond: (signal: string) => {
      const { readings, partition } = design.scheme;
      return partition.blocks[readings.find((r) => r.signal.name === signal)!.routes[0]!.blocks[0]!.block]!.name;
    },
  };
}

describe('a stop that may be passed by permission', () => {
  test('one train, on sight, when somebody at the post allows it; else it works as usual', () => {
    const rules = scanning(layout('three-and-sight', ['by permission']));
    rules.run(10_000);
    expect(rules.shows('S1')).toBe('clear');
    rules.set(rules.manned, true);
    rules.set(rules.press('S1'), true);
    rules.run(100);
    /** Nothing is allowed where nothing has to be. */
    expect(rules.shows('S1')).toBe('clear');
    rules.set(rules.press('S1'), false);
    rules.set(rules.sensor(rules.beyond('S1')), true);
    rules.run(GIVEN_FOR_MS);
    expect(rules.shows('S1')).toBe('stop');
    rules.set(rules.press('S1'), true);
    rules.run(100);
    expect(rules.shows('S1')).toBe('on sight');
    rules.set(rules.press('S1'), false);
    rules.run(GIVEN_FOR_MS - 200);
    expect(rules.shows('S1')).toBe('on sight');
    rules.run(400);
    expect(rules.shows('S1')).toBe('stop');
    rules.set(rules.manned, false);
    rules.set(rules.press('S1'), true);
    rules.run(100);
    expect(rules.shows('S1')).toBe('stop');
  });
  test('the train then stops short of the one that stands there', () => {
    const d = layout('three-and-sight', ['by permission'], 2);
    const run = new Rehearsal(compileSystem(d), 1);
    const [second, first] = run.plant.trains;
    const stepped: string[] = [];
    const go = (ms: number) => {
      for (let i = 0; i < ms / SCAN; i++)
        run.step((event) => stepped.push(event.kind === 'passes' ? `passes ${event.aspect.id}` : event.kind));
    };
    /** One is held just beyond S1, the other comes up to it. */
    const beyond = run.system.readings.find(({ signal }) => signal.name === 'S1')!.routes[0]!.blocks[0]!.block;
    const isIn = (train: typeof first) =>
      train!.held().every(({ piece }) => run.system.partition.pieces[piece]!.block === beyond);
    const ahead = [first, second].find((train) => train)!;
    for (let i = 0; i < 20_000 && !isIn(ahead); i++) run.step();
    const [stands, comes] = isIn(first) ? [first!, second!] : [second!, first!];
    run.command({ kind: 'run', train: d.trains[run.plant.trains.indexOf(stands)]!.id, on: false });
    go(60_000);
    expect(comes.speed).toBe(0);
    stepped.length = 0;
    run.command({ kind: 'man', post: 'post', on: true });
    run.command({ kind: 'give', signal: signalsOf(d).find(({ name }) => name === 'S1')!.id, on: true });
    go(60_000);
    expect(stepped).toContain('passes on sight');
    expect(stepped).not.toContain('collision');
    expect([stands.speed, comes.speed]).toEqual([0, 0]);
    expect(comes.onSight).toBe(true);
  });
  test('the proof has nothing against it on sight; by an aspect that says more it finds the harm, as Spin does', () => {
    const hazard = 'proceed over a train';
    for (const [system, result] of [
      ['three-and-sight', 'holds'],
      ['three-aspect', 'fails'],
    ] as const) {
      const d = layout(system, ['by permission'], 2);
      d.trains = d.trains.map((one) => ({ ...one, vehicles: ['v-engine'] }));
      const run = new ProofRun(compileSystem(d), 400_000, new Set<Switch>());
      while (!run.step(5000));
      /** On sight it holds as far as anything can be told: in the proof a train that runs on sight may still touch another. */
      expect(
        run
          .result()
          .verdicts.find(({ property }) => property === hazard)!
          .result.split(' ')[0],
      ).toBe(result);
      const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d), new Set())), [[hazard]]);
      expect({ system, errors: look!.errors }).toEqual({ system, errors: result === 'fails' ? 1 : 0 });
    }
  });
});

test('of two that a post works and that conflict, the one cleared first goes first, of two at once the one listed first', () => {
  const d = layout('three-aspect', ['authority']);
  const first = signalsOf(d).find(({ name }) => name === 'S1')!;
  const at = { tenthUm: first.at.tenthUm + 150e5, typed: '' };
  d.features.push({ ...first, id: 's90', name: 'Back', governs: 'down', at, patterns: ['authority'] });
  const rules = scanning(d);
  const both = (a: boolean, b: boolean, ms: number) => {
    rules.set(rules.press('S1'), a);
    rules.set(rules.press('Back'), b);
    rules.run(ms);
    return [rules.shows('S1'), rules.shows('Back')];
  };
  rules.set(rules.manned, true);
  rules.run(10_000);
  expect(both(false, true, 200)).toEqual(['stop', 'caution']);
  expect(both(true, true, 200)).toEqual(['stop', 'caution']);
  expect(both(false, false, GIVEN_FOR_MS + 200)).toEqual(['stop', 'stop']);
  expect(both(true, true, 200)).toEqual(['caution', 'stop']);
});

/** A signal worked by the rules, read the other way into the block beyond S1, which a post works; another one guards the way on. */
function withRival(pattern: string): LayoutDocument {
  const d = layout('three-aspect', [pattern]);
  const first = signalsOf(d).find(({ name }) => name === 'S1')!;
  for (const [id, name, cm] of [
    ['s90', 'Back', 150],
    ['s91', 'Far', 0],
  ] as const) {
    const at = { tenthUm: first.at.tenthUm + cm * 1e5, typed: '' };
    d.features.push({ ...first, id, name, governs: 'down', at, patterns: [] });
  }
  return d;
}
test.each(['authority', 'by permission'])(
  'a signal cleared from a post, %s, and one that conflicts never let trains on at once',
  (pattern) => {
    const d = withRival(pattern);
    const rules = scanning(d);
    const draw = new Draw(5);
    const inputs = compileSystem(d)
      .program.declarations.filter(({ name, role }) => role === 'input' && /^(detect|tell)/.test(name))
      .map(({ name }) => name);
    rules.set(rules.manned, true);
    let [cleared, back] = [0, 0];
    let [wasGiven, wasBack] = [false, false];
    for (let scan = 0; scan < 20_000; scan++) {
      if (scan % 400 === 0) for (const input of inputs) rules.set(input, draw.chance(0.3));
      if (scan % 25 === 0) rules.set(rules.press('S1'), draw.chance(0.5));
      rules.run(SCAN);
      const shown = [rules.shows('S1'), rules.shows('Back')].map((aspect) => aspect !== 'stop');
      const given = rules.value(rules.given('S1')) === 1;
      if (given && shown[0]) cleared += 1;
      if (shown[1]) back += 1;
      if (given) expect([scan, shown[1]]).toEqual([scan, false]);
      /** Nor is one cleared while the other lets trains on: that would fall before a train. */
      if (given && !wasGiven) expect([scan, wasBack]).toEqual([scan, false]);
      [wasGiven, wasBack] = [given, shown[1]!];
    }
    expect(Math.min(cleared, back)).toBeGreaterThan(100);
  },
);
test('a button pressed to no effect is told, with what stands against it', () => {
  const d = withRival('authority');
  const run = new Rehearsal(compileSystem(d), 1);
  const says: string[] = [];
  const go = (ticks: number) => {
    for (let i = 0; i < ticks; i++)
      run.step((event) => event.kind === 'not cleared' && says.push(sayEvent(run, event)!));
  };
  const first = signalsOf(d).find(({ name }) => name === 'S1')!.id;
  const press = () => {
    for (const on of [true, false]) {
      run.command({ kind: 'give', signal: first, on });
      go(5);
    }
  };
  go(500);
  press();
  expect(says).toEqual(['S1 is not cleared: it shows proceed already, or nobody is at its post']);
  run.command({ kind: 'man', post: 'post', on: true });
  go(5);
  press();
  expect(says).toHaveLength(1);
  expect(run.controller.evaluator.valueOf(names.given({ id: first }))).toBe(1);
});

test.each([
  ['by permission', 'on sight', 'it is passed by permission, on sight'],
  ['timed caution', 'caution', 'its timer has not stepped on since the route ahead became free'],
])('what it shows and when tells of what holds it back: %s', (pattern, aspect, says) => {
  const {
    scheme,
    system: { program },
  } = checkDesign(layout('three-and-sight', [pattern]));
  const tree = aspectTree(scheme, program, scheme.readings.find(({ signal }) => signal.name === 'S1')!);
  const [branches] = Object.values(tree.routes);
  expect(branches!.map((branch) => branch.aspect).sort()).toEqual([...new Set(['caution', 'clear', aspect])].sort());
  expect(branches!.find((branch) => branch.aspect === aspect)!.when).toContain(says);
  expect(branches!.find((branch) => branch.aspect === 'clear')!.when).not.toContain(says);
});

test('a post is taken, handed over to another of the people, and given up; what was cleared stays cleared meanwhile', () => {
  const d = { ...layout('three-and-sight', ['authority']), people: 2 };
  const run = new Rehearsal(compileSystem(d), 1);
  const { id } = signalsOf(d).find(({ name }) => name === 'S1')!;
  const step = (times: number) => {
    for (let i = 0; i < times; i++) run.step();
    const { manned, atPost, given } = frameOf(run);
    return { manned, atPost, given };
  };
  expect(run.command({ kind: 'man', post: 'post', on: true, by: 3 })).toBe('Only 2 run this layout.');
  run.command({ kind: 'man', post: 'post', on: true });
  run.command({ kind: 'give', signal: id, on: true });
  expect(step(500)).toEqual({ manned: ['post'], atPost: { post: 1 }, given: [id] });
  run.command({ kind: 'man', post: 'post', on: true, by: 2 });
  expect(step(5)).toEqual({ manned: ['post'], atPost: { post: 2 }, given: [id] });
  run.command({ kind: 'man', post: 'post', on: false });
  expect(step(5)).toEqual({ manned: [], atPost: {}, given: [] });
});

test('permission by a system that cannot say on sight is unsafe, mended by its remedy', () => {
  const kind = 'permission by an aspect that says too much';
  const d = layout('three-aspect', ['by permission']);
  const [found, ...more] = checkDesign(d).findings.filter((one) => one.kind === kind);
  expect(more).toEqual([]);
  expect(found!.says).toContain('S1 shows proceed where a train may stand, by caution');
  const done = applyEdit(d, found!.fixes[0]!.edit);
  if (!done.ok) throw new Error(done.problem);
  expect(checkDesign(done.change.document).findings.filter((one) => one.kind === kind)).toEqual([]);
});
