import { describe, expect, test } from 'vitest';
import { causesIn, checkDesign, tryByHand } from '@/core/design';
import { consistOf, divideTrack } from '@/core/detection';
import { cm, mmOf } from '@/core/measure';
import { ProofModel, ProofRun, STANDARD_SWITCHES, type Switch, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { type Command, HAZARD_IDS, hazardOfEvent, Rehearsal } from '@/core/simulation';
import { applyEdit, type LayoutDocument, type Sensor } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack } from '@/core/track';
import { ring, withTrains } from '@/demo/learning-oval';
import { Draw } from '../../tools/fuzz/draw';
import { spinHazards } from '../../tools/spin';

const LONG = 120;
const sensor = (id: string, kind: Sensor['kind'], at: number, holdMs = 200): Sensor => ({
  id,
  name: id.toUpperCase(),
  kind,
  anchor: { line: 'oval', at: cm(at) },
  holdMs,
  input: undefined,
  certainty: 'fixed',
});
/** A ring of blocks of 120 cm that nothing watches, bounded by marks at 60, 180 … cm, with a magnet 1 cm from either end of each train. */
function bare(blocks: number, trains: number, bothWays = false): LayoutDocument {
  const d = withTrains(ring('Told', blocks, LONG), trains, LONG);
  d.features = d.features.flatMap((one): (typeof d.features)[number][] => {
    if (one.kind === 'gap') return [{ id: one.id, kind: 'mark', line: one.line, at: one.at, certainty: 'fixed' }];
    return bothWays && one.kind === 'signal'
      ? [one, { ...one, id: `${one.id}d`, name: `${one.name}d`, governs: 'down' }]
      : [one];
  });
  d.sensors = [];
  const [engine, coach] = ['engine', 'coach'].map((kind) => d.vehicles.find((one) => one.kind === kind)!);
  d.vehicles = [
    { ...engine!, magnetAt: cm(1) },
    coach!,
    { ...coach!, id: 'last', name: 'Last coach', magnetAt: cm(15) },
  ];
  d.trains = d.trains.map((train) => ({ ...train, vehicles: [engine!.id, coach!.id, 'last'] }));
  return d;
}
/** Two spots of a kind at each boundary, so far apart. */
function counted(
  blocks: number,
  trains: number,
  kind: Sensor['kind'],
  apart: number,
  bothWays = false,
): LayoutDocument {
  const d = bare(blocks, trains, bothWays);
  d.sensors = Array.from({ length: blocks }, (_, i) => [
    sensor(`a${i}`, kind, i * LONG + LONG / 2 - apart / 2),
    sensor(`b${i}`, kind, i * LONG + LONG / 2 + apart / 2),
  ]).flat();
  return d;
}
/** Every block is watched but the one from 180 to 300 cm, in which these stand. */
function oneTold(trains: number, own: Sensor[]): LayoutDocument {
  const d = withTrains(ring('One told', 4, LONG), trains, LONG);
  const gone = d.sensors.find(
    ({ anchor }) => anchor.at.tenthUm > cm(180).tenthUm && anchor.at.tenthUm < cm(300).tenthUm,
  )!;
  d.sensors = [...d.sensors.filter((one) => one !== gone), ...own];
  return d;
}
const toldBy = (d: LayoutDocument) => [...divideTrack(d, compileTrack(d)).inferred.values()].map(({ by }) => by);
const findingsOf = (d: LayoutDocument) => checkDesign(d).findings.map(({ kind, severity }) => `${severity} ${kind}`);
function failing(d: LayoutDocument, switches: ReadonlySet<Switch> = STANDARD_SWITCHES, most = 400_000) {
  const proof = new ProofRun(compileSystem(d), most, switches);
  while (!proof.step(20_000));
  return proof.result(causesIn(d)).verdicts.filter(({ result }) => result !== 'holds');
}
const without = (...some: Switch[]) => new Set([...STANDARD_SWITCHES].filter((one) => !some.includes(one)));

