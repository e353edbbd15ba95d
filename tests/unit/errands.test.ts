import { describe, expect, test } from 'vitest';
import { cm, runTimeS, standToStandS } from '@/core/measure';
import {
  failuresIn,
  firstDifference,
  hazardOfEvent,
  Rehearsal,
  replay,
  summariseRun,
  type TimedCommand,
} from '@/core/simulation';
import { compileSystem } from '@/core/system';
import { compileTrack, measureBetween, onwardFrom, straighten } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { Draw, randomLine } from './random-line';

const blocksOf = (run: Rehearsal, id: string) => {
  const train = run.plant.trains.find((t) => t.figures.id === id)!;
  const { partition } = run.system;
  return [...new Set(train.standsOn().map((s) => partition.blocks[partition.pieces[s.piece]!.block]!.name))];
};

describe('sending a train to a block', () => {
  test('it runs there over the points on its way, with the signals obeyed, and stands there', () => {
    const run = new Rehearsal(compileSystem(smallValley()), 1);
    const id = smallValley().trains.find((t) => t.name === 'Morning stopper')!.id;
    const mishaps: string[] = [];
    const arrived: string[] = [];
    const t7 = run.motors.findIndex((t) => t.name === 'T7');
    expect(run.plant.motors[t7]!.position).toBe('straight');
    /** The railcar would take SB first. */
    run.command({ kind: 'hold', signal: 's-SK1W', on: true });
    expect(run.command({ kind: 'send', train: id, block: 'SB' })).toBeUndefined();
    for (let i = 0; i < 50 * 600 && arrived.length === 0; i++)
      run.step((event) => {
        if (hazardOfEvent(event)) mishaps.push(event.kind);
        if (event.kind === 'done') arrived.push(event.block);
      });
    expect(mishaps).toEqual([]);
    expect(arrived).toEqual(['SB']);
    expect(blocksOf(run, id)).toEqual(['SB']);
    expect(run.plant.motors[t7]!.position).toBe('diverging');
    expect(run.plant.trains.find((t) => t.figures.id === id)!.speed).toBe(0);
  });
  test('on the oval it stops short of the end of the block it was sent to, and waits there', () => {
    const run = new Rehearsal(compileSystem(learningOval()), 2);
    const [red, blue] = learningOval().trains;
    run.command({ kind: 'send', train: red!.id, block: 'B2' });
    for (let i = 0; i < 6000; i++) run.step();
    expect(blocksOf(run, red!.id)).toEqual(['B2']);
    const train = run.plant.trains.find((t) => t.figures.id === red!.id)!;
    expect(train.running).toBe(false);
    expect(blocksOf(run, blue!.id)).not.toContain('B2');
  });
  test('a block that does not lie ahead, and one that is not there, are refused in words', () => {
    const run = new Rehearsal(compileSystem(smallValley()), 1);
    const railcar = smallValley().trains.find((t) => t.name === 'Skerrin railcar')!.id;
    expect(run.command({ kind: 'send', train: railcar, block: 'SK2' })).toContain('Turn it back first');
    expect(run.command({ kind: 'send', train: railcar, block: 'nowhere' })).toBe('That block is no longer there.');
    expect(run.command({ kind: 'send', train: 'nobody', block: 'SB' })).toContain('not on the track');
  });
  test('an order stands through a halt and a turn, and until it is done or taken back', () => {
    const said: string[] = [];
    const run = new Rehearsal(compileSystem(smallValley()), 1);
    const { id } = smallValley().trains.find((t) => t.name === 'Skerrin railcar')!;
    const index = run.plant.trains.findIndex((t) => t.figures.id === id);
    const go = (seconds: number) => {
      for (let i = 0; i < seconds * 50; i++)
        run.step((event) => {
          if (event.kind === 'done') said.push(event.block);
        });
    };
    run.command({ kind: 'run', train: id, on: false });
    go(10);
    const goal = run.system.partition.blocks.findIndex(({ name }) => name === 'SB');
    expect(run.command({ kind: 'send', train: id, block: 'block b-SB' })).toBeUndefined();
    run.command({ kind: 'run', train: id, on: false });
    go(5);
    expect(run.orders.of(index)).toMatchObject({ block: goal });
    expect(run.command({ kind: 'turn back', train: id })).toBeUndefined();
    expect(run.orders.of(index)).toEqual({ block: goal, way: undefined });
    go(20);
    expect(run.plant.trains[index]!.speed).toBe(0);
    expect(run.command({ kind: 'turn back', train: id })).toBeUndefined();
    expect(run.orders.of(index)?.way).toBeDefined();
    go(240);
    expect(said).toEqual(['SB']);
    expect(blocksOf(run, id)).toEqual(['SB']);
    expect(run.orders.of(index)).toBeUndefined();
    expect(run.command({ kind: 'take back', train: id })).toContain('no order');
  });
  test('drawing up by a distance stops there to the millimetre', () => {
    const run = new Rehearsal(compileSystem(learningOval()), 1);
    const { id } = learningOval().trains[0]!;
    run.command({ kind: 'run', train: id, on: false });
    for (let i = 0; i < 500; i++) run.step();
    const train = run.plant.trains.find((t) => t.figures.id === id)!;
    const from = train.head;
    run.command({ kind: 'draw up', train: id, mm: 40 });
    for (let i = 0; i < 500; i++) run.step();
    expect(Math.abs(train.head - from - 40)).toBeLessThan(1.5);
    expect(train.running).toBe(false);
  });
});

