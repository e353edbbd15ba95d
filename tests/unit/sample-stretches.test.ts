import fc from 'fast-check';
import { expect, test } from 'vitest';
import { SAMPLE_TICKS, type Sample } from '@/core/simulation';
import { type BlockSpan, cutStretches, joinSpans, STRETCH_TICKS } from '@/ui/stages/rehearse/sample-stretches';

const BLOCKS = 4;

/** Samples of a made-up run: which of the blocks are occupied at each, as bits. */
const runOf = (occupied: number[]): Sample[] =>
  occupied.map((bits, i) => ({
    tick: i * SAMPLE_TICKS,
    trains: [],
    occupied: Array.from({ length: BLOCKS }, (_, b) => b).filter((b) => bits & (1 << b)),
  }));

/** The same spans found without stretches, block by block. */
function spansBlockByBlock(samples: Sample[]): BlockSpan[] {
  const found: BlockSpan[] = [];
  for (let block = 0; block < BLOCKS; block++) {
    let from: number | undefined;
    for (const { tick, occupied } of samples) {
      if (occupied.includes(block)) from ??= tick;
      else if (from !== undefined) {
        found.push({ block, from, to: tick });
        from = undefined;
      }
    }
    if (from !== undefined) found.push({ block, from, to: samples[samples.length - 1]!.tick });
  }
  return found;
}
const inOrder = (spans: BlockSpan[]) => [...spans].sort((a, b) => a.block - b.block || a.from - b.from);

test('joined over the stretches, spans of occupancy are those of the whole run', () => {
  fc.assert(
    fc.property(fc.array(fc.nat({ max: 15 }), { minLength: 2, maxLength: 200 }), (bits) => {
      const samples = runOf(bits);
      const joined = joinSpans(cutStretches(samples, 0, bits.length * SAMPLE_TICKS));
      expect(inOrder(joined)).toEqual(inOrder(spansBlockByBlock(samples)));
    }),
  );
});

test('stretches join at a common sample, and only those that grew are cut anew', () => {
  const samples = runOf(Array.from({ length: 130 }, (_, i) => i % 16));
  const early = cutStretches(samples.slice(0, 120), 0, 2000);
  const late = cutStretches(samples, 0, 2000, early);
  expect(late.map((s) => s.key)).toEqual([0, 1, 2]);
  expect(late[0]!.samples.at(-1)).toBe(late[1]!.samples[0]);
  expect(late.map((s, i) => s === early[i])).toEqual([true, true, false]);
});

test('a course that goes on otherwise is not mistaken for the old one', () => {
  const samples = runOf(Array.from({ length: 60 }, () => 1));
  const before = cutStretches(samples, 0, STRETCH_TICKS);
  const other = [...samples.slice(0, 30), ...runOf(Array.from({ length: 60 }, () => 2)).slice(30)];
  const [first] = cutStretches(other, 0, STRETCH_TICKS, before);
  expect(first!.spans.map((s) => s.block)).toEqual([0, 1]);
});

test('what lies outside the wanted ticks is left out, and a single sample makes no stretch', () => {
  const samples = runOf(Array.from({ length: 500 }, () => 1));
  expect(cutStretches(samples, 2100, 2600).map((s) => s.key)).toEqual([4, 5]);
  expect(cutStretches(samples.slice(0, 1), 0, 1000)).toEqual([]);
});
