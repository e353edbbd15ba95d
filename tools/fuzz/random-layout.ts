import { cm } from '../../src/core/measure';
import { type Facing, type LayoutDocument, newDocument, type Turnout } from '../../src/core/survey';
import { block, gap, signal, train, turnout, vehicle } from '../../src/demo/build';
import { Draw } from './draw';

/** A line with what stands on it, before anything is spoilt. */
interface Ground {
  document: LayoutDocument;
  /** Where a signal belongs: line, distance, direction. */
  signals: [string, number, Facing][];
  /** Where a train may start: line, distance. */
  homes: [string, number][];
}

const bare = (name: string, lines: [string, number][]): LayoutDocument => {
  const document = newDocument(name);
  document.referenceLine = lines[0]![0];
  document.lines = lines.map(([id, length]) => ({ id, name: id, length: cm(length), drawing: undefined }));
  return document;
};
const closed = (document: LayoutDocument, line: string) =>
  document.joins.push({ id: `j-${line}`, a: { line, end: 'end' }, b: { line, end: 'start' } });

function cutInto(ground: Ground, line: string, cuts: number[], length: number, ring: boolean, both: boolean): void {
  const { document, signals, homes } = ground;
  cuts.forEach((at, i) => {
    document.features.push(gap(`g-${line}-${i}`, line, at));
    signals.push([line, at, 'up']);
    if (both) signals.push([line, at, 'down']);
  });
  const ends = ring ? cuts : [...cuts, length];
  ends.forEach((end, i) => {
    const from = cuts[i - 1] ?? (ring ? cuts[cuts.length - 1]! - length : 0);
    const middle = ((((from + end) / 2) % length) + length) % length;
    block(document, `${line}${i}`, line, middle);
    homes.push([line, middle]);
  });
}

const SHAPES: ((draw: Draw) => Ground)[] = [
  function ring(draw) {
    const count = draw.whole(3, 5);
    const size = draw.whole(50, 130);
    const ground: Ground = { document: bare('Ring', [['a', count * size]]), signals: [], homes: [] };
    closed(ground.document, 'a');
    const cuts = Array.from({ length: count }, (_, i) => i * size + draw.whole(5, size - 5));
    cutInto(ground, 'a', cuts, count * size, true, draw.chance(0.3));
    return ground;
  },
  function openLine(draw) {
    const size = draw.whole(70, 140);
    const ground: Ground = { document: bare('Line', [['a', 3 * size]]), signals: [], homes: [] };
    cutInto(ground, 'a', [size, 2 * size], 3 * size, false, true);
    return ground;
  },
  function crossing(draw) {
    const size = draw.whole(80, 140);
    const ground: Ground = {
      document: bare('Crossing', [
        ['a', 2 * size],
        ['b', 2 * size],
      ]),
      signals: [],
      homes: [],
    };
    cutInto(ground, 'a', [size], 2 * size, false, draw.chance(0.5));
    cutInto(ground, 'b', [size], 2 * size, false, draw.chance(0.5));
    ground.document.crossings.push({
      id: 'x',
      name: 'X',
      kind: 'diamond',
      a: { line: 'a', at: cm(size + draw.whole(10, 60)) },
      b: { line: 'b', at: cm(size + draw.whole(10, 60)) },
      angleDegrees: 30,
      clearance: cm(draw.whole(4, 18)),
      certainty: 'fixed',
    });
    return ground;
  },
  function siding(draw) {
    const [length, tips, leg] = [draw.whole(420, 520), draw.whole(170, 220), draw.whole(50, 120)];
    const facing: Facing = draw.pick(['up', 'down']);
    const sign = facing === 'up' ? 1 : -1;
    const ground: Ground = {
      document: bare('Siding', [
        ['a', length],
        ['s', leg],
      ]),
      signals: [],
      homes: [],
    };
    const { document: d } = ground;
    closed(d, 'a');
    d.turnouts.push({ ...turnout('T', 'a', tips, facing, 'left', 's'), clearance: cm(draw.whole(8, 24)) });
    const reach = draw.whole(22, 34);
    const [before, after, far] = [tips - sign * 20, tips + sign * reach, tips + sign * 170];
    const onLeg = facing === 'up' ? reach : leg - reach;
    d.features.push(gap('g1', 'a', before), gap('g2', 'a', after), gap('g3', 's', onLeg), gap('g4', 'a', far));
    block(d, 'T', 'a', tips);
    block(d, 'E', 'a', (after + far) / 2);
    block(d, 'W', 'a', (far + sign * 60 + length) % length);
    block(d, 'S', 's', facing === 'up' ? leg - 10 : 10);
    const both = draw.chance(0.5);
    for (const [l, at, way] of [
      ['a', before, facing],
      ['a', after, facing === 'up' ? 'down' : 'up'],
      ['s', onLeg, facing === 'up' ? 'down' : 'up'],
      ['a', far, 'up'],
      ['a', far, 'down'],
    ] as const)
      if (both || way === facing || l === 's') ground.signals.push([l, at, way]);
    ground.homes.push(['a', (after + far) / 2], ['a', (far + sign * 60 + length) % length], ['s', leg / 2]);
    return ground;
  },
  function passingLoop(draw) {
    const [west, east] = [draw.whole(120, 150), draw.whole(300, 340)];
    const length = east + draw.whole(110, 140);
    const leg = east - west + 4;
    const ground: Ground = {
      document: bare('Loop', [
        ['a', length],
        ['l', leg],
      ]),
      signals: [],
      homes: [],
    };
    const { document: d, signals } = ground;
    const ring = draw.chance(0.5);
    if (ring) closed(d, 'a');
    const points = (name: string, at: number, facing: Facing): Turnout => ({
      ...turnout(name, 'a', at, facing, 'left', 'l'),
      clearance: cm(draw.whole(10, 24)),
    });
    d.turnouts.push(points('A', west, 'up'), points('B', east, 'down'));
    const reach = draw.whole(24, 34);
    const cuts: [string, number][] = [
      ['a', west - 18],
      ['a', west + reach],
      ['a', east - reach],
      ['a', east + 18],
      ['l', reach],
      ['l', leg - reach],
    ];
    for (const [i, [l, at]] of cuts.entries()) d.features.push(gap(`g${i}`, l, at));
    block(d, 'W', 'a', 40);
    block(d, 'A', 'a', west);
    block(d, 'M', 'a', (west + east) / 2);
    block(d, 'L', 'l', leg / 2);
    block(d, 'B', 'a', east);
    if (!ring) block(d, 'E', 'a', length - 40);
    signals.push(['a', west - 18, 'up'], ['a', east - reach, 'up'], ['l', leg - reach, 'up']);
    if (!ring || draw.chance(0.6))
      signals.push(['a', east + 18, 'down'], ['a', west + reach, 'down'], ['l', reach, 'down']);
    ground.homes.push(['a', (west + east) / 2], ['l', leg / 2], ['a', 60], ['a', length - 50]);
    return ground;
  },
];

