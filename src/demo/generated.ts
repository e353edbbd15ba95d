import { cm } from '@/core/measure';
import { giveOwnVehicles, type LayoutDocument, newDocument } from '@/core/survey';
import { block, gap, signal, train, turnout, vehicle } from './build';

const STATION_CM = 600;

/** A long single line with crossing loops, five blocks each, signalled both ways: for measuring, not for looking at. */
export function generatedLine(blocks: number): LayoutDocument {
  const stations = Math.ceil(blocks / 5);
  const d = newDocument(`Generated, ${blocks} blocks`);
  d.referenceLine = 'main';
  d.lines = [{ id: 'main', name: 'Main', length: cm(stations * STATION_CM), drawing: undefined }];
  d.joins = [{ id: 'j1', a: { line: 'main', end: 'end' }, b: { line: 'main', end: 'start' } }];
  for (let n = 0; n < stations; n++) {
    const at = n * STATION_CM;
    const loop = `loop${n}`;
    d.lines.push({ id: loop, name: `Loop ${n}`, length: cm(260), drawing: undefined });
    d.turnouts.push(
      turnout(`A${n}`, 'main', at + 200, 'up', 'right', loop),
      turnout(`B${n}`, 'main', at + 450, 'down', 'left', loop),
    );
    d.features.push(
      gap(`ga${n}`, 'main', at + 180),
      gap(`gb${n}`, 'main', at + 240),
      gap(`gc${n}`, 'main', at + 410),
      gap(`gd${n}`, 'main', at + 470),
      gap(`ge${n}`, loop, 40),
      gap(`gf${n}`, loop, 220),
      signal(`E${n}`, 'main', at + 180, 'up'),
      signal(`W${n}`, 'main', at + 470, 'down'),
      signal(`ME${n}`, 'main', at + 410, 'up'),
      signal(`MW${n}`, 'main', at + 240, 'down'),
      signal(`LE${n}`, loop, 220, 'up'),
      signal(`LW${n}`, loop, 40, 'down'),
    );
    block(d, `S${n}`, 'main', at + 100);
    block(d, `T${n}`, 'main', at + 210);
    block(d, `M${n}`, 'main', at + 300);
    block(d, `L${n}`, loop, 130);
    block(d, `U${n}`, 'main', at + 440);
  }
  return d;
}

const engineAndCoach = () => [
  vehicle('v-engine', 'Engine', 14, [3, 6, 9, 12], () => true, 260),
  vehicle('v-coach', 'Coach', 16, [2, 4, 12, 14], (axle) => axle === 0 || axle === 3, 90, 'coach'),
];

/** The same line with a train of an engine and two coaches in each of its first stations, all running one way. */
export function generatedTraffic(trains: number): LayoutDocument {
  const d = generatedLine(trains * 5);
  d.name = `Generated, ${trains} trains`;
  d.vehicles = engineAndCoach();
  for (let n = 0; n < trains; n++)
    d.trains.push(
      train(
        `tr${n}`,
        `Train ${n + 1}`,
        ['v-engine', 'v-coach', 'v-coach'],
        50 + (n % 4) * 5,
        { line: 'main', at: n * STATION_CM + 390, facing: 'up' },
        { up: 60, down: 90, delayMs: 500, is: 'assumed' },
      ),
    );
  giveOwnVehicles(d);
  return d;
}

/** So many wagons and trains made of them by a fixed rule, few of them seen: for measuring the search for resistor axles. */
export function generatedYard(wagons: number, trains: number): LayoutDocument {
  const d = newDocument(`Generated, ${wagons} wagons in ${trains} trains`);
  d.vehicles = Array.from({ length: wagons }, (_, i) => {
    const length = 10 + ((i * 7) % 15);
    return vehicle(`v${i}`, `Wagon ${i + 1}`, length, [2, length - 2], () => i % 11 === 0, 60, 'wagon');
  });
  d.trains = Array.from({ length: trains }, (_, t) =>
    train(
      `tr${t}`,
      `Train ${t + 1}`,
      Array.from({ length: 18 }, (_, i) => `v${(t * 13 + i * (2 * t + 1)) % wagons}`),
      40,
      { line: 'main', at: 0, facing: 'up' },
      { up: 60, down: 60, delayMs: 0, is: 'assumed' },
    ),
  ).map((one) => ({ ...one, start: undefined }));
  return d;
}

/** A station of so many roads beside the main one, with a ladder at either end, and nine blocks before it on either side: for measuring. Trains stand in its first roads. */
export function generatedStation(roads: number, trains = 0): LayoutDocument {
  const d = newDocument(`Generated station, ${roads + 1} roads`);
  const [approach, rung, road] = [9 * 150, 40, 400];
  const [first, last] = [approach + rung * (roads + 2), approach + rung * (roads + 2) + road];
  const length = last + rung * (roads + 2) + approach;
  d.referenceLine = 'main';
  d.lines = [{ id: 'main', name: 'Main', length: cm(length), drawing: undefined }];
  for (let n = 0; n < roads; n++) {
    const id = `road${n}`;
    const off = rung * (n + 1);
    d.lines.push({ id, name: `Road ${n + 2}`, length: cm(road + 2 * off), drawing: undefined });
    d.turnouts.push(
      turnout(`A${n}`, 'main', first - off, 'up', 'right', id),
      turnout(`B${n}`, 'main', last + off, 'down', 'left', id),
    );
    d.features.push(
      gap(`ga${n}`, id, off),
      gap(`gb${n}`, id, road + off),
      signal(`E${n}`, id, road + off, 'up'),
      signal(`W${n}`, id, off, 'down'),
    );
    block(d, `R${n}`, id, off + road / 2);
  }
  d.features.push(gap('gm1', 'main', first), gap('gm2', 'main', last));
  d.features.push(signal('ME', 'main', last, 'up'), signal('MW', 'main', first, 'down'));
  block(d, 'M', 'main', (first + last) / 2);
  block(d, 'T', 'main', first - rung / 2);
  block(d, 'U', 'main', last + rung / 2);
  for (let n = 0; n < 9; n++) {
    const [low, high] = [(n + 1) * 150, length - (n + 1) * 150];
    d.features.push(gap(`gl${n}`, 'main', low), gap(`gh${n}`, 'main', high));
    d.features.push(signal(`L${n}`, 'main', low, 'up'), signal(`H${n}`, 'main', high, 'down'));
    block(d, `LB${n}`, 'main', low - 75);
    block(d, `HB${n}`, 'main', high + 75);
  }
  if (trains > 0) d.vehicles = engineAndCoach();
  for (let n = 0; n < trains; n++) {
    const start = { line: `road${n}`, at: rung * (n + 1) + road / 2, facing: n % 2 === 0 ? 'up' : 'down' } as const;
    const rates = { up: 60, down: 90, delayMs: 500, is: 'assumed' } as const;
    d.trains.push(
      train(`tr${n}`, `Train ${n + 1}`, ['v-engine', 'v-coach', 'v-coach'], 50 + (n % 4) * 5, start, rates),
    );
  }
  if (trains > 0) giveOwnVehicles(d);
  return d;
}
