import { cm } from '../../src/core/measure';
import { type LayoutDocument, newDocument } from '../../src/core/survey';
import { block, gap, signal, train, turnout, vehicle } from '../../src/demo/build';
import { Draw } from './draw';

/** A line that ends in a loop by which it comes back on itself the other way round, for one train or two. */
export function randomReverseLoop(seed: number): LayoutDocument {
  const draw = new Draw(seed, 555);
  const d = newDocument(`Reverse loop ${seed}`);
  const [tips, loop, leg, reach] = [draw.whole(240, 320), draw.whole(150, 220), draw.whole(150, 220), 30];
  for (const [id, length] of [
    ['a', tips + loop],
    ['l', leg],
  ] as const)
    d.lines.push({ id, name: id, length: cm(length), drawing: undefined });
  d.referenceLine = 'a';
  d.turnouts.push({ ...turnout('T', 'a', tips, 'up', 'left', 'l'), clearance: cm(draw.whole(10, 22)) });
  d.joins.push({ id: 'j', a: { line: 'a', end: 'end' }, b: { line: 'l', end: 'end' } });
  const half = Math.round(tips / 2);
  const cuts = [
    ['a', half],
    ['a', tips - 18],
    ['a', tips + reach],
    ['l', reach],
  ] as const;
  cuts.forEach(([line, at], i) => {
    d.features.push(gap(`g${i}`, line, at));
    for (const way of ['up', 'down'] as const)
      if (draw.chance(0.85)) d.features.push(signal(`${way === 'up' ? 'U' : 'D'}${i}`, line, at, way));
  });
  block(d, 'W', 'a', half / 2);
  block(d, 'M', 'a', half + 20);
  block(d, 'T', 'a', tips);
  block(d, 'L', 'a', tips + loop - 10);
  const homes = [half / 2, half + 50, tips + loop / 2];
  for (let i = 0; i < draw.whole(1, 2); i++) {
    const length = draw.whole(14, 30);
    d.vehicles.push(vehicle(`v${i}`, `Car ${i}`, length, [2, length - 2], () => true, 100));
    const at = Math.round(homes.splice(draw.below(homes.length), 1)[0]! + length / 2);
    const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
    const start = { line: 'a', at, facing: draw.pick(['up', 'down'] as const) };
    d.trains.push(train(`tr${i}`, `Train ${i}`, [`v${i}`], draw.whole(20, 60), start, rates));
  }
  return d;
}
