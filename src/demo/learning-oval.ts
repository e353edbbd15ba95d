import { cm } from '@/core/measure';
import { giveOwnVehicles, type LayoutDocument, newDocument } from '@/core/survey';
import { block, gap, signal, train, vehicle } from './build';

/** A ring of plain track with `count` equal blocks and a signal at the end of each, all read the same way round. */
export function ring(name: string, count: number, blockCm: number): LayoutDocument {
  const d = newDocument(name, 'H0', 'cm');
  const length = count * blockCm;
  d.referenceLine = 'oval';
  d.lines = [{ id: 'oval', name: 'Oval', length: cm(length), drawing: undefined }];
  d.joins = [{ id: 'j1', a: { line: 'oval', end: 'end' }, b: { line: 'oval', end: 'start' } }];
  for (let i = 0; i < count; i++) {
    const at = i * blockCm + blockCm / 2;
    d.features.push(gap(`g${i + 1}`, 'oval', at), signal(`S${i + 1}`, 'oval', at, 'up'));
    block(d, `B${i + 1}`, 'oval', (at + blockCm / 2) % length);
  }
  return d;
}

/** Puts trains of one engine and two coaches on a ring, one a block, with their noses near the end of the block. */
export function withTrains(d: LayoutDocument, count: number, blockCm: number): LayoutDocument {
  d.vehicles = [
    vehicle('v-engine', 'Engine', 14, [3, 6, 9, 12], () => true, 260),
    vehicle('v-coach', 'Coach', 16, [2, 4, 12, 14], (axle) => axle === 0 || axle === 3, 90, 'coach'),
  ];
  const names = ['Red train', 'Blue train'];
  for (let i = 0; i < count; i++) {
    const at = (i * blockCm + blockCm * 1.5 - 10) % (d.lines[0]!.length.tenthUm / 100_000);
    d.trains.push(
      train(
        `tr${i + 1}`,
        names[i] ?? `Train ${i + 1}`,
        ['v-engine', 'v-coach', 'v-coach'],
        60 + (i % 3) * 10,
        { line: 'oval', at, facing: 'up' },
        { up: 60, down: 90, delayMs: 500, is: 'assumed' },
      ),
    );
  }
  giveOwnVehicles(d);
  return d;
}

/** The second layout that comes with Roblik: four blocks, two trains, nothing else to learn. */
export function learningOval(): LayoutDocument {
  const d = withTrains(ring('Learning oval', 4, 120), 2, 120);
  d.notes = 'A first layout to play with: four blocks, four signals, two trains.';
  return d;
}