describe('a block inferred by counting', () => {
  test('has two spots of one kind at each end, so near that both notice one wheel, or one magnet, at once', () => {
    expect(toldBy(counted(4, 1, 'reed', 1))).toEqual(['count', 'count', 'count', 'count']);
    expect(toldBy(counted(4, 1, 'reed', 1.2))).toEqual([]);
    expect(toldBy(counted(4, 1, 'treadle', 1.5))).toEqual(['count', 'count', 'count', 'count']);
    const mixed = counted(4, 1, 'reed', 1);
    mixed.sensors[0] = { ...mixed.sensors[0]!, kind: 'treadle' };
    expect(toldBy(mixed)).toHaveLength(2);
  });
  test('what is counted is what stands there, as long as a train is not over the spots, in twenty random runs with turning back', () => {
    let [compared, turns] = [0, 0];
    for (let seed = 1; seed <= 20; seed++) {
      const draw = new Draw(seed);
      const d = counted(draw.whole(3, 5), 2, draw.pick(['reed', 'hall']), 1, true);
      const rehearsal = new Rehearsal(compileSystem(d), seed);
      const { blocks } = rehearsal.system.partition;
      const magnets = consistOf(d, d.trains[0]!).parts.magnet.length;
      expect(magnets).toBe(2);
      for (let tick = 0; tick < 12_000; tick++) {
        if (tick % 150 === 0) {
          const train = draw.pick(d.trains).id;
          const command = draw.pick<Command>([
            { kind: 'run', train, on: true },
            { kind: 'run', train, on: true },
            { kind: 'turn back', train },
            { kind: 'run', train, on: false },
          ]);
          if (rehearsal.command(command) === undefined && command.kind === 'turn back') turns += 1;
        }
        rehearsal.step((event) => expect(hazardOfEvent(event)).toBeUndefined());
        if (tick % 25 > 0) continue;
        /** Where trains stand, in blocks, from their positions alone. */
        const stands = new Set<string>();
        let near = false;
        for (let t = 0; t < d.trains.length; t++)
          for (const { from, to } of rehearsal.plant.positionOf(t)) {
            const [low, high] = [Math.min(from, to), Math.max(from, to)];
            for (const block of blocks)
              for (const piece of block.pieces.map((p) => rehearsal.system.partition.pieces[p]!))
                if (low < mmOf(piece.to) && high > mmOf(piece.from)) stands.add(block.id);
            const over = (at: number) => low < at + 40 && high > at - 40;
            if (d.sensors.some(({ anchor }) => over(mmOf(anchor.at.tenthUm)))) near = true;
          }
        if (near) continue;
        for (const block of blocks) {
          if (rehearsal.controller.evaluator.valueOf(`unsure.${block.id}`) === 1) {
            if (!stands.has(block.id)) rehearsal.command({ kind: 'say', block: block.id, free: true });
            continue;
          }
          compared += 1;
          expect([seed, tick, block.name, rehearsal.controller.evaluator.valueOf(`inside.${block.id}`)]).toEqual([
            seed,
            tick,
            block.name,
            stands.has(block.id) ? 1 : 0,
          ]);
        }
      }
    }
    expect(compared).toBeGreaterThan(2000);
    expect(turns).toBeGreaterThan(50);
  });
  test.each([
    ['reed', 1, 3, 2],
    ['contact rail', 2.3, 3, 1],
  ] as const)(
    '%s spots %f cm apart: %d blocks and %d trains are proved in every state',
    (kind, apart, blocks, trains) => {
      expect(failing(counted(blocks, trains, kind, apart))).toEqual([]);
    },
  );
  test('without anybody who says that a block is free, the first one stays occupied for good', () => {
    expect(failing(counted(3, 1, 'reed', 1), without('say free')).map(({ property }) => property)).toEqual([
      'deadlock',
    ]);
  });
  test('a train without a magnet at its end is lost, by a finding and by the proof', () => {
    const d = counted(4, 2, 'reed', 1);
    d.vehicles = d.vehicles.map(({ magnetAt, ...one }) => (one.id === 'last' ? one : { ...one, magnetAt }));
    expect(findingsOf(d)).toContain('unsafe train that a count loses');
    expect(failing(d).map(({ property }) => property)).toContain('two trains in a block');
    expect(findingsOf(counted(3, 2, 'reed', 1))).not.toContain('unsafe train that a count loses');
  });
  /** Coaches have wheels 4 cm apart from one to the next; two contacts 2 cm apart watch 4.4 cm: a scan decides. */
  test('wheels about as far apart as the pair watches are counted as one or as two', () => {
    const d = counted(4, 2, 'contact rail', 2);
    expect(findingsOf(d)).toContain('unsafe train that a count loses');
    expect(failing(d, STANDARD_SWITCHES, 150_000).map(({ property }) => property)).toContain('two trains in a block');
  });
});

