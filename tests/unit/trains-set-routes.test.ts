import { describe, expect, test } from 'vitest';
import { checkDesign, exploreCycle, lockingTable } from '@/core/design';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { withTrains as onRing, ring } from '@/demo/learning-oval';
import { spinHazards } from '../../tools/spin';
import { railcarsOnLoop } from './locking-plans';

/** A loop on a single line on which trains set the routes of every signal. */
function loop(trains: number): LayoutDocument {
  const d = railcarsOnLoop(trains);
  for (const signal of signalsOf(d)) signal.patterns = ['trains set routes'];
  return d;
}

function running(d: LayoutDocument) {
  const run = new Rehearsal(compileSystem(d), 1);
  const pass = (ticks: number) => {
    for (let i = 0; i < ticks; i++) run.step();
  };
  const idOf = (name: string) => signalsOf(d).find((one) => one.name === name)!.id;
  const set = () =>
    run.system.commanded
      .filter(({ isSet }) => run.controller.values[isSet] === 1)
      .map(({ signal, to }) => `${run.system.readings[signal]!.signal.name} to ${to}`);
  return { run, pass, idOf, set };
}

describe('a train that comes to a signal', () => {
  test('has the first route set that is free; where that is taken, the next, and its points thrown', () => {
    const d = loop(1);
    const { run, pass, set } = running(d);
    run.command({ kind: 'run', train: 'tr0', on: false });
    pass(600);
    expect(set()).toEqual(['A to ME']);
    const taken = loop(2);
    taken.trains[1]!.start = {
      ...taken.trains[0]!.start!,
      at: { ...taken.trains[0]!.start!.at, tenthUm: cm(220).tenthUm },
    };
    const two = running(taken);
    for (const { id } of taken.trains) two.run.command({ kind: 'run', train: id, on: false });
    two.pass(600);
    expect(two.set()).toContain('A to LE');
    expect(two.run.plant.motors[0]!.position).toBe('diverging');
  });
  test('is not served while that is switched off; people set its routes then, and cancel them', () => {
    const { run, pass, idOf, set } = running(loop(1));
    run.command({ kind: 'run', train: 'tr0', on: false });
    run.command({ kind: 'switch automatic', thing: idOf('A'), what: 'routes', on: false });
    pass(600);
    expect(set()).toEqual([]);
    const route = run.system.commanded.find(({ to }) => to === 'LE')!.route;
    expect(run.command({ kind: 'set route', signal: idOf('A'), route })).toBeUndefined();
    pass(10);
    expect(set()).toEqual(['A to LE']);
    expect(run.command({ kind: 'cancel routes', signal: idOf('A') })).toBeUndefined();
    pass(10);
    expect(set()).toEqual([]);
    run.command({ kind: 'switch automatic', thing: idOf('A'), what: 'routes', on: true });
    pass(600);
    expect(set()).toEqual(['A to ME']);
    expect(run.command({ kind: 'cancel routes', signal: idOf('A') })).toMatch(/sets it again at once/);
  });
  test('of two at signals whose routes conflict, the one that came first goes first', () => {
    for (const first of [0, 1]) {
      const d = loop(2);
      const { run, pass, idOf, set } = running(d);
      for (const id of ['tr0', 'tr1']) run.command({ kind: 'run', train: id, on: false });
      for (const name of ['A', 'B'])
        run.command({ kind: 'switch automatic', thing: idOf(name), what: 'routes', on: false });
      pass(600);
      for (const name of first === 0 ? ['A', 'B'] : ['B', 'A']) {
        run.command({ kind: 'switch automatic', thing: idOf(name), what: 'routes', on: true });
        pass(3);
      }
      pass(20);
      expect(set()[0]).toMatch(first === 0 ? /^A to ME/ : /^(A to LE|B to MW)/);
      expect(set().some((one) => one.startsWith(first === 0 ? 'A' : 'B'))).toBe(true);
    }
  });
});

