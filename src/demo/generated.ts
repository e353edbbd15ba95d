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

/** The same line with a train of an engine and two coaches in each of its first stations, all running one way. */
export function generatedTraffic(trains: number): LayoutDocument {
  const d = generatedLine(trains * 5);
  d.name = `Generated, ${trains} trains`;
  d.vehicles = [
    vehicle('v-engine', 'Engine', 14, [3, 6, 9, 12], () => true, 260),
    vehicle('v-coach', 'Coach', 16, [2, 4, 12, 14], (axle) => axle === 0 || axle === 3, 90, 'coach'),
  ];
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