describe('a pulse that is missed, or comes twice', () => {
  const one = () => counted(3, 1, 'reed', 1);
  /** The count of a block, as long as it is sure, against the magnets that stand in it. */
  function countsAfter(commands: (run: Rehearsal) => void) {
    const d = one();
    const run = new Rehearsal(compileSystem(d), 1);
    const { blocks } = run.system.partition;
    const train = d.trains[0]!.id;
    run.command({ kind: 'run', train, on: true });
    commands(run);
    for (let tick = 0; tick < 1200; tick++) run.step();
    return blocks.map(({ id, name }) => ({
      name,
      count: [0, 1, 2].reduce(
        (sum, bit) => sum + run.controller.evaluator.valueOf(`end.${id}.${bit}.bit`) * 2 ** bit,
        0,
      ),
      occupied: run.controller.evaluator.valueOf(`occupied.${id}`) === 1,
      stands: run.plant.positionOf(0).some(({ from, to }) =>
        run.system.partition.blocks
          .find((block) => block.id === id)!
          .pieces.map((p) => run.system.partition.pieces[p]!)
          .some((piece) => Math.min(from, to) < mmOf(piece.to) && Math.max(from, to) > mmOf(piece.from)),
      ),
    }));
  }
  test('one that is missed on the way in leaves the block free with the train in it; one too many there keeps it occupied', () => {
    const sound = countsAfter(() => {});
    expect(sound.every(({ stands, occupied }) => !stands || occupied)).toBe(true);
    const next = (run: Rehearsal) => run.system.partition.inferred.get(sound.findIndex(({ stands }) => stands))!;
    const missed = countsAfter((run) => {
      const told = next(run);
      for (const { inner, outer } of 'pairs' in told ? told.pairs : [])
        for (const { id } of [inner, outer]) run.command({ kind: 'fault', sensor: id, what: 'miss' });
    });
    expect(missed.filter(({ stands, count }) => stands && count === 1)).toHaveLength(1);
    expect(new Rehearsal(compileSystem(one()), 1).command({ kind: 'fault', sensor: 'none', what: 'miss' })).toMatch(
      /no pulses/,
    );
  });
  test('the proof finds what follows only when it is tried, and the rehearsal comes to it', () => {
    const d = counted(3, 2, 'reed', 1);
    expect(failing(d, new Set<Switch>(['say free']))).toEqual([]);
    const proof = new ProofRun(compileSystem(d), 200_000, new Set<Switch>(['say free', 'false pulses']));
    while (!proof.step(20_000));
    const found = proof.result(causesIn(d)).verdicts.find(({ property }) => property === 'two trains in a block')!;
    expect(found.result).toBe('fails');
    expect(found.counterexample!.some(({ says }) => /is missed by|a pulse too many/.test(says))).toBe(true);
    const steered = steerCounterexample(proof.explorer.model, 'two trains in a block', found.counterexample!);
    expect(steered.confirmed).toBe(true);
  });
  test('Spin finds the same of one block that is counted', () => {
    const d = oneCounted();
    const on = new Set<Switch>(['say free', 'false pulses']);
    const found = failing(d, on).map(({ property }) => property);
    expect(found).toContain('signal drops in the face of a train');
    spinFinds(d, on, found);
  });
});

