import { describe, expect, test } from 'vitest';
import { causesIn, checkDesign } from '@/core/design';
import { divideTrack } from '@/core/detection';
import { compileProgram, Interpreter } from '@/core/logic';
import { cm } from '@/core/measure';
import { names } from '@/core/patterns';
import { ProofModel, ProofRun, STANDARD_SWITCHES, type Switch, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, type Sensor, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack } from '@/core/track';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ring, withTrains } from '@/demo/learning-oval';
import { covering } from '../../tools/fuzz/covering';
import { spinHazards } from '../../tools/spin';
import { done } from './editing';

/** Boards in a chain, told by the nose: one spot just behind each signal, as domain.md D4 has them. The tables are worked by hand from there. */

const LONG = 120;
const SCAN = 20;
const BEHIND = 5;
const sensor = (id: string, kind: Sensor['kind'], at: number, holdMs: number): Sensor => ({
  id,
  name: id.toUpperCase(),
  kind,
  anchor: { line: 'oval', at: cm(at) },
  holdMs,
  input: undefined,
  certainty: 'fixed',
});
/** A ring of blocks of 120 cm bounded by marks at 60, 180 … cm, run upwards, with a spot 5 cm behind each mark and a board in each block. */
function chain(blocks: number, trains: number): LayoutDocument {
  const d = withTrains(ring('Chain', blocks, LONG), trains, LONG);
  d.features = d.features.map((one) =>
    one.kind === 'gap' ? { id: one.id, kind: 'mark', line: one.line, at: one.at, certainty: 'fixed' } : one,
  );
  d.sensors = Array.from({ length: blocks }, (_, i) => [
    sensor(`p${i}`, 'optical', i * LONG + LONG / 2 + BEHIND, 400),
    sensor(`c${i}`, 'chained board', i * LONG + LONG, 0),
  ]).flat();
  return d;
}
const example = () => exampleLayout(EXAMPLES.find(({ id }) => id === 'boards')!);
const findingsOf = (d: LayoutDocument) => checkDesign(d).findings.map(({ kind, severity }) => `${severity} ${kind}`);
function failing(d: LayoutDocument, switches: ReadonlySet<Switch> = STANDARD_SWITCHES) {
  const proof = new ProofRun(compileSystem(d), 400_000, switches);
  while (!proof.step(20_000));
  return {
    model: proof.explorer.model,
    found: proof.result(causesIn(d)).verdicts.filter(({ result }) => result === 'fails'),
  };
}
/** The example's rules, scanned with spots worked by hand. */
function scanning(d: LayoutDocument) {
  const design = checkDesign(d);
  const compiled = compileProgram(design.system.program);
  const rules = new Interpreter(compiled);
  let now = 0;
  const run = (ms: number) => {
    for (const end = now + ms; now < end; now += SCAN) rules.scan(now);
  };
  const set = (input: string, on: boolean) => rules.setInput(compiled.slots.get(input)!, on ? 1 : 0);
  const held = (input: string, ms: number) => {
    set(input, true);
    run(ms);
    set(input, false);
    run(SCAN);
  };
  const spot = (called: string) => names.detect(d.sensors.find(({ name }) => name === called)!);
  const block = (called: string) => design.scheme.partition.blocks.find(({ name }) => name === called)!;
  return {
    run,
    /** A train comes over a spot: two cars with a gap between them. */
    passes(called: string) {
      held(spot(called), 600);
      run(200);
      held(spot(called), 600);
      run(3000);
    },
    says: (called: string) => held(names.freed(block(called)), SCAN),
    shows: () => signalsOf(d).map((signal) => design.system.program.enums.aspect![rules.valueOf(names.shows(signal))]!),
  };
}

