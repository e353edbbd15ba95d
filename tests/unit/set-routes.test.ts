import { describe, expect, test } from 'vitest';
import { checkDesign, lockingTable } from '@/core/design';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { spinHazards } from '../../tools/spin';
import { railcarsOnLoop } from './locking-plans';

/** A loop whose signals are cleared only for routes that people set; the train stands in rear of A, and another, if asked for, in rear of B. */
function loop(trains: number, commanded: readonly string[] = ['A', 'B', 'ME', 'MW', 'LE', 'LW']): LayoutDocument {
  const d = railcarsOnLoop(trains);
  for (const signal of signalsOf(d)) if (commanded.includes(signal.name)) signal.patterns = ['set routes'];
  return d;
}

function running(d: LayoutDocument) {
  const run = new Rehearsal(compileSystem(d), 1);
  const pass = (ticks: number) => {
    for (let i = 0; i < ticks; i++) run.step();
  };
  const idOf = (name: string) => signalsOf(d).find((one) => one.name === name)!.id;
  const routeOf = (name: string, to: string) =>
    run.system.commanded.find((one) => run.system.readings[one.signal]!.signal.name === name && one.to === to)!;
  const press = (name: string, to: string) => {
    const problem = run.command({ kind: 'set route', signal: idOf(name), route: routeOf(name, to).route });
    pass(5);
    return problem;
  };
  const isSet = (name: string, to: string) => run.controller.values[routeOf(name, to).isSet] === 1;
  const shows = (name: string) => run.aspectAt(run.system.readings.findIndex(({ signal }) => signal.name === name)).id;
  const cancel = (name: string) => {
    run.command({ kind: 'cancel routes', signal: idOf(name) });
    pass(5);
  };
  return { run, pass, press, isSet, shows, cancel };
}

describe('a route that somebody sets by entry and exit', () => {
  test('throws its points, locks them, clears its signal, and is over once a train has come in', () => {
    const { run, pass, press, isSet, shows } = running(loop(1));
    run.command({ kind: 'run', train: 'tr0', on: false });
    pass(600);
    expect(shows('A')).toBe('stop');
    expect(press('A', 'LE')).toBeUndefined();
    expect([isSet('A', 'LE'), run.plant.motors[0]!.position]).toEqual([true, 'between']);
    expect(shows('A')).toBe('stop');
    pass(150);
    expect([run.plant.motors[0]!.position, shows('A'), run.controller.isLocked(0)]).toEqual([
      'diverging',
      'caution',
      true,
    ]);
    run.command({ kind: 'throw', turnout: run.motors[0]!.id, to: 'straight' });
    pass(200);
    expect(run.plant.motors[0]!.position).toBe('diverging');
    run.command({ kind: 'run', train: 'tr0', on: true });
    pass(400);
    expect([isSet('A', 'LE'), shows('A')]).toEqual([false, 'stop']);
  });
  test('one that conflicts waits, if it is told to: it is set once the other is over, who waits longest first, unless it is cancelled', () => {
    const { run, pass, press, isSet, cancel } = running(loop(2));
    for (const id of ['tr0', 'tr1']) run.command({ kind: 'run', train: id, on: false });
    pass(600);
    const wait = (name: string, to: string) => {
      const one = run.system.commanded.find(
        ({ signal, to: leads }) => run.system.readings[signal]!.signal.name === name && leads === to,
      )!;
      return run.command({
        kind: 'set route',
        signal: run.system.readings[one.signal]!.signal.id,
        route: one.route,
        waits: true,
      });
    };
    const waiting = () => run.queue.all.map(({ signal, to }) => `${run.system.readings[signal]!.signal.name} ${to}`);
    press('A', 'ME');
    expect([wait('A', 'LE'), wait('B', 'MW'), wait('B', 'LW'), wait('A', 'LE')]).toEqual(Array(4).fill(undefined));
    pass(50);
    /** B to LW conflicts with B to MW, which waits longer, and not with what is set. */
    expect([isSet('A', 'ME'), waiting()]).toEqual([true, ['A LE', 'B MW', 'B LW']]);
    run.queue.cancel(run.system.readings.findIndex(({ signal }) => signal.name === 'A'));
    expect(waiting()).toEqual(['B MW', 'B LW']);
    cancel('A');
    pass(5);
    expect([isSet('A', 'ME'), isSet('B', 'MW'), waiting()]).toEqual([false, true, ['B LW']]);
    cancel('B');
    pass(5);
    expect([isSet('B', 'MW'), isSet('B', 'LW'), waiting()]).toEqual([false, false, []]);
    expect(wait('B', 'LW')).toBeUndefined();
    pass(5);
    expect(isSet('B', 'LW')).toBe(true);
  });
  test('one that conflicts is refused as long, by name; cancelled, it keeps its points while a train may have seen it clear', () => {
    const { run, pass, press, isSet, cancel } = running(loop(1));
    run.command({ kind: 'run', train: 'tr0', on: false });
    pass(600);
    press('A', 'LE');
    pass(150);
    expect(press('A', 'ME')).toBe('A to ME is not set: A to LE is set, and they conflict.');
    expect(press('MW', 'W')).toBe('MW to W is not set: A to LE is set, and they conflict.');
    expect(press('B', 'LW')).toBe('B to LW is not set: A to LE is set, and they conflict.');
    expect(press('B', 'MW')).toBeUndefined();
    expect([isSet('A', 'LE'), isSet('B', 'MW'), isSet('A', 'ME')]).toEqual([true, true, false]);
    cancel('B');
    cancel('A');
    expect(isSet('A', 'LE')).toBe(false);
    expect(run.controller.isLocked(0)).toBe(true);
    expect(press('A', 'ME')).toBeUndefined();
    pass(20);
    expect(run.plant.motors[0]!.position).toBe('diverging');
    pass(400);
    expect(run.plant.motors[0]!.position).toBe('straight');
  });
  test('a press is never lost, also while the rehearsal stands still', () => {
    const { run, pass, isSet } = running(loop(1));
    run.command({ kind: 'run', train: 'tr0', on: false });
    pass(600);
    const { signal, route } = run.system.commanded[0]!;
    const { id } = run.system.readings[signal]!.signal;
    run.command({ kind: 'set route', signal: id, route });
    expect(isSet('A', 'ME')).toBe(false);
    pass(3);
    expect(isSet('A', 'ME')).toBe(true);
    run.command({ kind: 'cancel routes', signal: id });
    pass(3);
    expect(isSet('A', 'ME')).toBe(false);
  });
  test('of two that conflict and are pressed within one scan the first is set', () => {
    const { run, pass, isSet } = running(loop(1));
    run.command({ kind: 'run', train: 'tr0', on: false });
    pass(600);
    for (const { button } of run.system.commanded) run.controller.pulse(button);
    pass(5);
    const set = run.system.commanded.filter(({ isSet: slot }) => run.controller.values[slot] === 1);
    for (const one of set) for (const rival of one.rivals) expect(set).not.toContain(run.system.commanded[rival]);
    expect(set.length).toBeGreaterThan(0);
    expect(isSet('A', 'ME')).toBe(true);
  });
});

