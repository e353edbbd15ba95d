import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, FAILURES } from '@/core/design';
import { FAULT_IDS, FAULTS, type Fault, type FaultId, type FaultKind, thingsStruck } from '@/core/faults';
import { cm } from '@/core/measure';
import { Rehearsal } from '@/core/simulation';
import type { Facing, LayoutDocument } from '@/core/survey';
import { compileSystem, type System } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { Draw } from '../../tools/fuzz/draw';
import { drawnLayout } from '../../tools/fuzz/drawn-layout';
import { wire } from '../../tools/fuzz/kind-tables';
import { ofSweep } from './sweep';

/** The faults that the table has, and where each stands in a row of it: after “Power comes on”. */
const COMPARED = FAULT_IDS.filter((id) => (FAULTS[id] as FaultKind).compared);
const [PROBE_CM, FROM_SIGNAL_CM, MIDDLE_CM] = [4, 5, 8];
const [PULSE_TICK, LATE_TICK, TICKS] = [1000, 1500, 2500];

/** A layout without trains, wired in one way throughout, so that it is known of everything what it fails to. */
function wired(document: LayoutDocument, seed: number): LayoutDocument {
  const d = structuredClone(document);
  wire(new Draw(seed, 5), d)(d);
  d.trains = [];
  d.vehicles = [{ ...vehicle('probe', 'Probe', PROBE_CM, [1, 3], () => true, 80), magnetAt: cm(2) }];
  return d;
}

/**
 * Whether a signal shows something less restrictive with a fault than without, in a rehearsal with a train before it and one in a block ahead that
 * faces that way; undefined where there is no room, or a detector notices none.
 */
function rehearsed(d: LayoutDocument, system: System, nth: number, block: number, ahead: Facing) {
  const { partition, readings } = system;
  const { rear, signal } = readings[nth]!;
  const [piece] = partition.pieces
    .filter((one) => one.block === block && one.to - one.from > cm(MIDDLE_CM).tenthUm)
    .sort((a, b) => b.to - b.from - (a.to - a.from));
  if (!piece) return undefined;
  const rates = { up: 90, down: 150, delayMs: 0, is: 'measured' } as const;
  const facing = signal.governs;
  const before = signal.at.tenthUm / 1e5 + (facing === 'up' ? -FROM_SIGNAL_CM : FROM_SIGNAL_CM);
  const trains = [
    train('a', 'A', ['probe'], 30, { line: signal.line, at: before, facing }, rates),
    train('b', 'B', ['probe'], 30, { line: piece.line, at: (piece.from + piece.to) / 2e5, facing: ahead }, rates),
  ];
  const placed = compileSystem({ ...d, trains });
  /** What works by itself is left alone, or given a pulse by hand once trains stand. */
  const pulses = [undefined, ...placed.automatic.filter(({ pulse }) => pulse !== undefined)];
  const run = (fault?: Fault, fromTick = 0, given: (typeof pulses)[number] = undefined) => {
    const rehearsal = new Rehearsal(placed, 1);
    for (const { id } of trains) rehearsal.command({ kind: 'run', train: id, on: false });
    for (let tick = 0; tick < TICKS; tick++) {
      if (fault && tick === fromTick) rehearsal.command({ kind: 'fail', ...fault, on: true });
      if (given && tick === PULSE_TICK) rehearsal.command({ kind: 'give pulse', thing: given.id, what: given.what });
      rehearsal.step();
    }
    return rehearsal;
  };
  const sound = run();
  const blocksOf = (t: number) =>
    sound.plant.trains[t]?.held().map((entry) => placed.partition.pieces[entry.piece]!.block);
  if (!blocksOf(0)?.every((one) => one === rear) || !blocksOf(1)?.every((one) => one === block)) return undefined;
  const own = partition.sections[partition.blocks[block]!.section]!.sensors;
  const isSeen = (id: string) =>
    sound.controller.isOn(
      'detector',
      placed.sensors.findIndex((sensor) => sensor.id === id),
    );
  if (!own.every(isSeen)) return undefined;
  const order = system.aspectSystems[nth]!.aspects.map(({ id }) => id);
  const rank = (rehearsal: Rehearsal) => order.indexOf(rehearsal.readOff(nth).id);
  /** What strikes the signal itself, or a detector of the block. */
  const struckBy = (fault: FaultId): Fault[] => {
    const at = FAULTS[fault].at[0];
    return thingsStruck(system, fault)
      .filter(({ id }) => (at === 'detector' ? own.includes(id) : at === 'aspect' && id === signal.id))
      .map(({ id }) => ({ fault, thing: id }));
  };
  return (fault: FaultId) => {
    const faults = struckBy(fault);
    if (faults.length === 0) return undefined;
    return pulses.some((given) => {
      const asMeant = given ? rank(run(undefined, 0, given)) : rank(sound);
      return faults.some((one) => [0, LATE_TICK].some((tick) => rank(run(one, tick, given)) > asMeant));
    });
  };
}

/** Every cell of the table that says something, beside what rehearsals with that fault come to. */
function compared(d: LayoutDocument) {
  const system = compileSystem(d);
  const rows = new Bench(checkDesign(d)).fails({});
  const { partition, readings, routesOf } = system;
  const lies = (motor: number) => partition.graph.motors[motor]!.lies;
  return readings.flatMap(({ rear, signal }, nth) => {
    const set = routesOf[nth]!.filter(({ route }) =>
      route.conditions.every(({ motor, position }) => lies(motor) === position),
    );
    const blocks = [...new Set(set.flatMap(({ route }) => route.blocks.map(({ block }) => block)))];
    const runs = blocks
      .filter((block) => block !== rear)
      .map((block) => (['up', 'down'] as const).map((facing) => rehearsed(d, system, nth, block, facing)));
    return COMPARED.flatMap((fault, k) => {
      const outcome = rows[nth]!.outcomes[k + 1];
      const worse = runs.map((either) => {
        const each = either.map((run) => run?.(fault));
        return each.includes(undefined) ? undefined : each.includes(true);
      });
      if (outcome?.safe === undefined || worse.every((one) => one === undefined)) return [];
      const isOfInputs = FAULTS[fault].at[0] === 'detector';
      const whole = isOfInputs && worse.every((one) => one !== undefined);
      return [{ cell: `${signal.name}, ${fault}`, safe: outcome.safe, isWorse: worse.some(Boolean), whole }];
    });
  });
}

describe('the table of what faults do, and rehearsals in which they strike before trains come or once they stand', () => {
  const examples = EXAMPLES.map((example) => [example.name, wired(exampleLayout(example), 1)] as const);
  const drawn = Array.from({ length: ofSweep(100) }, (_, seed) => [
    `drawn layout ${seed}`,
    wired(drawnLayout(seed).document, seed),
  ]) as [string, LayoutDocument][];
  let [cells, unsafe] = [0, 0];
  test.each([...examples, ...drawn])('%s', (_, d) => {
    const all = compared(d);
    /** What it says to be safe never goes wrong; what it says not to be does, where every block ahead was looked at. */
    expect(all.filter(({ safe, isWorse }) => safe && isWorse).map(({ cell }) => cell)).toEqual([]);
    expect(all.filter(({ safe, isWorse, whole }) => !safe && whole && !isWorse).map(({ cell }) => cell)).toEqual([]);
    cells += all.length;
    unsafe += all.filter(({ isWorse }) => isWorse).length;
  });
  test('which says something: many cells, and many that are not safe', () => {
    expect(FAILURES).toHaveLength(COMPARED.length + 1);
    expect(cells).toBeGreaterThan(200);
    expect(unsafe).toBeGreaterThan(40);
  });
});
