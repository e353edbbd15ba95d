import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, FAILURES, tryByHand } from '@/core/design';
import { compileProgram, Interpreter } from '@/core/logic';
import { names } from '@/core/patterns';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { passingLoop } from '@/demo/passing-loop';
import { fork } from './fork';

/** Rules of 49 CFR part 236, each paraphrased by us. Prototype rules: model practice may choose otherwise. */
const shownBy = (d: LayoutDocument, occupied: string[], points: Record<string, 'straight' | 'diverging'> = {}) => {
  const design = checkDesign(d);
  const values = tryByHand(design, { occupied: occupied as never, points });
  return Object.fromEntries(
    signalsOf(d).map((signal) => [signal.name, design.system.program.enums.aspect![values[names.shows(signal)]!]!]),
  );
};
const outcome = (d: LayoutDocument, fault: RegExp) => {
  const column = FAILURES.findIndex((says) => fault.test(says));
  return new Bench(checkDesign(d)).fails({}).map(({ outcomes }) => outcomes[column]);
};
const wired = (d: LayoutDocument): LayoutDocument => {
  const ids = [...d.sensors.map(({ id }) => id), ...signalsOf(d).map(({ id }) => id)];
  const result = applyEdit(d, { do: 'wire', ids, wiring: { sensors: 'occupied', signals: 'stop', relays: 'off' } });
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const oval = () => withTrains(ring('Six', 6, 150), 2, 150);

describe('49 CFR 236, paraphrased', () => {
  test('.24: signals are spaced so that a train stops, braking as usual, from where a restrictive aspect is learnt of', () => {
    const late = (d: LayoutDocument) =>
      checkDesign(d).findings.some(({ kind }) => kind === 'braking longer than its warning');
    expect(late(oval())).toBe(false);
    const fast = oval();
    fast.trains = fast.trains.map((train) => ({ ...train, topSpeedKmh: 200, brakingMmPerS2: 40 }));
    expect(late(fast)).toBe(true);
  });
  test('.202: points that are not home, by a hand switch too, hold the signal at its most restrictive', () => {
    const d = fork('three-aspect');
    const design = checkDesign(d);
    const compiled = compileProgram(design.system.program);
    const rules = new Interpreter(compiled);
    const [motor] = design.scheme.partition.graph.motors;
    rules.setInput(compiled.slots.get(names.points(motor!))!, design.system.program.enums.position!.indexOf('between'));
    for (let now = 0; now < 20_000; now += 20) rules.scan(now);
    const home = signalsOf(d).find(({ name }) => name === 'Home')!;
    expect(design.system.program.enums.aspect![rules.valueOf(names.shows(home))]).toBe('stop');
  });
  test('.204: on a track worked both ways a train holds the signals that oppose it at stop', () => {
    const d = passingLoop(['up', 'down']);
    const { partition, readings } = checkDesign(d).scheme;
    let looked = 0;
    for (const { signal, routes: ways } of readings)
      for (const way of ways)
        for (const { block } of way.blocks.slice(1)) {
          const shows = shownBy(d, [partition.blocks[block]!.id]);
          expect(shows[signal.name], `${signal.name} against a train in ${partition.blocks[block]!.name}`).toBe('stop');
          looked += 1;
        }
    expect(looked).toBeGreaterThan(3);
  });
  test('.205 (a): a train in the block holds its signal at the most restrictive', () => {
    for (const d of [oval(), ondrelValley()]) {
      const { partition, readings } = checkDesign(d).scheme;
      for (const { signal, routes: ways } of readings) {
        const all = ways.filter(({ blocks }) => blocks.length > 0);
        const [first] = all[0]?.blocks ?? [];
        /** Where a post lets trains in, no sensor is asked: model practice that chose otherwise. */
        if (signal.patterns?.includes('authority')) continue;
        if (!first || !all.every(({ blocks }) => blocks.some(({ block }) => block === first.block))) continue;
        expect(shownBy(d, [partition.blocks[first.block]!.id])[signal.name], signal.name).toBe('stop');
      }
    }
  });
  test('.205 (b) and (c): points or a derail that lie wrong for the way do too', () => {
    const trailing = fork('three-aspect');
    const side = signalsOf(trailing).find(({ name }) => name === 'Side')!;
    /** Read the other way, out of the branch over the points. */
    Object.assign(side, { governs: 'down', at: { tenthUm: 50e5, typed: '50 cm' }, name: 'Out' });
    const [turnout] = trailing.turnouts;
    expect(shownBy(trailing, [], { [turnout!.id]: 'straight' }).Out).toBe('stop');
  });
  test('.205 (d): a track relay that is down, or a detector that is stuck, shows the block occupied', () => {
    for (const one of outcome(wired(oval()), /stuck/)) expect(one).toEqual({ says: 'stop', safe: true });
    for (const one of outcome(wired(oval()), /dead, or its wire/)) expect(one?.safe ?? true).toBe(true);
  });
  test('.205 (e): a dead control circuit lets the signal fall to its most restrictive', () => {
    for (const one of outcome(wired(oval()), /Its wire breaks/)) expect(one).toEqual({ says: 'stop', safe: true });
    const d = wired(oval());
    const spoilt = {
      ...d,
      features: d.features.map((f) => (f.kind === 'signal' ? { ...f, broken: 'clear' as const } : f)),
    };
    for (const one of outcome(spoilt, /Its wire breaks/)) expect(one?.safe).toBe(false);
  });
});