/** With what people do else left out, the buttons are pressed and let go at any moment. */
const TRIED = new Set<Switch>(['throw back']);
function prove(d: LayoutDocument) {
  const run = new ProofRun(compileSystem(d), 600_000, TRIED);
  while (!run.step(5000));
  const { verdicts, finished, states } = run.result();
  return {
    finished,
    states,
    failing: verdicts.filter(({ result }) => result === 'fails').map(({ property }) => property),
  };
}

describe('proved', () => {
  test.each([
    ['one train, one signal commanded', loop(1, ['A'])],
    ['two trains towards each other, one signal commanded', loop(2, ['A'])],
  ])('%s', (_, d) => {
    const { finished, failing } = prove(d);
    expect([finished, failing]).toEqual([true, []]);
  });
  test('Spin agrees', { timeout: 300_000 }, () => {
    const model = new ProofModel(compileSystem(loop(1, ['A'])), TRIED);
    const [look] = spinHazards(writePromela(model), [
      ['points set wrong', 'points moved under a train', 'conflicting signals'],
    ]);
    expect(look).toMatchObject({ errors: 0, complete: true });
  });
});

test('the locking table says that somebody has to set the route', () => {
  const [row] = lockingTable(checkDesign(loop(1, ['A'])));
  expect(row).toMatchObject({ signal: { name: 'A' }, never: false });
  expect(row!.also).toContain('A to ME is set');
});

test('a train that was sent to a block has its routes set for it', () => {
  const d = exampleLayout(EXAMPLES.find(({ id }) => id === 'four-roads')!);
  for (const [block, points] of [
    ['One', ['straight', 'straight', 'diverging']],
    ['Four', ['diverging', 'diverging', 'diverging']],
  ] as const) {
    const run = new Rehearsal(compileSystem(d), 1);
    const arrived: string[] = [];
    expect(run.command({ kind: 'send', train: d.trains[0]!.id, block })).toBeUndefined();
    for (let tick = 0; tick < 6000 && arrived.length === 0; tick++)
      run.step((event) => {
        if (event.kind === 'done') arrived.push(event.block);
      });
    expect(arrived).toEqual([block]);
    const lies = (name: string) => run.plant.motors[run.motors.find((motor) => motor.name === name)!.index]!.position;
    expect(block === 'One' ? [lies('T1'), lies('T4'), lies('T5')] : [lies('T1'), lies('T2'), lies('T6')]).toEqual(
      points,
    );
  }
});
