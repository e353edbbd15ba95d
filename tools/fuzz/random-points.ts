import { cm } from '../../src/core/measure';
import { type Facing, type LayoutDocument, newDocument } from '../../src/core/survey';
import { block, gap, signal, train, turnout, vehicle } from '../../src/demo/build';
import { Draw } from './draw';

const LIES = ['straight', 'diverging'] as const;

/** Where two lines or three meet in points of more than the common kind, sound or with a signal or a detector left out. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: draws in one fixed order, so that a seed gives the same layout.
export function randomPoints(seed: number): LayoutDocument {
  const draw = new Draw(seed, 987);
  const d = newDocument(`Points ${seed}`);
  const line = (id: string, length: number) => d.lines.push({ id, name: id, length: cm(length), drawing: undefined });
  const homes: [string, number, Facing][] = [];
  /** A track that comes to the points at a place, from before it or from beyond: a block of its own, with a signal at its end. */
  const arm = (id: string, at: number, from: number, reach: number, name: string) => {
    const up = from < at;
    const edge = at + (up ? -reach : reach);
    d.features.push(gap(`g-${name}`, id, edge));
    if (draw.chance(0.85)) d.features.push(signal(`S${name}`, id, edge, up ? 'up' : 'down'));
    if (draw.chance(0.92)) block(d, name, id, (from + edge) / 2);
    homes.push([id, (from + edge) / 2, up ? 'up' : 'down']);
  };
  const reach = draw.whole(20, 32);
  const clearance = draw.chance(0.8) ? draw.whole(8, 18) : draw.whole(20, 40);
  if (draw.chance(0.4)) {
    const tips = draw.whole(80, 120);
    const up = draw.chance(0.5);
    const [length, leg] = [260, draw.whole(70, 120)];
    line('a', length);
    line('l', leg);
    line('r', leg);
    const [second, lies] = [draw.pick(LIES), draw.pick(LIES)];
    d.turnouts.push({
      ...turnout('W', 'a', tips, up ? 'up' : 'down', 'left', 'l'),
      kind: 'three-way',
      legs: ['l', 'r'].map((leg) => ({ line: leg, end: up ? ('start' as const) : ('end' as const) })),
      lies: [lies, second],
      clearance: cm(clearance),
    });
    arm('a', tips, up ? 0 : length, reach, 'A');
    arm('a', tips, up ? length : 0, reach, 'B');
    for (const leg of ['l', 'r']) {
      const size = d.lines.find(({ id }) => id === leg)!.length.tenthUm / 1e5;
      arm(leg, up ? 0 : size, up ? size : 0, reach, leg.toUpperCase());
    }
    block(d, 'X', 'a', tips);
  } else {
    const [one, two] = [draw.whole(90, 130), draw.whole(90, 130)];
    line('a', 2 * one);
    line('b', 2 * two);
    d.crossings.push({
      id: 'x',
      name: 'X',
      kind: draw.pick(['single slip', 'double slip']),
      a: { line: 'a', at: cm(one) },
      b: { line: 'b', at: cm(two) },
      angleDegrees: 15,
      clearance: cm(clearance),
      lies: undefined,
      throwMs: draw.pick([200, 1500]),
      certainty: 'fixed',
    });
    for (const [id, at] of [
      ['a', one],
      ['b', two],
    ] as const) {
      arm(id, at, 0, reach, `${id.toUpperCase()}1`);
      arm(id, at, 2 * at, reach, `${id.toUpperCase()}2`);
    }
    block(d, 'X', 'a', one);
  }
  d.referenceLine = 'a';
  for (const sensor of d.sensors) sensor.holdMs = draw.pick([0, 500]);
  const count = draw.whole(1, 2);
  for (let i = 0; i < count; i++) {
    const [where, at, facing] = homes.splice(draw.below(homes.length), 1)[0]!;
    const length = draw.whole(12, 26);
    d.vehicles.push(vehicle(`v${i}`, `Car ${i}`, length, [2, length - 2], () => true, 100));
    const nose = Math.round(at + ((facing === 'up' ? 1 : -1) * length) / 2);
    const start = { line: where, at: nose, facing };
    const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
    d.trains.push(train(`tr${i}`, `Train ${i}`, [`v${i}`], draw.whole(20, 50), start, rates));
  }
  return d;
}
