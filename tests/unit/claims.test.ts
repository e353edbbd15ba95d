import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, type Property, type Switch, steerCounterexample } from '@/core/proof';
import { Rehearsal } from '@/core/simulation';
import { type Facing, type LayoutDocument, newDocument, type Train } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';

/** Layouts made to break a claim: what people build by mistake, each with the mishap that a tape and a pencil foretell. */

const line = (id: string, length: number) => ({ id, name: id, length: cm(length), drawing: undefined });
const rates = { up: 80, down: 120, delayMs: 200, is: 'assumed' } as const;
const railcar = (length = 22, axles = [2, 5, length - 5, length - 2]) =>
  vehicle('v-railcar', 'Railcar', length, axles, () => true, 200);
const at = (name: string, l: string, where: number, facing: Facing, kmh = 50): Train =>
  train(`tr-${name}`, name, ['v-railcar'], kmh, { line: l, at: where, facing }, rates);

function prove(document: LayoutDocument, on?: ReadonlySet<Switch>) {
  const run = new ProofRun(compileSystem(document), 400_000, on);
  while (!run.step(5000));
  const proof = run.result();
  const failing = proof.verdicts.filter((v) => v.result === 'fails').map((v) => v.property);
  const confirm = (property: Property) => {
    const verdict = proof.verdicts.find((v) => v.property === property)!;
    return steerCounterexample(run.explorer.model, property, verdict.counterexample!);
  };
  return { proof, failing, confirm, model: run.explorer.model };
}

/** Two lines of two blocks each that cross in the middle, with no signal anywhere. */
function diamond(): LayoutDocument {
  const d = newDocument('Diamond');
  d.referenceLine = 'a';
  d.lines = [line('a', 300), line('b', 300)];
  d.features = [gap('g1', 'a', 100), gap('g2', 'b', 100)];
  for (const l of ['a', 'b']) {
    block(d, `${l}1`, l, 50);
    block(d, `${l}2`, l, 200);
  }
  d.crossings = [
    {
      id: 'x1',
      name: 'X1',
      kind: 'diamond',
      a: { line: 'a', at: cm(180) },
      b: { line: 'b', at: cm(180) },
      angleDegrees: 30,
      clearance: cm(15),
      certainty: 'fixed',
    },
  ];
  d.vehicles = [railcar()];
  d.trains = [at('One', 'a', 60, 'up'), at('Two', 'b', 60, 'up')];
  return d;
}

/** An oval of 6 m, run one way, with a dead-end siding that trains go into over facing points: its end is the end of the journey. */
function ovalWithSiding(clearanceCm: number, gapCm: number, sidingCm = 150): LayoutDocument {
  const d = newDocument('Oval with a siding');
  d.referenceLine = 'main';
  d.lines = [line('main', 600), line('siding', sidingCm)];
  d.joins = [{ id: 'j', a: { line: 'main', end: 'end' }, b: { line: 'main', end: 'start' } }];
  d.turnouts = [{ ...turnout('T1', 'main', 200, 'up', 'left', 'siding'), clearance: cm(clearanceCm) }];
  d.features = [
    gap('g1', 'main', 180),
    gap('g2', 'main', 200 + gapCm),
    gap('g3', 'siding', gapCm),
    gap('g4', 'main', 450),
    signal('A', 'main', 180, 'up'),
    signal('B', 'main', 450, 'up'),
  ];
  block(d, 'Points', 'main', 190);
  block(d, 'East', 'main', 300);
  block(d, 'West', 'main', 550);
  block(d, 'Siding', 'siding', sidingCm - 10);
  d.vehicles = [railcar()];
  return d;
}
const noTurning = new Set<Switch>(['throw back', 'one scan']);

