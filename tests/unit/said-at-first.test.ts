import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { Rehearsal, type RehearsalEvent, sayEvent } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { sensor } from '@/demo/build';
import { learningOval } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';

/** The oval with its first block told of by people alone, or by a spot that gives pulses at its place. */
function told(change: (d: LayoutDocument) => void): LayoutDocument {
  const d = learningOval();
  change(d);
  return d;
}
const firstEvents = (d: LayoutDocument) => {
  const run = new Rehearsal(compileSystem(d), 1);
  const events: RehearsalEvent[] = [];
  run.step((event) => events.push(event));
  return { run, said: events.filter(({ kind }) => kind === 'said at first').map((event) => sayEvent(run, event)) };
};
const byPeople = (nth: number) => (d: LayoutDocument) => {
  const { anchor } = d.sensors[nth]!;
  d.sensors[nth] = sensor('V', 'virtual end', anchor.line, anchor.at.tenthUm / 1e5);
};

describe('as power comes on', () => {
  test('it is told what people see and say of blocks that no detector watches, and when', () => {
    const { run, said } = firstEvents(told(byPeople(0)));
    const standing = run.plant.trains.map((train) =>
      train.held().map(({ piece }) => run.system.partition.pieces[piece]!.block),
    );
    const [block] = [...run.system.partition.inferred.keys()];
    const { name } = run.system.partition.blocks[block!]!;
    const isTaken = standing.flat().includes(block!);
    expect(said).toEqual([
      `As power comes on, somebody looks, and says that there is ${isTaken ? 'a train' : 'none'} in ${name}`,
    ]);
  });
  test('of a block with a train, that there is one', () => {
    const d = told(byPeople(0));
    const { anchor } = d.sensors[0]!;
    d.trains[0]!.start = { line: anchor.line, at: anchor.at, facing: 'up' };
    expect(firstEvents(d).said[0]).toContain('there is a train in');
  });
  test('nothing is told where detectors watch everything', () => expect(firstEvents(learningOval()).said).toEqual([]));
});

describe('which way trains came in', () => {
  test('is told of each that stands on a single line', () => {
    const d = passingLoop(['up', 'down']);
    const { run, said } = firstEvents(d);
    expect(said).toHaveLength(1);
    for (const { id, name } of d.trains) {
      const standsOnSingleLine = run.system.trafficSections.all.some(
        ({ bothWays, blocks }) =>
          bothWays &&
          run.plant.trains[d.trains.findIndex((t) => t.id === id)]!.held().some(({ piece }) =>
            blocks.includes(run.system.partition.pieces[piece]!.block),
          ),
      );
      expect([name, said[0]!.includes(`${name} in `)]).toEqual([name, standsOnSingleLine]);
    }
  });
});

describe('a pulse too many', () => {
  const withSpot = () =>
    told((d) => {
      d.sensors.push({ ...sensor('P', 'treadle', d.referenceLine, 33), holdMs: 0 });
      for (const vehicle of d.vehicles) vehicle.magnetAt = cm(1);
    });
  test('is refused while the spot notices something, and leaves it seeing what comes in the same moment', () => {
    const d = withSpot();
    const run = new Rehearsal(compileSystem(d), 1);
    const nth = d.sensors.length - 1;
    const field = run.system.partition.fields.ofSensor[nth]!;
    const isOn = () => run.controller.isOn('detector', nth);
    const extra = () => run.command({ kind: 'fault', sensor: d.sensors[nth]!.id, what: 'extra' });
    const { pieces, sections } = run.system.partition;
    const { section } = pieces.find((piece) => piece.from <= cm(33).tenthUm && piece.to >= cm(33).tenthUm)!;
    const watching = d.sensors.findIndex(({ id }) => sections[section]!.sensors.includes(id));
    for (const { id } of d.trains) run.command({ kind: 'run', train: id, on: true });
    let [refused, looked] = [0, 0];
    for (let tick = 0; tick < 12_000; tick++) {
      /** While a train is in that block already, so that no signal is held for it. */
      if (!run.controller.isOn('detector', watching)) {
        run.step();
        continue;
      }
      const problem = extra();
      if (run.plant.detected[field] === 1) {
        expect(problem).toMatch(/notices something now/);
        refused += 1;
      } else expect(problem).toBeUndefined();
      run.step();
      if (run.plant.detected[field] !== 1) continue;
      looked += 1;
      expect(isOn(), `tick ${tick}`).toBe(true);
    }
    expect(refused).toBeGreaterThan(20);
    expect(looked).toBeGreaterThan(20);
  });
});