/** One block that is counted by pairs of spots, and one train. */
function oneCounted(): LayoutDocument {
  const spots = [180, 300].flatMap((at) => [at - 0.5, at + 0.5]).map((at, i) => sensor(`p${i}`, 'reed', at));
  const { vehicles, trains } = bare(4, 1);
  return { ...oneTold(1, spots), vehicles, trains: trains.map((one) => ({ ...one, vehicles: ['last'] })) };
}

/** Spin comes to each of the mishaps found, and to no other. */
function spinFinds(d: LayoutDocument, on: ReadonlySet<Switch>, found: readonly string[]): void {
  const told = HAZARD_IDS.filter((hazard) => hazard !== 'rules never settle');
  const met = told.filter((hazard) => found.includes(hazard));
  const looks = spinHazards(writePromela(new ProofModel(compileSystem(d), on)), [
    told.filter((hazard) => !met.includes(hazard)),
    ...met.map((hazard) => [hazard]),
  ]);
  expect(looks.map(({ errors }) => errors > 0)).toEqual([false, ...met.map(() => true)]);
  expect(looks[0]!.complete).toBe(true);
}

describe('people who say that a block is taken', () => {
  const d = oneCounted();
  const DROPS = 'signal drops in the face of a train';
  test('are not tried as a rule, which is said; tried, their word drops a signal in the face of a train, as in the rehearsal', () => {
    const run = new ProofRun(compileSystem(d));
    while (!run.step(20_000));
    expect(run.result().assumptions).toContain('Nobody says that a block is taken which nothing watches.');
    expect(failing(d, without()).map(({ property }) => property)).not.toContain(DROPS);
    const on = new Set<Switch>([...STANDARD_SWITCHES, 'say taken']);
    const proof = new ProofRun(compileSystem(d), 200_000, on);
    while (!proof.step(20_000));
    const found = proof.result(causesIn(d)).verdicts.find(({ property }) => property === DROPS)!;
    expect(found.result).toBe('fails');
    expect(found.counterexample!.some(({ says }) => /^Somebody says that a train is in /.test(says))).toBe(true);
    expect(steerCounterexample(proof.explorer.model, DROPS, found.counterexample!).confirmed).toBe(true);
  });
  test('Spin finds the same', () => {
    const on = new Set<Switch>(['say free', 'say taken']);
    const found = failing(d, on).map(({ property }) => property);
    expect(found).toContain(DROPS);
    spinFinds(d, on, found);
  });
});

