import { describe, expect, test } from 'vitest';
import { checkDesign, viewSignal } from '@/core/design';
import { onwardPieces } from '@/core/detection';
import { CROSSINGS, type Lie, type PointsKind, TURNOUTS } from '@/core/kinds';
import { cm } from '@/core/measure';
import { stepOn } from '@/core/plant';
import { ProofModel, ProofRun } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import { applyEdit, type LayoutDocument, newDocument, readDocument, writeDocumentText } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack, onwardFrom } from '@/core/track';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { covering } from '../../tools/fuzz/covering';
import { randomPoints } from '../../tools/fuzz/random-points';
import { spinHazards } from '../../tools/spin';
import { isWhole, ofSweep } from './sweep';

const KINDS: [string, PointsKind][] = Object.entries({ ...TURNOUTS, ...CROSSINGS });
const LIES: Lie[] = ['straight', 'diverging'];

/** Every way in which the motors of a kind can lie. */
const settings = ({ motors }: PointsKind): Lie[][] =>
  motors.reduce<Lie[][]>((all, _) => all.flatMap((lies) => LIES.map((lie) => [...lies, lie])), [[]]);
const isSet = (lies: readonly (Lie | undefined)[], setting: Lie[]) =>
  lies.every((lie, m) => lie === undefined || lie === setting[m]);

describe('the table of points', () => {
  test.each(KINDS)('%s: whichever way it lies, no port is joined to two', (_, kind) => {
    for (const setting of settings(kind)) {
      const joined = kind.ways.filter(({ lies }) => isSet(lies, setting)).flatMap(({ joins }) => joins);
      expect(new Set(joined).size).toBe(joined.length);
    }
  });
  test.each(KINDS)('%s: a train from any port is led somewhere, whichever way it lies', (_, kind) => {
    for (const port of kind.ports) {
      const ways = kind.ways.filter(({ joins }) => joins.includes(port));
      expect(ways.length).toBeGreaterThan(0);
      for (const setting of settings(kind)) {
        const led = ways.filter(({ lies }) =>
          lies.every((lie, m) => {
            const decides = ways.some((other) => other.lies[m] !== lie);
            return !decides || lie === undefined || lie === setting[m];
          }),
        );
        expect(led).toHaveLength(1);
      }
    }
  });
  test.each(KINDS)('%s: names only ports and motors that it has', (_, { ports, motors, ways, fouls }) => {
    for (const { joins, lies } of ways) {
      expect(ports).toEqual(expect.arrayContaining([...joins]));
      expect(lies).toHaveLength(motors.length);
    }
    for (const port of fouls.flat(2)) expect(ports).toContain(port);
  });
});

/** Two tracks of two metres that cross in the middle; the centre is a block of its own. */
function crossing(kind: 'single slip' | 'double slip'): LayoutDocument {
  for (let seed = 0; ; seed++) {
    const d = randomPoints(seed);
    if (d.crossings[0]?.kind === kind && d.features.length === 8 && d.sensors.length === 5) return d;
  }
}
const threeWay = (): LayoutDocument => {
  for (let seed = 0; ; seed++) {
    const d = randomPoints(seed);
    if (d.turnouts[0]?.facing === 'up' && d.features.length === 8 && d.sensors.length === 5) return d;
  }
};

