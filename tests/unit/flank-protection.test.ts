import { describe, expect, test } from 'vitest';
import { checkDesign, lockingTable, triedFixes } from '@/core/design';
import { type Command, Rehearsal } from '@/core/simulation';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { planned } from '@/demo/plans';
import { TRAP } from './locking-plans';

function trap({ guards = true, set = false, together = false } = {}): LayoutDocument {
  const d = planned({ name: 'Trap', text: TRAP });
  const line = d.lines[0]!.id;
  d.vehicles = [vehicle('v', 'v', 20, [2, 5, 15, 18], () => true, 200, 'railcar')];
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.trains = [train('tr', 'Railcar', ['v'], 40, { line, at: 90, facing: 'up' }, rates)];
  const points = (name: string) => d.turnouts.find((one) => one.name === name)!;
  if (guards) points('T2').patterns = ['flank protection'];
  if (together) points('T3').throwsWith = points('T2').id;
  if (set) for (const signal of signalsOf(d)) signal.patterns = ['set routes'];
  return d;
}
const idOf = (d: LayoutDocument, name: string) => [...signalsOf(d), ...d.turnouts].find((one) => one.name === name)!.id;

function running(d: LayoutDocument) {
  const run = new Rehearsal(compileSystem(d), 1);
  const pass = (ticks: number) => {
    for (let i = 0; i < ticks; i++) run.step();
  };
  const command = (one: Command) => run.command(one);
  const shows = (name: string) => run.aspectAt(run.system.readings.findIndex(({ signal }) => signal.name === name)).id;
  const motor = run.system.partition.graph.motors.find(({ name }) => name === 'T2')!;
  const lies = () => run.plant.motors[motor.index]!.position;
  const isLocked = () => run.controller.isLocked(motor.index);
  const throwIt = (to: 'straight' | 'diverging') => {
    command({ kind: 'throw', turnout: motor.id, to });
    pass(250);
  };
  return { run, pass, command, shows, lies, isLocked, throwIt };
}

const row = (d: LayoutDocument) => lockingTable(checkDesign(d)).find(({ signal }) => signal.name === 'A')!;
const sides = (d: LayoutDocument) => row(d).flank.flatMap(({ guards }) => guards.map(({ by, short }) => [by, short]));
const told = (d: LayoutDocument) =>
  checkDesign(d).findings.filter(({ kind }) => kind === 'side of a route that nothing guards');

describe('points that guard the routes beside them', () => {
  test('are told where nobody asks it of them; the fix, tried, lets them guard', () => {
    const d = trap({ guards: false });
    expect(sides(d)).toEqual([['loose points', 'T2 R?']]);
    const finding = told(d).find(({ severity }) => severity === 'check');
    expect(told(d).map(({ severity, id }) => [severity, id.split(' ').length])).toEqual([
      ['check', 4],
      ['note', 3],
      ['note', 3],
    ]);
    expect(finding!.says).toBe(
      'What comes by Siding at 200 cm to T1 can run into the side of A to B. T2 would lead it aside while it lies diverging, but nobody asks that of it.',
    );
    const { offered } = triedFixes(d, checkDesign(d).findings, finding!);
    const done = applyEdit(d, offered[0]!.edit);
    if (!done.ok) throw new Error(done.problem);
    expect(told(done.change.document).map(({ severity }) => severity)).toEqual(['note', 'note']);
    expect(sides(done.change.document)).toEqual([['points', 'T2 R']]);
    const { points, beside } = row(done.change.document);
    expect([points, beside].map((all) => all.map(({ name, position }) => `${name} ${position}`))).toEqual([
      ['T1 straight'],
      ['T2 diverging'],
    ]);
  });
  test('keep the signal at stop until they lie so, and are kept while a train is cleared, and while it passes', () => {
    const { run, pass, command, shows, lies, isLocked, throwIt } = running(trap());
    command({ kind: 'run', train: 'tr', on: false });
    pass(600);
    expect([shows('A'), lies(), isLocked()]).toEqual(['stop', 'straight', false]);
    throwIt('diverging');
    expect([shows('A') === 'stop', isLocked()]).toEqual([false, true]);
    throwIt('straight');
    expect([lies(), shows('A') === 'stop']).toEqual(['diverging', false]);
    command({ kind: 'draw up', train: 'tr', mm: 1300 });
    const inP = () =>
      run.controller.isOn(
        'occupied',
        run.system.partition.blocks.findIndex(({ name }) => name === 'P'),
      );
    let passed = 0;
    for (let i = 0; i < 200 && (passed === 0 || inP()); i++) {
      pass(20);
      if (!inP()) continue;
      command({ kind: 'throw', turnout: idOf(trap(), 'T2'), to: 'straight' });
      pass(5);
      if (!inP()) break;
      passed += 1;
      expect([isLocked(), lies()]).toEqual([true, 'diverging']);
    }
    expect(passed).toBeGreaterThan(0);
    pass(1000);
    throwIt('straight');
    expect([isLocked(), lies()]).toEqual([false, 'straight']);
  });
  test('are asked for where an operator clears the signal, too; arms that follow the points ask for nothing', () => {
    const shown = (pattern: string) => {
      const d = trap();
      signalsOf(d).find(({ name }) => name === 'A')!.patterns = [pattern];
      return [row(d).beside.map(({ name }) => name), sides(d), told(d).map(({ severity }) => severity)];
    };
    expect(shown('authority')).toEqual([['T2'], [['points', 'T2 R']], ['note', 'note']]);
    expect(shown('from the contact')).toEqual([[], [['loose points', 'T2 R?']], ['note', 'note']]);
  });
  test('of points without it the signal asks nothing', () => {
    const { pass, command, shows } = running(trap({ guards: false }));
    command({ kind: 'run', train: 'tr', on: false });
    pass(600);
    expect(shows('A')).not.toBe('stop');
  });
  test('are thrown for a route that people set, and for a train that is sent somewhere', () => {
    const bySetting = running(trap({ set: true }));
    const d = trap();
    bySetting.command({ kind: 'run', train: 'tr', on: false });
    bySetting.pass(600);
    const route = bySetting.run.system.commanded.find(({ to }) => to === 'B')!.route;
    bySetting.command({ kind: 'set route', signal: idOf(d, 'A'), route });
    bySetting.pass(400);
    expect([bySetting.lies(), bySetting.shows('A') === 'stop']).toEqual(['diverging', false]);
    const bySending = running(d);
    const { blocks, pieces } = bySending.run.system.partition;
    const block = blocks.find(({ name }) => name === 'M')!;
    expect(bySending.command({ kind: 'send', train: 'tr', block: block.id })).toBeUndefined();
    bySending.pass(2500);
    const held = bySending.run.plant.trains[0]!.held().map(({ piece }) => pieces[piece]!.block);
    expect([bySending.lies(), held.includes(block.index)]).toEqual(['diverging', true]);
  });
  test('exclude routes that need them otherwise, or points that throw with them, for that reason', () => {
    const conflicts = (together: boolean) => {
      const rows = lockingTable(checkDesign(trap({ together })));
      return rows
        .find(({ signal }) => signal.name === 'A')!
        .conflicts.map(({ row: nth, reason, apart }) => [rows[nth]!.signal.name, rows[nth]!.exit, reason, apart]);
    };
    expect(conflicts(false)).toEqual([]);
    expect(conflicts(true)).toEqual([['V', 'Z', 'flank', false]]);
  });
});