describe('a block that is only assumed to be free', () => {
  const spot = sensor('s', 'optical', 190);
  test('a timer lets the next train meet one that stands, which the proof finds; set off by nothing it never says occupied', () => {
    const d = oneTold(2, [spot, sensor('t', 'timer', 240, 20_000)]);
    expect(toldBy(d)).toEqual(['time']);
    const found = failing(d).find(({ property }) => property === 'two trains in a block')!;
    expect(found.cause?.why).toContain('assumed for a time after a train');
    expect(findingsOf(d)).toContain('check block inferred by a timer');
    expect(findingsOf(d)).not.toContain('unsafe timer shorter than a train takes');
    expect(findingsOf(oneTold(2, [spot, sensor('t', 'timer', 240, 2000)]))).toContain(
      'unsafe timer shorter than a train takes',
    );
    expect(findingsOf(oneTold(2, [sensor('t', 'timer', 240, 20_000)]))).toContain('unsafe timer that nothing sets off');
  });
  test('its time is kept to the scan, from when the spot noticed something last', () => {
    const d = oneTold(1, [spot, sensor('t', 'timer', 240, 5000)]);
    const rehearsal = new Rehearsal(compileSystem(d), 1);
    const block = rehearsal.system.partition.blocks.find(({ index }) =>
      rehearsal.system.partition.inferred.has(index),
    )!;
    rehearsal.command({ kind: 'run', train: d.trains[0]!.id, on: true });
    let [last, freed, before] = [0, 0, 0];
    for (let tick = 1; tick < 6000 && freed === 0; tick++) {
      rehearsal.step();
      if (rehearsal.controller.evaluator.valueOf('detect.s') === 1) last = tick;
      const now = rehearsal.controller.evaluator.valueOf(`occupied.${block.id}`);
      if (last > 0 && before === 1 && now === 0) freed = tick;
      before = now;
    }
    expect((freed - last) * 20).toBeGreaterThanOrEqual(5000);
    expect((freed - last) * 20).toBeLessThanOrEqual(5040);
  });
  test('a virtual end that only people tell of is run into; with a spot it holds until somebody says that it is free', () => {
    const alone = oneTold(2, [sensor('v', 'virtual end', 240, 0)]);
    expect(toldBy(alone)).toEqual(['people']);
    expect(failing(alone).map(({ property }) => property)).toContain('two trains in a block');
    const held = oneTold(2, [sensor('s', 'optical', 182), sensor('v', 'virtual end', 240, 0)]);
    expect(failing(held)).toEqual([]);
    expect(failing(held, without('say free')).map(({ property }) => property)).toEqual(['deadlock']);
    for (const d of [alone, held]) expect(findingsOf(d)).toContain('check virtual end');
  });
  test('Spin finds the same with each of them', () => {
    const optical = sensor('s', 'optical', 182);
    const each: [LayoutDocument, boolean][] = [
      [oneTold(2, [sensor('v', 'virtual end', 240, 0)]), true],
      [oneTold(2, [optical, sensor('v', 'virtual end', 240, 0)]), false],
      [oneTold(2, [optical, sensor('t', 'timer', 240, 20_000)]), true],
      [counted(3, 1, 'reed', 1), false],
    ];
    for (const [d, meets] of each) {
      const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d))), [['two trains in a block']]);
      expect([d.sensors.at(-1)!.kind, look!.errors > 0]).toEqual([d.sensors.at(-1)!.kind, meets]);
    }
  });
  test('a toggle is replaced in one step by pairs that know again after the next train', () => {
    const d = oneTold(1, [sensor('a', 'reed', 190), sensor('b', 'reed', 290), sensor('z', 'toggle', 240, 0)]);
    d.vehicles = d.vehicles.map((one) => ({ ...one, magnetAt: one.kind === 'engine' ? cm(2) : one.magnetAt }));
    const { findings } = checkDesign(d);
    const [fix] = findings.find(({ kind }) => kind === 'toggle that can fall out of step')!.fixes;
    expect(fix!.says).toMatch(/^Put two optical spots at each end of .* in the place of Z$/i);
    const done = applyEdit(d, fix!.edit);
    if (!done.ok) throw new Error(done.problem);
    const { document: after } = done.change;
    expect(toldBy(after)).toEqual(['last spot']);
    const before = findings.filter(({ severity }) => severity === 'unsafe').map(({ kind }) => kind);
    const unsafe = checkDesign(after).findings.filter(({ severity }) => severity === 'unsafe');
    expect(unsafe.filter(({ kind }) => !before.includes(kind)).map(({ says }) => says)).toEqual([]);
    /** Said to be free with a train in it, once: it is right again from the next train on. */
    const rehearsal = new Rehearsal(compileSystem(after), 1);
    const { blocks, inferred: told } = rehearsal.system.partition;
    const block = blocks.find(({ index }) => told.has(index))!;
    const seen: boolean[] = [];
    rehearsal.command({ kind: 'run', train: after.trains[0]!.id, on: true });
    let wasTold = false;
    for (let tick = 0; tick < 50 * 240; tick++) {
      rehearsal.step();
      const nose = rehearsal.plant.positionOf(0)[0]!.from / 10;
      const inside = rehearsal.plant.trains[0]!.body().every(({ piece }) => block.pieces.includes(piece));
      if (!inside || nose < 230 || nose > 270) continue;
      if (!wasTold) {
        rehearsal.command({ kind: 'say', block: block.id, free: true });
        wasTold = true;
        continue;
      }
      seen.push(rehearsal.controller.evaluator.valueOf(`occupied.${block.id}`) === 1);
    }
    expect(seen).toContain(false);
    expect(seen.at(-1)).toBe(true);
  });
  test('a toggle keeps step as long as every pulse comes, and is out of it for good after one that does not', () => {
    const d = oneTold(1, [sensor('a', 'reed', 190), sensor('b', 'reed', 290), sensor('z', 'toggle', 240, 0)]);
    const withMagnets = (vehicles: LayoutDocument['vehicles']) =>
      vehicles.map((one) => ({ ...one, magnetAt: one.kind === 'engine' ? cm(2) : one.magnetAt }));
    d.vehicles = withMagnets(d.vehicles);
    expect(toldBy(d)).toEqual(['turns']);
    expect(findingsOf(d)).toContain('unsafe toggle that can fall out of step');
    const pulses = (miss: boolean) => {
      const rehearsal = new Rehearsal(compileSystem(d), 1);
      const block = rehearsal.system.partition.blocks.find(({ index }) =>
        rehearsal.system.partition.inferred.has(index),
      )!;
      rehearsal.command({ kind: 'say', block: block.id, free: true });
      if (miss) rehearsal.command({ kind: 'fault', sensor: 'a', what: 'miss' });
      rehearsal.command({ kind: 'run', train: d.trains[0]!.id, on: true });
      const wrong = new Set<string>();
      for (let tick = 0; tick < 50 * 120; tick++) {
        rehearsal.step();
        const inside = rehearsal.plant.trains[0]!.body().every(({ piece }) => block.pieces.includes(piece));
        const occupied = rehearsal.controller.evaluator.valueOf(`occupied.${block.id}`) === 1;
        /** Between the two spots, magnet and all. */
        const nose = rehearsal.plant.positionOf(0)[0]!.from / 10;
        if (inside && nose > 215 && nose < 285) wrong.add(occupied ? 'right' : 'free with a train in it');
      }
      return [...wrong];
    };
    expect(pulses(false)).toEqual(['right']);
    expect(pulses(true)).toContain('free with a train in it');
    const wild = new Set<Switch>([...STANDARD_SWITCHES, 'false pulses']);
    const { vehicles, trains } = withTrains(ring('One told', 4, LONG), 2, LONG);
    const two = { ...d, trains, vehicles: withMagnets(vehicles) };
    expect(failing(two, wild).map(({ property }) => property)).toContain('two trains in a block');
  });
  test('in a rehearsal somebody says so; of a watched block there is nothing to say', () => {
    const d = oneTold(1, [sensor('v', 'virtual end', 240, 0)]);
    const rehearsal = new Rehearsal(compileSystem(d), 1);
    const { blocks, inferred: told } = rehearsal.system.partition;
    const block = blocks.find(({ index }) => told.has(index))!;
    const occupied = () => rehearsal.controller.evaluator.valueOf(`occupied.${block.id}`);
    for (const free of [true, false, true]) {
      expect(rehearsal.command({ kind: 'say', block: block.id, free })).toBeUndefined();
      rehearsal.step();
      expect(occupied()).toBe(free ? 0 : 1);
    }
    const watched = blocks.find(({ index }) => !told.has(index))!;
    expect(rehearsal.command({ kind: 'say', block: watched.id, free: true })).toMatch(/nothing to say/);
  });
  test('tried by hand an axle put down there is taken for a train', () => {
    for (const kind of ['timer', 'toggle', 'virtual end'] as const) {
      const design = checkDesign(oneTold(0, [spot, sensor('x', kind, 240, 20_000)]));
      const { blocks, inferred: told } = design.scheme.partition;
      const block = blocks.find(({ index }) => told.has(index))!;
      const read = (occupied: string[]) =>
        tryByHand(design, { occupied: occupied as never, points: {} })[`occupied.${block.id}`];
      expect([kind, read([]), read([block.id])]).toEqual([kind, 0, 1]);
    }
  });
});
