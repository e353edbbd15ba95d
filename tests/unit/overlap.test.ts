import { describe, expect, test } from 'vitest';
import { checkDesign, lockingTable } from '@/core/design';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { drawnLayout } from '../../tools/fuzz/drawn-layout';
import { spinHazards } from '../../tools/spin';
import { railcarsOnLoop } from './locking-plans';
import { ofSweep } from './sweep';

/** A loop on a single line; trains stand in rear of A and of B. At the exits of the loop the turnout beyond can be an overlap. */
function loop(trains: number, overlaps: readonly string[], standsMs?: number): LayoutDocument {
  const d = railcarsOnLoop(trains);
  for (const signal of signalsOf(d)) {
    if (!overlaps.includes(signal.name)) continue;
    signal.patterns = ['overlap'];
    if (standsMs !== undefined) signal.settings = [{ pattern: 'overlap', option: 'standsMs', value: standsMs }];
  }
  return d;
}

function running(d: LayoutDocument) {
  const run = new Rehearsal(compileSystem(d), 1);
  for (const { id } of d.trains) run.command({ kind: 'run', train: id, on: false });
  const pass = (ms: number) => {
    for (let i = 0; i < ms / 20; i++) run.step();
  };
  const shows = (name: string) => run.aspectAt(run.system.readings.findIndex(({ signal }) => signal.name === name)).id;
  const motor = (name: string) => run.system.partition.graph.motors.find((one) => one.name === name)!;
  pass(12_000);
  return { run, pass, shows, motor };
}
const EXITS = ['ME', 'LE', 'MW', 'LW'];

describe('the overlap of a signal', () => {
  test('one train is let into the loop at a time, the one that is listed first; without it both are', () => {
    /** T1 lies straight, T2 leads to the loop: the two do not meet. */
    const cleared = (overlaps: readonly string[]) => {
      const { run, pass, shows, motor } = running(loop(2, overlaps));
      for (const name of ['A', 'B']) {
        const { id } = signalsOf(loop(2, []))!.find((one) => one.name === name)!;
        run.command({ kind: 'hold', signal: id, on: true });
      }
      pass(10_000);
      run.command({ kind: 'throw', turnout: motor('T2').id, to: 'diverging' });
      pass(3000);
      for (const name of ['A', 'B']) {
        const { id } = signalsOf(loop(2, []))!.find((one) => one.name === name)!;
        run.command({ kind: 'hold', signal: id, on: false });
      }
      pass(1000);
      return ['A', 'B'].filter((name) => shows(name) !== 'stop');
    };
    expect(cleared([])).toEqual(['A', 'B']);
    expect(cleared(EXITS)).toEqual(['A']);
  });
  test('its points stay while a train comes up to it, and for as long after as was chosen', () => {
    const free = (standsMs: number) => {
      const { run, pass, motor } = running(loop(1, ['ME'], standsMs));
      const T2 = motor('T2');
      const { id } = signalsOf(loop(1, [])).find(({ name }) => name === 'ME')!;
      run.command({ kind: 'hold', signal: id, on: true });
      expect(run.controller.isLocked(T2.index)).toBe(true);
      run.command({ kind: 'draw up', train: 'tr0', mm: 700 });
      let ms = 0;
      for (; run.controller.isLocked(T2.index) && ms < 90_000; ms += 100) pass(100);
      return ms;
    };
    expect(free(20_000) - free(10_000)).toBeGreaterThan(9000);
    expect(free(20_000) - free(10_000)).toBeLessThan(11_000);
  });
  test('the table says what is kept free, and that others who would run through it are kept out', () => {
    const row = (d: LayoutDocument) => {
      const rows = lockingTable(checkDesign(d));
      const one = rows.find(({ signal, exit }) => signal.name === 'A' && exit === 'ME')!;
      return [
        one.overlap.map(({ name }) => name),
        one.conflicts.map(({ row: nth, reason }) => `${rows[nth]!.signal.name} ${rows[nth]!.exit}: ${reason}`),
      ];
    };
    expect(row(loop(1, []))[0]).toEqual([]);
    const [overlap, conflicts] = row(loop(1, ['ME']));
    expect(overlap).toEqual(['Q']);
    expect(conflicts).toEqual(expect.arrayContaining(['B LW: overlap', 'LE E: overlap']));
    expect(row(loop(1, []))[1]).not.toContain('B LW: overlap');
  });
  test('nothing goes wrong by it and nobody stands for ever, whatever people do; Spin agrees', {
    timeout: 300_000,
  }, () => {
    const on = new Set<Switch>(['turn back']);
    for (const [trains, overlaps] of [
      [1, EXITS],
      [2, ['ME']],
      [2, EXITS],
    ] as const) {
      const d = loop(trains, overlaps);
      const run = new ProofRun(compileSystem(d), 1_000_000, trains === 1 ? on : new Set());
      while (!run.step(5000));
      const { verdicts, finished } = run.result();
      const failing = verdicts.flatMap(({ property, result }) => (result === 'fails' ? [property] : []));
      expect([overlaps, finished, failing]).toEqual([overlaps, true, []]);
    }
    const model = new ProofModel(compileSystem(loop(1, EXITS)), new Set());
    const looks = spinHazards(writePromela(model), [
      ['points moved under a train'],
      ['signal drops in the face of a train'],
    ]);
    expect(looks.map(({ errors }) => errors)).toEqual([0, 0]);
  });
});

test('every signal of any layout can have one: the rules compile, and the table says of each route what is kept free', () => {
  for (let seed = 0; seed < ofSweep(300); seed++) {
    const { document } = drawnLayout(seed);
    for (const signal of signalsOf(document)) signal.patterns = [...new Set([...(signal.patterns ?? []), 'overlap'])];
    const design = checkDesign(document);
    for (const { overlap, ending } of lockingTable(design)) if (ending !== 'signal') expect(overlap).toEqual([]);
  }
});
