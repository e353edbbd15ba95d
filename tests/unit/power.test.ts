import { describe, expect, test } from 'vitest';
import { POWER_LEVELS, type PowerId } from '@/core/kinds';
import { CAUTION_SHARE, cm, stoppingDistanceMm } from '@/core/measure';
import { compileScheme, names } from '@/core/patterns';
import { Plant } from '@/core/plant';
import { ProofModel, ProofRun } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { HAZARD_IDS, Rehearsal } from '@/core/simulation';
import { applyEdit, type Facing, type Feature, isKind, type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem, plantParameters } from '@/core/system';
import { block, gap, signal, train, vehicle } from '@/demo/build';
import { learningOval, ring } from '@/demo/learning-oval';
import { covering } from '../../tools/fuzz/covering';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomSensors } from '../../tools/fuzz/random-sensors';
import { spinHazards } from '../../tools/spin';
import { ofSweep } from './sweep';

const level = (id: PowerId) => POWER_LEVELS.findIndex((one) => one.id === id);

/** Stop sections before some of the signals of a layout. */
function withStopSections(document: LayoutDocument, seed: number, share = 0.5): LayoutDocument {
  const draw = new Draw(seed, 555);
  const d = structuredClone(document);
  for (const signal of d.features.filter(isKind('signal'))) if (draw.chance(share)) signal.patterns = ['stop section'];
  return d;
}

describe('the plant obeys the power of a section', () => {
  /** A ring of six blocks of a metre, one train running; the level of power of its first block as given. */
  const speeds = (power: PowerId) => {
    const d = learningOval();
    d.trains = d.trains.slice(0, 1);
    const { partition, readings, aspects } = compileScheme(d);
    const plant = new Plant(plantParameters(d), partition, readings, () => ({ speed: 0, startDelay: 0 }));
    const clear = aspects.at(-1)!;
    const train = plant.trains[0]!;
    const found: { inside: boolean; speed: number; head: number }[] = [];
    const target = partition.pieces.find(({ block }) => partition.blocks[block]!.name === 'B3')!.section;
    let isOn = false;
    for (let tick = 0; tick < 3000; tick++) {
      plant.step(
        () => 'straight',
        () => clear,
        [],
        [{ section: target, level: () => (isOn ? level(power) : level('full')) }],
      );
      const inside = train.consist.pickUpsMm.every((along) => {
        const at = train.head - along;
        const entry = train.tape.findLast(({ from }) => at >= from) ?? train.tape[0]!;
        return partition.pieces[entry.piece]!.section === target;
      });
      isOn ||= inside;
      found.push({ inside, speed: train.speed, head: train.head });
    }
    return { found, top: train.figures.topMmPerS, down: train.figures.brakingMmPerS2 };
  };
  test('off: it comes to a stand within its stopping distance, and stays there', () => {
    const { found, top, down } = speeds('off');
    const cut = found.findIndex(({ inside }) => inside);
    const last = found.at(-1)!;
    expect(found[cut]!.speed).toBeGreaterThan(0.9 * top);
    expect(last.speed).toBe(0);
    const ran = last.head - found[cut]!.head;
    expect(Math.abs(ran - stoppingDistanceMm(found[cut]!.speed, 0, down))).toBeLessThan(0.03 * top);
  });
  test('braking: as off', () => expect(speeds('braking').found.at(-1)!.speed).toBe(0));
  test('slow: half its speed inside, all of it elsewhere', () => {
    const { found, top } = speeds('slow');
    expect(Math.min(...found.slice(800).map(({ speed }) => speed))).toBeCloseTo(top * CAUTION_SHARE, 3);
    expect(Math.max(...found.slice(800).map(({ speed }) => speed))).toBeCloseTo(top, 3);
  });
  test('full: nothing', () => {
    const { found, top } = speeds('full');
    expect(Math.min(...found.slice(800).map(({ speed }) => speed))).toBeCloseTo(top, 3);
  });
});

describe('a section before a signal at stop', () => {
  const held = (change: (d: LayoutDocument) => void = () => {}) => {
    const d = learningOval();
    d.trains = d.trains.slice(0, 1);
    for (const signal of d.features.filter(isKind('signal'))) signal.patterns = ['stop section'];
    change(d);
    const run = new Rehearsal(compileSystem(d), 1);
    const read = (name: string) => run.controller.evaluator.valueOf(name);
    const go = (ticks: number) => {
      for (let tick = 0; tick < ticks; tick++) run.step();
    };
    return { d, run, read, go };
  };
  test('is cut off under a train and blind then, and still counts as occupied', () => {
    const { d, run, read, go } = held();
    for (const signal of d.features.filter(isKind('signal')))
      run.command({ kind: 'hold', signal: signal.id, on: true });
    go(3000);
    const { blocks } = run.system.partition;
    const under = blocks.filter(({ section }) => run.plant.power[section] === level('off'));
    expect(under).toHaveLength(1);
    const [block] = under;
    expect(run.plant.trains[0]!.speed).toBe(0);
    expect(run.plant.detected[block!.section]).toBe(0);
    expect(read(names.occupied(block!))).toBe(1);
    for (const signal of d.features.filter(isKind('signal')))
      run.command({ kind: 'hold', signal: signal.id, on: false });
    const seen: number[] = [];
    for (let tick = 0; tick < 100; tick++) {
      run.step();
      seen.push(read(names.occupied(block!))!);
    }
    expect(new Set(seen)).toEqual(new Set([1]));
    expect(run.plant.power[block!.section]).toBe(level('full'));
    go(3000);
    expect(run.plant.trains[0]!.speed).toBeGreaterThan(0);
  });
  test('an empty one keeps its power, so that what comes is seen', () => {
    const { run, go } = held((d) => {
      d.trains = [];
    });
    go(500);
    expect([...run.plant.power].every((now) => now === level('full'))).toBe(true);
  });
  test('without any, the rules have no word of power', () => {
    expect(compileSystem(learningOval()).program.declarations.some(({ terminal }) => terminal?.kind === 'power')).toBe(
      false,
    );
    const on = applyEdit(learningOval(), {
      do: 'use pattern',
      id: learningOval().features.find(isKind('signal'))!.id,
      pattern: 'stop section',
      on: true,
    });
    expect(on.ok && compileSystem(on.change.document).program.enums.power).toEqual(['off', 'braking', 'slow', 'full']);
  });
});