/**
 * A small layout of one of five shapes, sound or spoilt: signals or detectors left out, signals in the wrong place, gaps too close
 * to points, axles unseen, overhangs, trains too long, too fast, too many, facing each other, half off their track.
 */
export function randomLayout(seed: number): LayoutDocument {
  const draw = new Draw(seed, 1234);
  const { document: d, signals, homes } = draw.pick(SHAPES)(draw);
  d.name = `${d.name} ${seed}`;
  /** A sound layout now and then, the others with a few faults of different kinds. */
  const spoilt = draw.chance(0.75);
  const fault = (p: number) => spoilt && draw.chance(p);
  for (const [l, at, way] of signals) {
    if (fault(0.12)) continue;
    const length = d.lines.find((line) => line.id === l)!.length.tenthUm / 1e5;
    const off = fault(0.12) ? draw.whole(-20, 12) : 0;
    const where = Math.min(length - 1, Math.max(1, at + off));
    const name = `${way === 'up' ? 'U' : 'D'}${d.features.length}`;
    if (
      !d.features.some(
        (f) => f.kind === 'signal' && f.line === l && f.at.tenthUm === cm(where).tenthUm && f.governs === way,
      )
    )
      d.features.push(signal(name, l, where, way));
  }
  if (fault(0.2)) d.sensors.splice(draw.below(d.sensors.length), 1);
  if (fault(0.15)) {
    const gaps = d.features.filter((f) => f.kind === 'gap');
    const gone = draw.pick(gaps);
    d.features = d.features.filter((f) => f !== gone);
  }
  for (const t of d.turnouts) {
    t.lies = [draw.pick(['straight', 'diverging'])];
    t.throwMs = draw.pick([200, 1500]);
  }
  for (const detector of d.sensors) detector.holdMs = draw.pick([0, 300, 1000]);
  const count = 1 + draw.below(fault(0.2) ? 3 : 2);
  for (let i = 0; i < count; i++) {
    const length = fault(0.15) ? draw.whole(60, 110) : draw.whole(14, 34);
    const tail = fault(0.2) ? draw.whole(5, 12) : 2;
    const axles = [2, 5, length - tail - 3, length - tail].filter((at, k, all) => at > 0 && all.indexOf(at) === k);
    const unseen = fault(0.15) ? draw.below(4) : -1;
    d.vehicles.push(vehicle(`v${i}`, `Car ${i}`, length, axles, (k) => k !== unseen && !(unseen === 3 && k > 0), 100));
    const home = homes.splice(draw.below(homes.length), 1)[0];
    if (!home) continue;
    const facing: Facing = draw.chance(0.65) ? 'up' : 'down';
    const at = Math.round(home[1] + (facing === 'up' ? 1 : -1) * Math.min(length / 2, 20));
    const size = d.lines.find((line) => line.id === home[0])!.length.tenthUm / 1e5;
    const where = Math.min(size, Math.max(0, at));
    const speed = fault(0.2) ? draw.whole(90, 160) : draw.whole(25, 70);
    d.trains.push(
      train(
        `tr${i}`,
        `Train ${i}`,
        [`v${i}`],
        speed,
        { line: home[0], at: where, facing },
        {
          up: draw.whole(60, 200),
          down: fault(0.15) ? draw.whole(40, 80) : draw.whole(100, 300),
          delayMs: draw.pick([0, 400]),
          is: 'assumed',
        },
      ),
    );
  }
  return d;
}