describe('three boards in a chain', () => {
  test('each is dropped by the nose that passes it and stepped on by the nose at the next, which shows all three aspects; the last never is', () => {
    const rules = scanning(example());
    rules.run(1000);
    expect(rules.shows()).toEqual(['stop', 'stop', 'stop']);
    for (const block of ['Weir', 'Ford', 'Beyond']) rules.says(block);
    rules.run(1000);
    /** Beyond Board3 the track ends. */
    expect(rules.shows()).toEqual(['clear', 'clear', 'caution']);
    rules.passes('P1');
    expect(rules.shows()).toEqual(['stop', 'clear', 'caution']);
    rules.passes('P2');
    expect(rules.shows()).toEqual(['caution', 'stop', 'caution']);
    rules.passes('P3');
    expect(rules.shows()).toEqual(['clear', 'caution', 'stop']);
    rules.run(600_000);
    expect(rules.shows()).toEqual(['clear', 'caution', 'stop']);
    rules.says('Beyond');
    rules.run(1000);
    expect(rules.shows()).toEqual(['clear', 'clear', 'caution']);
  });
  test('is told what it cannot know, and a timer or a spot beyond mends the last', () => {
    expect(findingsOf(example()).sort()).toEqual([
      ...Array(3).fill('check block released by the nose'),
      'check chain that stays at stop',
    ]);
    const stays = checkDesign(example()).findings.find(({ kind }) => kind === 'chain that stays at stop')!;
    const { document: mended } = done(example(), stays.fixes.find(({ says }) => says === 'Make C3 a timer')!.edit);
    expect(findingsOf(mended)).not.toContain('check chain that stays at stop');
    const rules = scanning(mended);
    rules.run(21_000);
    for (const block of ['Weir', 'Ford']) rules.says(block);
    rules.passes('P3');
    expect(rules.shows()[2]).toBe('stop');
    rules.run(20_000);
    expect(rules.shows()[2]).toBe('caution');
  });
  test('after power-up a board shows caution only where that was chosen, on sight, and as usual from the first train on', () => {
    const d = example();
    for (const signal of signalsOf(d)) signal.patterns = ['caution at first'];
    expect(findingsOf(d)).toContain('unsafe permission by an aspect that says too much');
    for (const signal of signalsOf(d)) signal.system = 'three-and-sight';
    expect(findingsOf(d).filter((one) => one.startsWith('unsafe'))).toEqual([]);
    const rules = scanning(d);
    rules.run(100);
    expect(rules.shows()).toEqual(['stop', 'stop', 'stop']);
    /** Not before the hold times of its detectors are over. */
    rules.run(400);
    expect(rules.shows()).toEqual(['stop', 'stop', 'stop']);
    rules.run(2000);
    expect(rules.shows()).toEqual(['on sight', 'on sight', 'on sight']);
    rules.passes('P1');
    expect(rules.shows()).toEqual(['stop', 'on sight', 'on sight']);
    rules.passes('P2');
    expect(rules.shows()).toEqual(['caution', 'stop', 'on sight']);
  });
});