describe('fouling: bodies collide where tracks meet or cross, not in blocks alone', () => {
  test('two lines over a diamond without signals: they touch, and the rehearsal comes to it', () => {
    const { failing, confirm } = prove(diamond());
    expect(failing).toEqual(['trains touch']);
    expect(confirm('trains touch').confirmed).toBe(true);
  });
  test('a tail that no detector sees stands beside the other leg, and the next train touches it', () => {
    const d = ovalWithSiding(20, 26, 60);
    d.vehicles = [railcar(44, [2, 5, 17, 20]), { ...railcar(), id: 'v-short' }];
    d.trains = [at('Waiting', 'main', 590, 'up'), { ...at('Passing', 'main', 440, 'up'), vehicles: ['v-short'] }];
    const { failing, confirm } = prove(d, noTurning);
    expect(failing).toContain('trains touch');
    expect(confirm('trains touch').confirmed).toBe(true);
  });
  test('a tail that is seen keeps the other leg shut', () => {
    const d = ovalWithSiding(20, 26, 60);
    d.vehicles = [railcar(44, [2, 5, 39, 42]), { ...railcar(), id: 'v-short' }];
    d.trains = [at('Waiting', 'main', 590, 'up'), { ...at('Passing', 'main', 440, 'up'), vehicles: ['v-short'] }];
    expect(prove(d, noTurning).failing).toEqual([]);
  });
  test('the clearance of a leg goes on over a second turnout close by', () => {
    const d = ovalWithSiding(20, 40);
    d.lines.push(line('second', 150));
    d.turnouts.push({ ...turnout('T2', 'siding', 10, 'up', 'left', 'second'), clearance: cm(20) });
    d.features = d.features.filter((f) => f.id !== 'g3');
    d.features.push(gap('g3', 'siding', 30), gap('g5', 'second', 5));
    block(d, 'Second', 'second', 100);
    const { lockedBy } = viewOf(d);
    expect(lockedBy['t-T1']).toContain('Second');
    const { scheme } = checkDesign(d);
    const way = scheme.routesOf[scheme.readings.findIndex((r) => r.signal.name === 'A')]!.find(
      ({ route: w }) => w.conditions[0]!.position === 'straight',
    )!.route;
    const named = (b: number) => scheme.partition.blocks[b]!.name;
    expect([...way.blocks.map((b) => b.block), ...way.fouled].map(named)).toContain('Second');
  });
});

const viewOf = (d: LayoutDocument) => {
  const {
    scheme,
    system: { program },
  } = checkDesign(d);
  const locks = program.declarations.filter((x) => x.name.startsWith('locked.'));
  return {
    lockedBy: Object.fromEntries(
      d.turnouts.map((t) => [
        t.id,
        scheme.partition.blocks
          .filter((b) => JSON.stringify(locks.find((x) => x.why?.about === t.id)).includes(`occupied.${b.id}"`))
          .map((b) => b.name),
      ]),
    ),
  };
};

describe('overhang: the part behind the last wheel is part of the train', () => {
  test('9 cm behind the last axle stick out over the gap, and the next train runs into them', () => {
    const d = withTrains(ring('Overhang', 4, 120), 2, 120);
    d.vehicles = d.vehicles.map((v) => (v.kind === 'coach' ? { ...v, length: cm(23) } : v));
    const { failing, confirm } = prove(d);
    expect(failing).toEqual(['trains touch']);
    expect(confirm('trains touch').confirmed).toBe(true);
  });
  test('2 cm do not: drivers stop farther before a signal than that', () => {
    expect(prove(learningOval()).failing).toEqual([]);
  });
  /** Each train is 46 cm long; a gap lies at 180 cm, and the one ahead stands with its tail exactly there. */
  test.each([
    [180, true],
    [179.9, false],
  ])(
    'two that stand end to end at a gap touch from the start, 1 mm apart they do not: a nose at %f cm',
    (nose, touch) => {
      const d = learningOval();
      const starts = [226, nose].map((place) => ({ line: 'oval', at: cm(place), facing: 'up' as const }));
      d.trains = d.trains.map((train, i) => ({ ...train, start: starts[i]! }));
      const { failing, confirm } = prove(d);
      expect(failing).toEqual(touch ? ['trains touch'] : []);
      if (touch) expect(confirm('trains touch').confirmed).toBe(true);
      const told = checkDesign(d).findings.map(({ says }) => says);
      expect(told.includes('Red train and Blue train touch where they start.')).toBe(touch);
    },
  );
  /** In one block of 2 m each is seen alike wherever it stands in it; but behind where it begins neither ever was. */
  test.each([
    ['down', 'up', false],
    ['up', 'down', true],
  ] as const)(
    'of two that begin in one block, the west one facing %s and the east one %s, it is said that they touch: %s',
    (west, east, touch) => {
      const d = newDocument('One block', 'H0', 'cm');
      d.referenceLine = 'a';
      d.lines = [{ id: 'a', name: 'A', length: cm(300), drawing: undefined }];
      d.features = [gap('g', 'a', 100)];
      block(d, 'B1', 'a', 50);
      block(d, 'B2', 'a', 200);
      const rates = { up: 60, down: 90, delayMs: 500, is: 'assumed' } as const;
      for (const [id, place, facing] of [
        ['w', 140, west],
        ['e', 220, east],
      ] as const) {
        d.vehicles.push(vehicle(`v${id}`, `Engine ${id}`, 14, [3, 11], () => true, 260));
        d.trains.push(train(id, `Train ${id}`, [`v${id}`], 40, { line: 'a', at: place, facing }, rates));
      }
      const { failing, confirm } = prove(d, new Set());
      expect(failing.includes('trains touch')).toBe(touch);
      if (touch) expect(confirm('trains touch').confirmed).toBe(true);
    },
  );
  test('points move under an overhang where the gap stands close before the blades', () => {
    const d = ovalWithSiding(20, 25);
    d.vehicles = [railcar(40, [2, 5, 12, 15])];
    d.trains = [at('Long', 'main', 440, 'up')];
    const far = prove(d, noTurning);
    expect(far.failing).toEqual([]);
    d.features = d.features.map((f) => (f.id === 'g2' ? { ...f, at: cm(205) } : f));
    d.turnouts[0]!.clearance = cm(4);
    const { failing, confirm } = prove(d, noTurning);
    expect(failing).toContain('points moved under a train');
    expect(confirm('points moved under a train').confirmed).toBe(true);
  });
});