/** Two tracks of four metres side by side, with a crossover in one direction, or both with a diamond between them. */
function sideBySide(double: boolean, trains = 2): LayoutDocument {
  const d = newDocument(double ? 'Double crossover' : 'Crossover');
  const line = (id: string, length: number) => d.lines.push({ id, name: id, length: cm(length), drawing: undefined });
  line('a', 400);
  line('b', 400);
  d.referenceLine = 'a';
  const link = (id: string, from: string, to: string) => {
    line(id, 56);
    d.turnouts.push(
      { ...turnout(`${id}1`, from, 170, 'up', 'right', id), clearance: cm(12) },
      { ...turnout(`${id}2`, to, 225, 'down', 'right', id), clearance: cm(12), throwsWith: `t-${id}1` },
    );
  };
  link('k', 'a', 'b');
  if (double) {
    link('m', 'b', 'a');
    d.crossings.push({
      id: 'x',
      name: 'X',
      kind: 'diamond',
      a: { line: 'k', at: cm(28) },
      b: { line: 'm', at: cm(28) },
      angleDegrees: 30,
      clearance: cm(8),
      lies: undefined,
      throwMs: undefined,
      certainty: 'fixed',
    });
  }
  for (const id of ['a', 'b']) {
    const up = id.toUpperCase();
    d.features.push(gap(`g1${id}`, id, 130), gap(`g2${id}`, id, 265));
    d.features.push(signal(`E${up}`, id, 130, 'up'), signal(`W${up}`, id, 265, 'down'));
    block(d, `${up}1`, id, 60);
    block(d, `${up}2`, id, 330);
    block(d, `X${up}`, id, 200);
  }
  d.sensors = d.sensors.filter(({ name }) => name !== 'XB');
  d.blocks = d.blocks.filter(({ name }) => name !== 'XB');
  for (const sensor of d.sensors) sensor.holdMs = 500;
  d.vehicles = [vehicle('v', 'Car', 20, [2, 18], () => true, 100)];
  const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
  d.trains = ['a', 'b']
    .slice(0, trains)
    .map((id) => train(id, `Train ${id}`, ['v'], 30, { line: id, at: 70, facing: 'up' }, rates));
  return d;
}

describe('ways over points, by hand', () => {
  const routesOf = (d: LayoutDocument) => {
    const design = checkDesign(d);
    return Object.fromEntries(
      design.scheme.readings.map(({ signal }) => {
        const { routes: ways } = viewSignal(design, signal.id)!;
        const text = ways.map(({ blocks, points }) => {
          const lies = points.map(({ turnout, position }) => `${turnout} ${position}`).sort();
          return `${blocks.at(-1)} (${lies.join(', ')})`;
        });
        return [signal.name, text.sort()];
      }),
    );
  };
  /** A single slip joins the lower side of a to the higher of b; its one motor. Common practice, no source. */
  test('a single slip', () =>
    expect(routesOf(crossing('single slip'))).toEqual({
      SA1: ['A2 (X straight)', 'B2 (X diverging)'],
      SA2: ['A1 (X straight)'],
      SB1: ['B2 (X straight)'],
      SB2: ['A1 (X diverging)', 'B1 (X straight)'],
    }));
  /** A crossover is two turnouts that are thrown together, with the track between. */
  test('a double crossover, and a train takes each way over it', () => {
    expect(routesOf(sideBySide(true))).toEqual({
      EA: ['A2 (k1 straight, m2 straight)', 'B2 (k1 diverging, k2 diverging)'],
      EB: ['A2 (m1 diverging, m2 diverging)', 'B2 (k2 straight, m1 straight)'],
      WA: ['A1 (k1 straight, m2 straight)', 'B1 (m1 diverging, m2 diverging)'],
      WB: ['A1 (k1 diverging, k2 diverging)', 'B1 (k2 straight, m1 straight)'],
    });
  });
  /** Each motor of a double slip chooses the track on its side. Common practice, no source. */
  test('a double slip', () =>
    expect(routesOf(crossing('double slip'))).toEqual({
      SA1: ['A2 (Xa straight, Xb straight)', 'B2 (Xa straight, Xb diverging)'],
      SA2: ['A1 (Xa straight, Xb straight)', 'B1 (Xa diverging, Xb straight)'],
      SB1: ['A2 (Xa diverging, Xb straight)', 'B2 (Xa diverging, Xb diverging)'],
      SB2: ['A1 (Xa straight, Xb diverging)', 'B1 (Xa diverging, Xb diverging)'],
    }));
  test('a three-way turnout', () =>
    expect(routesOf(threeWay())).toEqual({
      SA: ['B (Wa straight, Wb straight)', 'L (Wa diverging)', 'R (Wa straight, Wb diverging)'],
      SB: ['A (Wa straight, Wb straight)'],
      SL: ['A (Wa diverging)'],
      SR: ['A (Wa straight, Wb diverging)'],
    }));
  test('what of it fouls what: each leg of a three-way turnout both others, each track of a slip the other', () => {
    expect(compileTrack(threeWay()).fouling).toHaveLength(3);
    const [pair, ...more] = compileTrack(crossing('double slip')).fouling;
    expect(more).toEqual([]);
    expect(new Set([...pair!.a, ...pair!.b].map(({ edge }) => edge)).size).toBe(4);
  });
  test('a slip cuts both its lines in two, and a wye is a turnout', () => {
    const d = crossing('double slip');
    expect(compileTrack(d).edges).toHaveLength(4);
    const wye = threeWay();
    wye.turnouts = [{ ...wye.turnouts[0]!, kind: 'wye', legs: wye.turnouts[0]!.legs.slice(0, 1), lies: ['straight'] }];
    wye.lines = wye.lines.filter(({ id }) => id !== 'r');
    const graph = compileTrack(wye);
    const [stem] = graph.points[0]!.ports;
    expect(onwardFrom(graph, stem!.edge, stem!.end)).toHaveLength(2);
  });
});

