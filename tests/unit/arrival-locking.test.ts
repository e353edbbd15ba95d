import { describe, expect, test } from 'vitest';
import { checkDesign, lockingTable } from '@/core/design';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, type Property, type Switch, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { type Command, Rehearsal } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { planned } from '@/demo/plans';
import { spinHazards } from '../../tools/spin';
import { MARKED_LOOP } from './locking-plans';

/** A loop with one train, of which detectors see the engine alone: 20 cm of it, and nothing of the rest. */
function loop(lengthCm: number, held: boolean): LayoutDocument {
  const d = planned({ name: 'Loop', text: MARKED_LOOP });
  const cars = Array.from({ length: (lengthCm - 20) / 20 }, (_, i) => `v${i}`);
  d.vehicles = [
    vehicle('ve', 'Engine', 20, [4, 16], () => true, 300),
    ...cars.map((id) => vehicle(id, id, 20, [4, 16], () => false, 80, 'coach')),
  ];
  const start = { line: d.lines[0]!.id, at: 95, facing: 'up' as const };
  d.trains = [
    train('tr', 'Night mail', ['ve', ...cars], 40, start, { up: 100, down: 150, delayMs: 300, is: 'assumed' }),
  ];
  if (held) for (const turnout of d.turnouts) turnout.patterns = ['arrival locking'];
  return d;
}

/** One turnout that leads to a spur, with the same train. */
function spur(held: boolean): LayoutDocument {
  const text = `line Main 260
line Spur 150
line Main
buffer 0
buffer
gap 100
turnout 110 left "T1" to Spur start clear 12${held ? ' works "arrival locking"' : ''}
gap 140
signal up 100 A
signal down 140 MW
detector 50
block 50 W
detector 105
block 105 P
detector 200
block 200 M
detector optical 250 "M end"
detector optical 5 "W end"
line Spur
buffer
gap 30
signal down 30 LW
detector 80
block 80 L
detector optical 145 "L end"`;
  const { vehicles, trains } = loop(80, held);
  const d = planned({ name: 'Spur', text });
  for (const sensor of d.sensors) sensor.holdMs = 0;
  return { ...d, vehicles, trains: trains.map((one) => ({ ...one, start: { ...one.start!, line: d.lines[0]!.id } })) };
}

const TRIED = new Set<Switch>(['turn back', 'give up', 'throw back']);
function prove(d: LayoutDocument, on: ReadonlySet<Switch> = TRIED) {
  const run = new ProofRun(compileSystem(d), 1_000_000, on);
  while (!run.step(5000));
  const { verdicts, finished } = run.result();
  const of = (property: Property) => verdicts.find((one) => one.property === property)!;
  return { run, of, finished, failing: verdicts.filter(({ result }) => result === 'fails').map((v) => v.property) };
}

describe('points that stay locked until the train has arrived', () => {
  test('without it they move under cars that nothing sees, and a rehearsal comes to it', () => {
    /** Run one way: a signal that is cleared for the way back would lock them as well. */
    const d = spur(false);
    d.features = d.features.filter((f) => f.kind !== 'signal' || f.name === 'A');
    const { of, run } = prove(d, new Set());
    const { result, counterexample } = of('points moved under a train');
    expect(result).toBe('fails');
    expect(steerCounterexample(run.explorer.model, 'points moved under a train', counterexample!).confirmed).toBe(true);
  });
  test('with it they never do, whatever people ask for and give up, and nobody stands for ever', () => {
    const { failing, finished, of } = prove(spur(true));
    expect(finished).toBe(true);
    expect(of('points moved under a train').result).toBe('holds');
    expect(of('deadlock').result).toBe('holds');
    expect(failing).toEqual([]);
  });
  test('Spin agrees', { timeout: 300_000 }, () => {
    for (const held of [false, true]) {
      const model = new ProofModel(compileSystem(spur(held)), TRIED);
      const [look] = spinHazards(writePromela(model), [['points moved under a train']]);
      expect([held, look!.errors > 0, look!.complete || look!.errors > 0]).toEqual([held, !held, true]);
    }
  });
});