describe('a ring of boards', () => {
  test('tells each block by the spot behind its signal and the one behind the next', () => {
    const d = chain(4, 1);
    const { inferred: told, blocks } = divideTrack(d, compileTrack(d));
    const read = [...told].map(([index, one]) =>
      one.by === 'nose'
        ? [one.setOff.map(({ id }) => id), one.out.flatMap(({ next, unseen }) => [...next.map(({ id }) => id), unseen])]
        : blocks[index]!.name,
    );
    const sorted = read.sort((a, b) => (String(a) < String(b) ? -1 : 1));
    expect(sorted).toEqual([
      [['p0'], ['p1', false]],
      [['p1'], ['p2', false]],
      [['p2'], ['p3', false]],
      [['p3'], ['p0', false]],
    ]);
    expect(findingsOf(d).every((one) => one === 'check block released by the nose')).toBe(true);
  });
  test('in a rehearsal that block reads occupied whose spot the nose came over last, and no other', () => {
    const d = chain(5, 1);
    const run = new Rehearsal(compileSystem(d), 3);
    const { blocks } = run.system.partition;
    for (const { id } of blocks) run.command({ kind: 'say', block: id, free: true });
    run.command({ kind: 'run', train: d.trains[0]!.id, on: true });
    let [compared, tails] = [0, 0];
    const passed = new Set<number>();
    for (let tick = 0; tick < 50 * 120; tick++) {
      run.step();
      const ends = run.plant.positionOf(0).flatMap(({ from, to }) => [from / 10, to / 10]);
      const [tail, nose] = [Math.min(...ends), Math.max(...ends)];
      /** Astride the joint of the ring its nose has less to say than its tail: not looked at. */
      if (nose - tail > LONG) continue;
      const past = nose - LONG / 2 - BEHIND;
      const nth = Math.floor(past / LONG);
      /** Near a spot a scan decides; what it has come round to once, it has told. */
      if (past < 0 || past - nth * LONG < 2 || past - nth * LONG > LONG - 2) continue;
      if (passed.add(nth).size < 3) continue;
      compared += 1;
      const told = [...run.system.partition.inferred].find(
        ([, one]) => 'setOff' in one && one.setOff[0]!.id === `p${nth}`,
      )!;
      const occupied = blocks.filter(({ id }) => run.controller.evaluator.valueOf(`occupied.${id}`) === 1);
      expect([tick, occupied.map(({ index }) => index)]).toEqual([tick, [told[0]]]);
      if (tail < LONG / 2 + nth * LONG) tails += 1;
    }
    expect(compared).toBeGreaterThan(1000);
    expect(tails).toBeGreaterThan(50);
  });
  test('lets the next train into the tail of one that stops with its nose past the next board: proof, rehearsal and Spin', () => {
    const d = example();
    const { model, found } = failing(d);
    const counterexample = found.find(({ property }) => property === 'two trains in a block')!;
    expect(counterexample.cause?.why).toContain('released by the nose');
    expect(steerCounterexample(model, 'two trains in a block', counterexample.counterexample!).confirmed).toBe(true);
    const looks = spinHazards(writePromela(new ProofModel(compileSystem(d))), [
      ['two trains in a block'],
      ['proceed over a train'],
    ]);
    expect(looks.map(({ errors }) => errors > 0)).toEqual([true, true]);
  });
  test('a train longer than a block of it is told, and waits for one that is not', () => {
    const d = chain(4, 1);
    d.trains = d.trains.map((one) => ({ ...one, vehicles: [...one.vehicles, ...Array(8).fill(one.vehicles.at(-1)!)] }));
    expect(findingsOf(d)).toContain('unsafe train longer than a block of a chain');
    expect(findingsOf(chain(4, 1))).not.toContain('unsafe train longer than a block of a chain');
  });
  test('a board without a spot of its own is told to be set by nothing', () => {
    const d = chain(4, 1);
    d.sensors = d.sensors.filter(({ id }) => id !== 'p1');
    const found = findingsOf(d);
    expect(found).toContain('unsafe board that nothing sets');
    expect(found).toContain('check chain that stays at stop');
  });
  test('that shows caution at power-up lets a train in where one stands: a harm of three aspects, none of one on sight', () => {
    const atFirst = (system: string) => {
      const d = example();
      for (const signal of signalsOf(d)) Object.assign(signal, { system, patterns: ['caution at first'] });
      return d;
    };
    const [open, onSight] = ['three-aspect', 'three-and-sight'].map(atFirst) as [LayoutDocument, LayoutDocument];
    expect(failing(open).found.find(({ property }) => property === 'proceed over a train')?.counterexample).toEqual([]);
    const first = new Rehearsal(compileSystem(onSight), 2);
    for (const [t, { id }] of onSight.trains.entries()) first.command({ kind: 'run', train: id, on: t === 0 });
    const met = new Set<string>();
    for (let tick = 0; tick < 50 * 60; tick++)
      first.step((event) => {
        const hazard = hazardOfEvent(event);
        if (hazard) met.add(hazard);
        else if (event.kind === 'passes') met.add(event.aspect.id);
      });
    /** It was let into the block of the other one, which has stood there since power-up, and stopped short of it. */
    expect([...met]).toEqual(['on sight']);
    expect(first.plant.trains[0]!.speed).toBe(0);
  });
  test.each([
    ['the example', example()],
    ['a ring of three', chain(3, 1)],
    ['a ring of four', chain(4, 1)],
  ])('whatever a rehearsal comes to is among what the proof has found: %s', (_, d) => {
    for (const patterns of [[], ['caution at first']]) {
      const layout = structuredClone(d);
      for (const signal of signalsOf(layout)) signal.patterns = patterns;
      const { contradictions, finished, met } = covering(layout, [1, 2, 3, 4], 5, 60_000);
      expect([finished, contradictions]).toEqual([true, []]);
      expect(met).toContain('proceed over a train');
    }
  });
});