describe('documents with such points', () => {
  test('are read as they were written', () => {
    for (const d of [crossing('double slip'), threeWay()]) {
      const reading = readDocument(JSON.parse(writeDocumentText(d)));
      expect(reading.ok ? [] : reading.faults).toEqual([]);
    }
  });
  test.each<[string, (d: LayoutDocument) => void, string]>([
    ['a third leg that leads nowhere', (d) => d.turnouts[0]!.legs.pop(), 'of which 3 legs lead somewhere, and 2 do'],
    [
      'a third leg too many',
      (d) => Object.assign(d.turnouts[0]!, { kind: 'turnout' }),
      'of which 2 legs lead somewhere, and 3 do',
    ],
    [
      'one end for two legs',
      (d) => d.turnouts[0]!.legs.fill(d.turnouts[0]!.legs[0]!),
      'is already used at turnouts[0]',
    ],
  ])('%s is told', (_, spoil, told) => {
    const d = threeWay();
    spoil(d);
    const reading = readDocument(JSON.parse(JSON.stringify(d)));
    expect(reading.ok ? '' : reading.faults.map(({ problem }) => problem).join(' ')).toContain(told);
  });
  test('motors that a slip has not are told', () => {
    const d = crossing('single slip');
    d.crossings[0]!.lies = ['straight', 'diverging'];
    const reading = readDocument(JSON.parse(JSON.stringify(d)));
    expect(reading.ok ? '' : reading.faults[0]!.problem).toContain('with 1 motors, and 2 are said');
  });
  test('a three-way turnout takes both its tracks along when it is deleted', () => {
    const d = threeWay();
    d.features = d.features.filter(({ line }) => line === 'a');
    d.trains = [];
    d.sensors = d.sensors.filter(({ anchor }) => anchor.line === 'a');
    d.blocks = d.blocks.filter(({ anchor }) => anchor.line === 'a');
    const gone = applyEdit(d, { do: 'delete', id: d.turnouts[0]!.id });
    expect(gone.ok && gone.change.document.lines.map(({ id }) => id)).toEqual(['a']);
  });
});

/** The piece that a train comes onto from another, where it then is. */
const ontoFrom = (piece: number, { tape }: { tape: { piece: number }[] }) =>
  tape[tape.findIndex((entry) => entry.piece === piece) + 1]!.piece;