describe('braking farther than one signal', () => {
  const short = () => {
    const d = withTrains(ring('Twelve', 12, 25), 2, 25);
    d.vehicles = [railcar(14, [2, 5, 9, 12])];
    d.trains = [at('Fast', 'oval', 30, 'up', 110), at('Standing', 'oval', 180, 'up', 30)];
    d.trains[0]!.brakingMmPerS2 = 80;
    return d;
  };
  test('twelve blocks of 25 cm: caution comes too late, and a signal at stop is passed', () => {
    const { failing, confirm } = prove(short(), new Set());
    expect(failing).toContain('stop not announced in time');
    expect(confirm('stop not announced in time').confirmed).toBe(true);
  });
  test('with blocks longer than it needs to stop it is announced in time', () => {
    const d = withTrains(ring('Long', 4, 250), 2, 250);
    expect(prove(d).failing).toEqual([]);
  });
});

describe('the start', () => {
  test('two trains in one block, face to face: a harm of the start itself', () => {
    const d = learningOval();
    d.vehicles = [railcar()];
    d.trains = [at('One', 'oval', 110, 'up'), at('Two', 'oval', 140, 'down')];
    const { proof } = prove(d);
    const starts = proof.verdicts.filter((v) => v.atTheStart).map((v) => v.property);
    expect(starts).toEqual(['two trains in a block', 'face to face']);
    expect(proof.verdicts.find((v) => v.property === 'trains touch')!.result).toBe('fails');
    expect(proof.unless).toEqual(['no two trains touch']);
    expect(proof.verdicts.map((v) => v.result)).not.toContain('holds');
  });
  test('fouling at the very start', () => {
    const d = diamond();
    d.trains = [at('One', 'a', 185, 'up'), at('Two', 'b', 185, 'up')];
    const { proof } = prove(d);
    expect(proof.verdicts.find((v) => v.property === 'trains touch')).toMatchObject({
      result: 'fails',
      atTheStart: true,
    });
  });
  test('a train that cannot be placed is said, and never dropped', () => {
    const d = ovalWithSiding(20, 26);
    d.trains = [at('Fits', 'main', 440, 'up'), at('Does not', 'siding', 145, 'down')];
    d.vehicles = [railcar(22)];
    const { proof } = prove(d);
    expect(proof.trains).toEqual(['Fits']);
    expect(proof.notPlaced).toHaveLength(1);
    expect(proof.notPlaced[0]).toContain('Does not');
  });
});

describe('one harm does not hide another', () => {
  test('two trains in a block at the start, and points that move under an overhang: both are told', () => {
    const d = ovalWithSiding(4, 5);
    d.vehicles = [railcar(40, [2, 5, 12, 15]), { ...railcar(), id: 'v-short' }];
    d.trains = [at('Long', 'main', 440, 'up'), { ...at('Short', 'main', 370, 'up'), vehicles: ['v-short'] }];
    const { failing, proof } = prove(d, noTurning);
    expect(failing).toContain('points moved under a train');
    expect(proof.verdicts.find((v) => v.property === 'two trains in a block')).toMatchObject({ atTheStart: true });
  });
});

