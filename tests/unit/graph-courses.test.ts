import { expect, test } from 'vitest';
import type { PathSample, Sample } from '@/core/simulation';
import { straighten } from '@/core/track';
import { passingLoop } from '@/demo/passing-loop';
import { fitView, SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { type GraphFrame, piecesOf } from '@/ui/stages/rehearse/graph-courses';
import { cutStretches } from '@/ui/stages/rehearse/sample-stretches';

const WIDTH = 1000;
const drawing = straighten(passingLoop(['up']));
const geometry = new SheetGeometry(drawing, fitView(drawing, WIDTH), 0, 50);
const frame = (hidden: number[] = []): GraphFrame => ({
  geometry,
  width: WIDTH,
  pxPerTick: 0.06,
  mainRow: 0,
  hidden: new Set(hidden),
  dashes: new Map(),
});
/** One train, sampled; 20 cm long, its nose at these centimetres of these rows. */
const runOf = (...noses: [cm: number, row?: number][]): Sample[] =>
  noses.map(([at, row = 0], i) => {
    const sample: PathSample = { tick: i * 10, head: at * 1e5, tail: (at - 20) * 1e5, row, line: 'main' };
    return { tick: i * 10, trains: [sample], occupied: [] };
  });
const lengths = (samples: Sample[], hidden?: number[]) =>
  piecesOf(cutStretches(samples, 0, 10_000), 0, frame(hidden)).map((piece) => piece.length);

test('a train that simply runs is one line, across stretches too', () => {
  expect(lengths(runOf([40], [44], [48], [52]))).toEqual([4]);
  const far = Array.from({ length: 140 }, (_, i): [number] => [40 + i]);
  expect(lengths(runOf(...far))).toEqual([140]);
});
test('no line is drawn across a jump of the ruler, nor from one row to another', () => {
  expect(lengths(runOf([150], [154], [30], [34], [38]))).toEqual([2, 3]);
  expect(lengths(runOf([40], [44], [48, 1], [52, 1], [56, 1], [60]))).toEqual([2, 3, 1]);
});
test('rows that are left out, and what lies off the sheet, are not drawn', () => {
  expect(lengths(runOf([40], [44], [48, 1], [52, 1], [56], [60]), [1])).toEqual([2, 2]);
  const off = (drawing.to + 5e6) / 1e5;
  expect(lengths(runOf([40], [44], [off], [off + 4], [48]))).toEqual([2, 1]);
});
test('a train whose nose and tail lie on both sides of a cut in the ruler waits until both are past it', () => {
  const samples = runOf([40], [44], [48], [52]);
  samples[1]!.trains[0]!.tail = 6e7;
  samples[2]!.trains[0]!.tail = 6e7;
  expect(lengths(samples)).toEqual([1, 1]);
});
