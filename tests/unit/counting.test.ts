import { describe, expect, test } from 'vitest';
import { divideTrack } from '@/core/detection';
import { countBlockSteps, type Placement, PlacementsOfTrain, StateSet } from '@/core/proof';
import { writePlantPromela } from '@/core/proof/export';
import { compileTrack } from '@/core/track';
import { ring } from '@/demo/learning-oval';
import { spin } from '../../tools/spin';
import { Draw } from './random-line';

const POINT = {
  lengthMm: 0,
  parts: { current: [{ from: 0, to: 0 }], metal: [], vehicle: [], magnet: [], nothing: [] },
  wheelsMm: [0, 0] as [number, number],
  pickUpsMm: [],
};

/** Trains of no length on a ring of equal blocks, and the placements at which the first blocks are held. */
function onRing(blocks: number): { placements: Placement[]; startIn: (block: number) => number } {
  const document = ring('Counting', blocks, 100);
  const partition = divideTrack(document, compileTrack(document));
  const start = { tape: [{ piece: partition.pieces[1]!.index, exit: 1 as const, from: 0, to: 1000 }], noseMm: 0 };
  const { placements } = new PlacementsOfTrain(
    partition,
    () => [],
    POINT,
    { brakingMm: 0, topMmPerS: 0, closes: false },
    false,
  ).from(start);
  return { placements, startIn: (block) => placements.findIndex((p) => p.blocks[0] === block) };
}

function count(blocks: number, trains: number) {
  const { placements, startIn } = onRing(blocks);
  const starts = Array.from({ length: trains }, (_, i) => startIn(i));
  return {
    alike: countBlockSteps([{ placements, starts }]),
    told: countBlockSteps(starts.map((start) => ({ placements, starts: [start] }))),
  };
}

const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);

describe('one-block trains on a ring; closed forms C(N,K), N·C(N−2,K−1), K·C(N,K), proved and brute-forced', () => {
  test.each([
    [6, 3, 20, 36, 60],
    [8, 3, 56, 120, 168],
    [10, 4, 210, 560, 840],
    [5, 4, 5, 5, 20],
  ])('%i blocks, %i trains: %i states, %i moves, %i states with the trains told apart', (n, k, states, moves, told) => {
    const found = count(n, k);
    expect(found.alike).toMatchObject({ states, moves, dead: 0, finished: true });
    expect(found.told).toMatchObject({ states: told, moves: k * moves, dead: 0 });
    expect([states, moves, told]).toEqual([choose(n, k), n * choose(n - 2, k - 1), k * choose(n, k)]);
  });
  test('as many trains as blocks: one state, no move, dead', () =>
    expect(count(5, 5)).toMatchObject({ alike: { states: 1, moves: 0, dead: 1 }, told: { states: 1, dead: 1 } }));
  test('a search that is cut short says so', () => {
    const { placements, startIn } = onRing(10);
    expect(countBlockSteps([{ placements, starts: [0, 1, 2, 3].map(startIn) }], 50).finished).toBe(false);
  });
  test.each([
    [6, 3, 60],
    [8, 3, 168],
    [5, 4, 20],
  ])('Spin finds as many states for %i blocks and %i trains: %i', (n, k, states) => {
    const { placements, startIn } = onRing(n);
    const model = writePlantPromela(Array.from({ length: k }, (_, i) => ({ placements, start: startIn(i) })));
    expect(spin(model, ['-DSAFETY', '-DNOREDUCE'])).toMatchObject({ errors: 0, states, complete: true });
  });
  test('Spin, too, finds a ring as full as can be dead', () => {
    const { placements, startIn } = onRing(5);
    const model = writePlantPromela(Array.from({ length: 5 }, (_, i) => ({ placements, start: startIn(i) })));
    expect(spin(model, ['-DSAFETY', '-DNOREDUCE'])).toMatchObject({ errors: 1 });
  });
});

describe('the set of states', () => {
  test.each([1, 2, 3])(
    'keeps 20,000 random states of %i words and knows each again, one by one or many at once',
    (words) => {
      const draw = new Draw(words);
      const set = new StateSet(words);
      const known = new Map<string, number>();
      const into = new Int32Array(words);
      for (let i = 0; i < 20_000; i++) {
        const state = Int32Array.from({ length: words }, () => draw.below(60) * (draw.chance(0.5) ? 1 : -70_000_000));
        const before = known.get(state.join());
        const number = set.add(state);
        if (before === undefined) {
          expect(number).toBe(known.size);
          known.set(state.join(), number);
        } else expect(~number).toBe(before);
      }
      for (const [text, number] of known) {
        set.read(number, into);
        expect(into.join()).toBe(text);
      }
      const many = Int32Array.from([...into, ...into, ...into.map((w) => w ^ 0x5a5a5a5)]);
      const result = new Int32Array(4);
      set.addAll(many, 3, result);
      const last = known.get(into.join())!;
      expect([...result.slice(0, 2)]).toEqual([~last, ~last]);
      expect(result[2]).toBe(known.get(into.map((w) => w ^ 0x5a5a5a5).join()) ?? known.size);
    },
  );
});