describe('a train that has not cleared the points with its nose on the mark', () => {
  const told = (d: LayoutDocument) =>
    checkDesign(d).findings.filter(({ kind }) => kind === 'train longer than from stop mark to clearance point');
  /** From M east, 235, back to 12 cm beyond T1 at 110: 113 cm. From E end, 395, back to the blades of T2 at 270: 125 cm. */
  test('is told with the room that there is', () => {
    expect(told(loop(100, true))).toEqual([]);
    const figures = told(loop(120, true)).map(({ figures: [room] }) => room!.value);
    expect(figures).toContain('113 cm');
    expect(figures).not.toContain('125 cm');
  });
  const ofPoints = (d: LayoutDocument) =>
    checkDesign(d).findings.filter(({ kind }) => kind === 'overhang over points' || kind === 'unseen over points')
      .length;
  test('nothing is said of points under it that hold until it has arrived, except where it begins over them', () => {
    expect(ofPoints(loop(80, false))).toBeGreaterThan(0);
    expect(ofPoints(loop(80, true))).toBe(0);
    const begins = loop(80, true);
    begins.trains = begins.trains.map((one) => ({ ...one, start: { ...one.start!, at: cm(200) } }));
    expect(ofPoints(begins)).toBeGreaterThan(0);
    expect(ofPoints(loop(140, true))).toBeGreaterThan(0);
  });
  test('a route on which nothing tells of an arrival is told, and held without it', () => {
    const d = loop(80, true);
    d.sensors = d.sensors.filter(({ name }) => name !== 'M east');
    d.sensors = d.sensors.filter(({ name }) => name !== 'M west');
    const findings = checkDesign(d).findings.filter(({ kind }) => kind === 'arrival that nothing tells');
    expect(findings.map(({ says }) => says).join()).toMatch(/from A to ME nothing tells of that: no spot stands in M/);
  });
});

describe('a run that is given up', () => {
  const ready = () => {
    const run = new Rehearsal(compileSystem(loop(80, true)), 1);
    const command = (one: Command) => run.command(one);
    const pass = (ticks: number) => {
      for (let i = 0; i < ticks; i++) run.step();
    };
    command({ kind: 'run', train: 'tr', on: false });
    pass(600);
    return { run, command, pass };
  };
  const A = loop(80, true).features.find((f) => f.kind === 'signal' && f.name === 'A')!.id;
  test('is refused while a train is detected there, with the reason, and done once nobody is seen', () => {
    const { run, command, pass } = ready();
    const route = run.system.releases.find(({ to }) => to === 'ME')!.route;
    const giveUp = { kind: 'give up', signal: A, route } as const;
    expect(run.controller.isOn('under way', run.system.releases[0]!.signal, route)).toBe(true);
    expect(run.controller.isLocked(0)).toBe(true);
    command({ kind: 'draw up', train: 'tr', mm: 200 });
    pass(1500);
    expect(command(giveUp)).toBe('A train is detected in P.');
    command({ kind: 'draw up', train: 'tr', mm: 420 });
    pass(1500);
    expect(run.controller.isLocked(0)).toBe(true);
    expect(command(giveUp)).toBeUndefined();
    pass(5);
    expect(command(giveUp)).toMatch(/No train is under way/);
  });
  test('its nose at the mark ends it', () => {
    const { run, command, pass } = ready();
    const route = run.system.releases.find(({ to }) => to === 'ME')!.route;
    command({ kind: 'run', train: 'tr', on: true });
    pass(1200);
    expect(run.controller.isOn('under way', run.system.releases[0]!.signal, route)).toBe(false);
  });
});

test('the locking table says at which spot a train has arrived', () => {
  const rows = lockingTable(checkDesign(loop(80, true)));
  const arrivals = rows.map(({ signal, exit, release }) => [`${signal.name} ${exit}`, release[0]?.arrival]);
  expect(Object.fromEntries(arrivals)).toEqual({
    'A ME': 'M east',
    'A LE': 'L east',
    'B MW': 'M west',
    'B LW': 'L west',
    'ME E': 'E end',
    'LE E': 'E end',
    'MW W': 'W end',
    'LW W': 'W end',
  });
});