describe('they run and are proved', () => {
  test('a train is sent over a double slip to each of the tracks beyond it', () => {
    for (const goal of ['A2', 'B2']) {
      const d = crossing('double slip');
      d.trains = [{ ...d.trains[0]!, start: { line: 'a', at: cm(40), facing: 'up' } }];
      const run = new Rehearsal(compileSystem(d), 1);
      run.command({ kind: 'run', train: d.trains[0]!.id, on: false });
      /** Held at stop until the points lie for it: a train that is cleared over them locks them. */
      const hold = (on: boolean) => run.command({ kind: 'hold', signal: 's-SA1', on });
      hold(true);
      for (let tick = 0; tick < 800; tick++) run.step();
      expect(run.command({ kind: 'send', train: d.trains[0]!.id, block: goal })).toBeUndefined();
      for (let tick = 0; tick < 400; tick++) run.step();
      hold(false);
      let done = false;
      for (let tick = 0; tick < 6000 && !done; tick++)
        run.step((event) => {
          expect(event.kind).not.toBe('mishap');
          done ||= event.kind === 'done';
        });
      expect(done, goal).toBe(true);
    }
  });
  test.each([
    ['single slip', crossing('single slip')],
    ['double slip', crossing('double slip')],
    ['three-way', threeWay()],
  ])('for every lie of the points a train of the proof goes where one on the plant does: %s', (_, d) => {
    const model = new ProofModel(compileSystem(d), new Set(['turn back']));
    const { partition } = model.system;
    const kind = partition.graph.points[0]!.kind;
    let compared = 0;
    for (const { placements } of model.trains)
      for (const { tape, advances } of placements) {
        const { piece, exit } = tape.at(-1)!;
        const onto = onwardPieces(partition, partition.pieces[piece]!, exit).map((on) => on.piece.index);
        const over = advances.filter(
          ({ turnouts, to }) => turnouts.length > 0 && onto.includes(ontoFrom(piece, placements[to]!)),
        );
        if (over.length === 0) continue;
        for (const setting of settings(kind)) {
          const lies = (motor: number) => setting[motor]!;
          const number = (motor: number) => LIES.indexOf(lies(motor));
          const step = stepOn(partition, partition.pieces[piece]!, exit, lies);
          const led = over.filter(({ turnouts }) =>
            turnouts.every(({ motor, position, facing }) => !facing || number(motor) === position),
          );
          expect(new Set(led.map(({ to }) => ontoFrom(piece, placements[to]!)))).toEqual(
            new Set(step.kind === 'end of track' ? [] : [step.piece.index]),
          );
          for (const { turnouts } of led)
            expect(turnouts.some(({ motor, position }) => number(motor) !== position)).toBe(
              step.kind === 'points wrong',
            );
          compared += 1;
        }
      }
    expect(compared).toBeGreaterThan(7);
  });
  test('a crossover is proved', () => {
    const result = covering(sideBySide(false, 1), [1, 2, 3, 4], 4, 60_000);
    expect(result.finished).toBe(true);
    expect(result.contradictions).toEqual([]);
    for (const hazard of ['trains touch', 'points moved under a train'] as const)
      expect(result.found).not.toContain(hazard);
  });
  test.each(['A2', 'B2'])('a double crossover is run over: to %s', (goal) => {
    const run = new Rehearsal(compileSystem(sideBySide(true, 1)), 1);
    run.command({ kind: 'run', train: 'a', on: false });
    run.command({ kind: 'hold', signal: 's-EA', on: true });
    for (let tick = 0; tick < 800; tick++) run.step();
    expect(run.command({ kind: 'send', train: 'a', block: `block b-${goal}` })).toBeUndefined();
    for (let tick = 0; tick < 400; tick++) run.step();
    run.command({ kind: 'hold', signal: 's-EA', on: false });
    const seen: string[] = [];
    for (let tick = 0; tick < 6000; tick++) run.step(({ kind }) => seen.push(kind));
    expect(seen).toContain('done');
    for (const hazard of ['mishap', 'collision', 'points moved under']) expect(seen).not.toContain(hazard);
  });
  test('the proof covers whatever rehearsals come to: fifty random layouts', () => {
    let compared = 0;
    const met = new Set<string>();
    for (let seed = 0; seed < ofSweep(50); seed++) {
      const result = covering(randomPoints(seed), [seed * 2, seed * 2 + 1], 4, 25_000);
      expect(result.contradictions, `layout ${seed}`).toEqual([]);
      if (result.finished) compared += 1;
      for (const hazard of result.met) met.add(hazard);
    }
    expect(compared).toBeGreaterThan(ofSweep(25));
    if (isWhole) expect([...met].sort()).toEqual(['points set wrong', 'proceed over a train', 'trains touch']);
    expect(met.size).toBeGreaterThan(0);
  });
  test.each([['single slip'], ['double slip'], ['three-way']] as const)(
    'Spin finds the same harms as the proof: %s',
    (kind) => {
      const d = kind === 'three-way' ? threeWay() : crossing(kind);
      d.trains = d.trains.slice(0, 1);
      const run = new ProofRun(compileSystem(d));
      while (!run.step(5000)) {}
      const failing = run.result().verdicts.flatMap(({ property, result }) => (result === 'fails' ? [property] : []));
      const model = writePromela(new ProofModel(compileSystem(d)));
      const [look] = spinHazards(model, [['points set wrong']]);
      expect(look!.complete).toBe(true);
      expect(look!.errors > 0).toBe(failing.includes('points set wrong'));
    },
  );
});