describe('head on, whatever signals stand there', () => {
  test('a single line without any signal, and two trains that face each other', () => {
    const d = newDocument('Bare line');
    d.referenceLine = 'a';
    d.lines = [line('a', 400)];
    d.features = [gap('g1', 'a', 130), gap('g2', 'a', 270)];
    block(d, 'W', 'a', 60);
    block(d, 'M', 'a', 200);
    block(d, 'E', 'a', 330);
    d.vehicles = [railcar()];
    d.trains = [at('East', 'a', 60, 'up'), at('West', 'a', 340, 'down')];
    const { proof } = prove(d);
    expect(proof.verdicts.find((v) => v.property === 'face to face')).toMatchObject({
      result: 'fails',
      atTheStart: true,
    });
    d.trains = [at('East', 'a', 340, 'up'), at('West', 'a', 60, 'down')];
    const apart = prove(d, new Set());
    expect(apart.failing).toEqual([]);
  });
});

describe('places are compared with their ends, once', () => {
  test('a nose exactly on a gap keeps the rear of its train', () => {
    const d = learningOval();
    for (const t of d.trains) t.start = { ...t.start!, at: cm(t.id === 'tr1' ? 180 : 300) };
    const { proof, failing, model } = prove(d);
    expect(failing).toEqual([]);
    expect(proof.notPlaced).toEqual([]);
    for (const t of model.trains) expect(t.placements[0]!.detected).toHaveLength(1);
  });
  test('a train across the join of an oval does not stand on points far away', () => {
    const d = ovalWithSiding(20, 26);
    d.trains = [at('Across', 'main', 10, 'up')];
    const { failing } = prove(d, noTurning);
    expect(failing).toEqual([]);
    const run = new Rehearsal(compileSystem(d), 1);
    run.command({ kind: 'run', train: 'tr-Across', on: false });
    run.command({ kind: 'hold', signal: 's-A', on: true });
    const under: string[] = [];
    for (let i = 0; i < 1500; i++) {
      if (i === 1000) run.command({ kind: 'throw', turnout: 't-T1', to: 'diverging' });
      run.step((event) => {
        if (event.kind === 'points moved under') under.push(event.kind);
      });
    }
    expect(run.plant.motors[0]!.position).toBe('diverging');
    expect(under).toEqual([]);
  });
});

describe('what may be done', () => {
  test('a terminus is no deadlock: not when trains turn back there, and not when they do not', () => {
    const d = newDocument('Terminus');
    d.referenceLine = 'a';
    d.lines = [line('a', 300)];
    d.features = [gap('g1', 'a', 150), signal('In', 'a', 150, 'up')];
    block(d, 'W', 'a', 60);
    block(d, 'E', 'a', 250);
    d.vehicles = [railcar()];
    d.trains = [at('Only', 'a', 60, 'up')];
    expect(prove(d).failing).toEqual([]);
    expect(prove(d, new Set()).failing).toEqual([]);
  });
  test('points thrown back while they move are tried, and what is switched off is said', () => {
    const tried = prove(passingLoop(['up']), new Set<Switch>(['throw back']));
    const left = prove(passingLoop(['up']), new Set());
    expect(tried.proof.moves).toBeGreaterThan(left.proof.moves);
    expect(left.proof.assumptions.join(' ')).toContain('Trains do not turn back');
    expect(left.proof.assumptions.join(' ')).toContain('Nobody holds a signal');
  });
  test('a signal put to stop by hand falls before a train that can no longer stop', () => {
    const d = withTrains(ring('Held', 3, 150), 1, 150);
    expect(prove(d).failing).toEqual([]);
    const { failing, confirm } = prove(d, new Set<Switch>(['hold']));
    expect(failing).toEqual(['signal drops in the face of a train']);
    expect(confirm('signal drops in the face of a train').confirmed).toBe(true);
  });
  test('a train lifted off and set down where another has come meanwhile', () => {
    const d = learningOval();
    const { failing, confirm, proof } = prove(d, new Set<Switch>(['lift']));
    expect(failing).toContain('two trains in a block');
    const counterexample = proof.verdicts.find(({ property }) => property === 'two trains in a block')!.counterexample!;
    expect(counterexample.map(({ says }) => says).join(' ')).toMatch(
      /is lifted off the track.* is set down where it began/,
    );
    expect(confirm('two trains in a block').confirmed).toBe(true);
  });
});

describe('the end of the track', () => {
  test('points thrown before a train send it onto a stub too short to stop on', () => {
    const d = ovalWithSiding(4, 8, 20);
    d.features = d.features.filter((f) => f.kind !== 'signal');
    d.trains = [at('Fast', 'main', 440, 'up', 120)];
    d.turnouts[0]!.throwMs = 100;
    const { failing } = prove(d, new Set());
    expect(failing).toContain('off the end of the track');
  });
  test('fifty blocks and a train of 48 axles are not too many to look at', () => {
    const d = withTrains(ring('Fifty', 50, 60), 1, 60);
    const axles = Array.from({ length: 24 }, (_, i) => 2 + i * 4);
    d.vehicles = [vehicle('v-long', 'Long', 98, axles, () => true, 900)];
    d.trains = [
      { ...d.trains[0]!, vehicles: ['v-long', 'v-long'], start: { line: 'oval', at: cm(1200), facing: 'up' } },
    ];
    const { proof, failing } = prove(d, new Set());
    expect(failing).toEqual([]);
    expect(proof.states).toBeGreaterThan(10_000);
  });
});