describe('runs', () => {
  const commands: TimedCommand[] = [
    { tick: 200, command: { kind: 'run', train: learningOval().trains[0]!.id, on: false } },
  ];
  const summaryOf = (ticks: number, told: TimedCommand[]) => {
    const summary = summariseRun(compileSystem(learningOval()), straighten(learningOval()), {
      seed: 4,
      ticks,
      commands: told,
    });
    for (;;) {
      const step = summary.next();
      if (step.done) return step.value;
    }
  };
  test('a long run says how far it has come', () => {
    const summary = summariseRun(compileSystem(learningOval()), straighten(learningOval()), {
      seed: 4,
      ticks: 25_000,
      commands: [],
    });
    expect([summary.next().value, summary.next().value]).toEqual([10_000, 20_000]);
    expect(summary.next()).toMatchObject({ done: true, value: { ticks: 25_000 } });
  });
  test('what failed in a run is had apart from what people did; what can no longer be done is named, and the rest is done', () => {
    const [, second] = learningOval().sensors;
    const told: TimedCommand[] = [
      { tick: 100, command: { kind: 'fail', fault: 'detector stuck', thing: second!.id, on: true } },
      { tick: 120, command: { kind: 'fault', sensor: 'd-gone', what: 'extra' } },
      ...commands,
      { tick: 300, command: { kind: 'fail', fault: 'detector stuck', thing: 'd-gone', on: true } },
    ];
    const failures = failuresIn(told);
    expect(failures.map(({ tick }) => tick)).toEqual([100, 120, 300]);
    const summary = summaryOf(3000, failures);
    expect(summary.refused.map(({ tick }) => tick)).toEqual([120, 300]);
    expect(summary.refused[1]!.says).toMatch(/d-gone .*: Nothing fails so there\./);
    expect(summary.hash).toBe(summaryOf(3000, failures.slice(0, 1)).hash);
    expect(summary.hash).not.toBe(summaryOf(3000, []).hash);
    expect(summaryOf(3000, commands).refused).toEqual([]);
  });
  test('a run had again has the same trace, whole or in figures', () => {
    const summary = summaryOf(3000, commands);
    expect(summary.hash).toBe(replay(compileSystem(learningOval()), 4, 3000, commands).traceHash);
    expect(summary.ticks).toBe(3000);
    const red = summary.trains[0]!;
    expect(red.stoodMs).toBeGreaterThan(2700 * 20 - 5000);
    expect(summary.trains[1]!.runMm).toBeGreaterThan(red.runMm);
    expect(summary.mishaps).toBe(0);
  });
  test('two runs part where the first event differs; one that only goes on longer does not part', () => {
    const [a, b] = [summaryOf(3000, []), summaryOf(3000, commands)];
    const parted = firstDifference(a.events, b.events)!;
    expect(parted.tick).toBeGreaterThanOrEqual(200);
    expect(parted.a).not.toBe(parted.b);
    expect(firstDifference(a.events, summaryOf(2000, []).events)).toBeUndefined();
  });
});