describe('the proof with sections that are cut off', () => {
  test('covers whatever rehearsals come to: thirty random layouts', () => {
    let compared = 0;
    for (let seed = 41_000; seed < 41_000 + ofSweep(30); seed++) {
      const document = withStopSections(withRandomSensors(randomLayout(seed), seed), seed);
      const result = covering(document, [seed * 2, seed * 2 + 1], 4, 20_000);
      expect(result.contradictions, `layout ${seed}`).toEqual([]);
      if (result.finished) compared += 1;
    }
    expect(compared).toBeGreaterThan(ofSweep(13));
  });
  test('Spin finds the same harms on a ring with stop sections, and on one whose second train is not seen', () => {
    for (const blind of [false, true]) {
      const d = withStopSections(ring('Ring', 4, 60), 1, 1);
      const oval = learningOval();
      d.vehicles = oval.vehicles;
      d.trains = [20, 140].map((at, i) => ({
        ...oval.trains[0]!,
        id: `t${i}`,
        name: `Train ${i}`,
        vehicles: oval.trains[0]!.vehicles.slice(0, 1),
        topSpeedKmh: 20,
        start: { line: d.referenceLine, at: cm(at), facing: 'up' as const },
      }));
      if (blind) d.sensors = d.sensors.slice(1);
      const run = new ProofRun(compileSystem(d));
      while (!run.step(5000)) {}
      const failing = run.result().verdicts.flatMap(({ property, result }) => (result === 'fails' ? [property] : []));
      const model = writePromela(new ProofModel(compileSystem(d)));
      const [look] = spinHazards(model, [HAZARD_IDS.slice(0, 1)]);
      expect(look!.complete).toBe(true);
      expect(look!.errors > 0, `${blind}`).toBe(failing.includes(HAZARD_IDS[0]!));
    }
  });

  /**
   * Three blocks of a metre, each cut off before a signal that is read westbound. A train in the middle one faces the other way, where nothing
   * protects it from the one beyond; but while somebody stands west of it, it has no current to start with.
   */
  const facingAway = (westStands: boolean): LayoutDocument => {
    const d = newDocument('Cut off', 'H0', 'cm');
    d.referenceLine = 'a';
    d.lines = [{ id: 'a', name: 'A', length: cm(300), drawing: undefined }];
    for (const at of [100, 200])
      d.features.push(gap(`g${at}`, 'a', at), {
        ...signal(`D${at}`, 'a', at, 'down'),
        patterns: ['stop section'],
      } as Feature);
    for (const [i, at] of [50, 150, 250].entries()) block(d, `B${i + 1}`, 'a', at);
    const stands: [string, number, Facing][] = [
      ['West', 40, 'down'],
      ['Middle', 150, 'up'],
      ['East', 260, 'up'],
    ];
    for (const [name, at, facing] of westStands ? stands : stands.slice(1)) {
      const rates = { up: 60, down: 90, delayMs: 500, is: 'assumed' } as const;
      d.vehicles.push(vehicle(`v${name}`, `Engine of ${name}`, 14, [3, 6, 9, 12], () => true, 260));
      d.trains.push(train(name, name, [`v${name}`], 40, { line: 'a', at, facing }, rates));
    }
    return d;
  };
  test.each([
    [true, false],
    [false, true],
  ])(
    'with somebody to its west: %s, a train that stands cut off comes to another: %s, by proof, Spin and rehearsal',
    (west, touches) => {
      const system = compileSystem(facingAway(west));
      const run = new ProofRun(system, undefined, new Set());
      while (!run.step(5000)) {}
      const verdict = run.result().verdicts.find(({ property }) => property === 'trains touch')!;
      expect(verdict.result).toBe(touches ? 'fails' : 'holds');
      expect(touches && run.steer('trains touch').confirmed).toBe(touches);
      const [look] = spinHazards(writePromela(new ProofModel(system, new Set())), [['trains touch']]);
      expect([look!.complete || touches, look!.errors > 0]).toEqual([true, touches]);
      const rehearsal = new Rehearsal(system, 1);
      let met = false;
      for (let tick = 0; tick < 50 * 60; tick++) rehearsal.step(({ kind }) => (met ||= kind === 'collision'));
      expect(met).toBe(touches);
    },
  );
});