describe('driving', () => {
  test.each([learningOval(), passingLoop(['up', 'down']), diamond()])(
    'looking the line up at every step gives the same run: $name',
    (d) => {
      const run = (looksAlways: boolean) => {
        const rehearsal = new Rehearsal(compileSystem(d), 3, { looksAlways });
        for (let i = 0; i < 50 * 240; i++) rehearsal.step();
        return rehearsal.traceHash;
      };
      expect(run(true)).toBe(run(false));
    },
  );
  test('a driver whose line has no signal for a long way still sees the one that comes', () => {
    const d = newDocument('Far');
    d.referenceLine = 'a';
    d.lines = [line('a', 2000)];
    d.features = [gap('g1', 'a', 1500), signal('Far', 'a', 1500, 'up')];
    block(d, 'Long', 'a', 500);
    block(d, 'End', 'a', 1700);
    d.vehicles = [railcar()];
    d.trains = [at('Only', 'a', 60, 'up', 120)];
    const run = new Rehearsal(compileSystem(d), 1);
    run.command({ kind: 'hold', signal: 's-Far', on: true });
    for (let i = 0; i < 50 * 120; i++) run.step();
    expect(run.plant.positionOf(0)[0]!.from).toBeGreaterThan(14_900);
    expect(run.plant.positionOf(0)[0]!.from).toBeLessThan(15_000);
    expect(run.plant.trains[0]!.stranded).toBe(false);
  });
});

describe('turnouts that throw together are sets', () => {
  test('a chain of three throws and locks as one, whoever is asked', () => {
    const d = newDocument('Three');
    d.referenceLine = 'main';
    d.lines = [line('main', 600), line('a', 60), line('b', 60), line('c', 60)];
    d.turnouts = ['a', 'b', 'c'].map((l, i) => turnout(`T${l}`, 'main', 100 + 150 * i, 'up', 'left', l));
    d.turnouts[0]!.throwsWith = 't-Tb';
    d.turnouts[1]!.throwsWith = 't-Tc';
    for (const [i, where] of [60, 200, 350, 500].entries()) {
      if (i > 0) d.features.push(gap(`g${i}`, 'main', where - 40));
      block(d, `B${i}`, 'main', where);
    }
    for (const asked of ['a', 'b', 'c']) {
      const run = new Rehearsal(compileSystem(d), 1);
      for (let i = 0; i < 500; i++) run.step();
      run.command({ kind: 'throw', turnout: `t-T${asked}`, to: 'diverging' });
      for (let i = 0; i < 200; i++) run.step();
      expect(run.plant.motors.map((m) => m.position)).toEqual(['diverging', 'diverging', 'diverging']);
    }
  });
});

describe('two events of one train at places nearer together than the tape can tell', () => {
  /** What detectors see at once of a train with two axles so far apart, on a circuit of blocks of 40 cm. */
  const seenOf = (axlesApartCm: number): Set<number> => {
    const d = ring('Ring', 6, 40);
    d.vehicles = [railcar(axlesApartCm + 4, [2, axlesApartCm + 2])];
    d.trains = [at('One', d.referenceLine!, 50, 'up', 20)];
    const { placements } = new ProofModel(compileSystem(d), new Set()).trains[0]!;
    const neighbours = (a: number, b: number) => [1, 5].includes((((a - b) % 6) + 6) % 6);
    return new Set(placements.map(({ detected: [a, b] }) => (b === undefined ? 1 : neighbours(a!, b) ? 2 : 3)));
  };
  test.each([
    [39, [1, 2], 'a block longer than it: one block or two beside each other'],
    [41, [2, 3], 'a block shorter than it: two beside each other, or two with one between'],
    [39.7, [1, 2, 3], 'nearly a block, a little less: either'],
    [40.3, [1, 2, 3], 'nearly a block, a little more: either'],
    [40, [1, 2, 3], 'just a block: either'],
  ])('axles %d cm apart', (apart, expected) => {
    expect([...seenOf(apart)].sort()).toEqual(expected);
  });
});