describe('measuring along the track', () => {
  test('on a ring the shorter way round is taken', () => {
    const graph = compileTrack(learningOval());
    const at = (n: number) => ({ line: 'oval', at: cm(n).tenthUm });
    expect(measureBetween(graph, at(100), at(300))!.length).toBe(cm(200).tenthUm);
    expect(measureBetween(graph, at(20), at(460))!.length).toBe(cm(40).tenthUm);
    expect(measureBetween(graph, at(20), at(20))!.length).toBe(0);
  });
  test('between random places of random layouts: as an exhaustive search over all routes says, and the same both ways', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const draw = new Draw(seed);
      const document = randomLine(seed);
      const graph = compileTrack(document);
      const place = () => {
        const line = draw.pick(document.lines);
        return { line: line.id, at: Math.floor(draw.between(0.1, 0.9) * line.length.tenthUm) };
      };
      const [a, b] = [place(), place()];
      const there = measureBetween(graph, a, b);
      const back = measureBetween(graph, b, a);
      expect(there?.length).toBe(back?.length);
      expect(there?.length).toBe(exhaustive(graph, a, b));
    }
  });
  test('rest to rest: with equal rates as the published form; never faster than passing through', () => {
    expect(standToStandS(2000, 300, 100, 100)).toBeCloseTo(9.66667, 5);
    expect(standToStandS(500, 300, 100, 100)).toBeCloseTo(4.47214, 5);
    for (const mm of [10, 100, 700, 5000]) {
      expect(standToStandS(mm, 250, 80, 80)).toBeCloseTo(runTimeS(mm, 250, 80), 9);
      expect(standToStandS(mm, 250, 60, 140)).toBeGreaterThan(mm / 250);
    }
  });
});

/** Least distance over every way without a repeated edge end, by trying all of them. */
function exhaustive(
  graph: ReturnType<typeof compileTrack>,
  from: { line: string; at: number },
  to: { line: string; at: number },
): number | undefined {
  let best: number | undefined;
  const edges = (place: { line: string; at: number }) =>
    graph.edges.filter((e) => e.line === place.line && place.at >= e.from && place.at <= e.to);
  const offer = (length: number) => {
    if (best === undefined || length < best) best = length;
  };
  const walk = (edge: number, exit: 0 | 1, length: number, seen: Set<string>) => {
    if (best !== undefined && length >= best) return;
    for (const on of onwardFrom(graph, edge, exit)) {
      const key = `${on.edge} ${on.enters}`;
      if (seen.has(key)) continue;
      const next = graph.edges[on.edge]!;
      if (edges(to).includes(next)) offer(length + (on.enters === 0 ? to.at - next.from : next.to - to.at));
      walk(on.edge, on.enters === 0 ? 1 : 0, length + next.to - next.from, new Set([...seen, key]));
    }
  };
  for (const edge of edges(from)) {
    if (edges(to).includes(edge)) offer(Math.abs(to.at - from.at));
    walk(edge.index, 1, edge.to - from.at, new Set());
    walk(edge.index, 0, from.at - edge.from, new Set());
  }
  return best;
}