describe('proved', () => {
  const prove = (d: LayoutDocument, on: ReadonlySet<Switch>) => {
    const run = new ProofRun(compileSystem(d), 600_000, on);
    while (!run.step(5000));
    const { finished, verdicts } = run.result();
    return [finished, verdicts.filter(({ result }) => result === 'fails').map(({ property }) => property)];
  };
  test('one train on a loop, with anybody throwing points, setting routes, and switching it off and on', () => {
    const d = loop(1);
    for (const signal of signalsOf(d)) if (signal.name !== 'A') signal.patterns = undefined;
    expect(prove(d, new Set<Switch>(['automatic']))).toEqual([true, []]);
  });
  test('Spin agrees', { timeout: 300_000 }, () => {
    const d = loop(1);
    for (const signal of signalsOf(d)) if (signal.name !== 'A') signal.patterns = undefined;
    const model = new ProofModel(compileSystem(d), new Set<Switch>(['automatic']));
    const [look] = spinHazards(writePromela(model), [
      ['points set wrong', 'points moved under a train', 'conflicting signals', 'proceed over a train'],
    ]);
    expect(look).toMatchObject({ errors: 0, complete: true });
  });
});

test('three trains roam free for an hour: each gets round, and nothing happens to anybody', () => {
  const d = exampleLayout(EXAMPLES.find(({ id }) => id === 'roam')!);
  const run = new Rehearsal(compileSystem(d), 5);
  const met = new Set<string>();
  const ran = d.trains.map(() => 0);
  for (let i = 0; i < 50 * 3600; i++) {
    run.step((event) => {
      const hazard = hazardOfEvent(event);
      if (hazard) met.add(hazard);
    });
    run.plant.trains.forEach(({ speed }, t) => {
      ran[t]! += speed / 50;
    });
  }
  expect([...met]).toEqual([]);
  for (const mm of ran) expect(mm).toBeGreaterThan(20 * 10_000);
});

test('a train that is sent takes the road it is sent to, though another is free; the others make way and run on', () => {
  const d = exampleLayout(EXAMPLES.find(({ id }) => id === 'roam')!);
  for (const block of ['Four', 'Two', 'Three', 'One']) {
    const run = new Rehearsal(compileSystem(d), 2);
    const ran = d.trains.map(() => 0);
    const met = new Set<string>();
    let done: string | undefined;
    const step = () =>
      run.step((event) => {
        if (event.kind === 'done') done = event.block;
        const hazard = hazardOfEvent(event);
        if (hazard) met.add(hazard);
      });
    for (let i = 0; i < 50 * 30; i++) step();
    expect(run.command({ kind: 'send', train: d.trains[0]!.id, block })).toBeUndefined();
    for (let i = 0; i < 50 * 400 && !done; i++) step();
    expect(done).toBe(block);
    run.command({ kind: 'run', train: d.trains[0]!.id, on: true });
    for (let i = 0; i < 50 * 600; i++) {
      step();
      run.plant.trains.forEach(({ speed }, t) => {
        ran[t]! += speed / 50;
      });
    }
    expect([...met]).toEqual([]);
    for (const mm of ran) expect(mm).toBeGreaterThan(20_000);
    expect(run.sent.size).toBe(0);
  }
});

test('the locking table says that a route has to be set', () => {
  const row = lockingTable(checkDesign(loop(1))).find(({ signal }) => signal.name === 'A');
  expect(row?.also).toContain('A to ME is set');
});

/** K trains that keep their order on a ring of N blocks stand in K·C(N, K) ways, for K < N (closed form; proved by counting, references 10). */
test.each([
  [5, 2, 20],
  [6, 3, 60],
  [5, 4, 20],
])('on a ring of %i blocks %i trains roam through every way in which they can stand: %i', (blocks, trains, ways) => {
  const d = onRing(ring('Ring', blocks, 120), trains, 120);
  for (const signal of signalsOf(d)) signal.patterns = ['trains set routes'];
  for (const sensor of d.sensors) sensor.holdMs = 0;
  const work = exploreCycle(checkDesign(d));
  let step = work.next();
  while (!step.done) step = work.next();
  const { steps, finished, stuck, hit } = step.value;
  const standing = steps.filter((one) => one.trains.every((block) => block !== undefined));
  expect([finished, stuck, hit]).toEqual([true, undefined, undefined]);
  expect(standing).toHaveLength(ways);
});
test('as many trains as blocks stand for ever', () => {
  const d = onRing(ring('Ring', 4, 120), 4, 120);
  for (const signal of signalsOf(d)) signal.patterns = ['trains set routes'];
  const work = exploreCycle(checkDesign(d));
  let step = work.next();
  while (!step.done) step = work.next();
  expect([step.value.steps.length, step.value.stuck]).toEqual([1, []]);
});
