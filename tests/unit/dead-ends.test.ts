import { describe, expect, test } from 'vitest';
import { DeadEnds, NOT_FOLLOWED } from '@/core/proof/engine/dead-ends';
import { Draw } from '../../tools/fuzz/draw';

/** Kept states with all that each leads to. */
type Graph = ReadonlyMap<number, readonly number[]>;

/** By definition: of the kept states, the largest set of which nothing leads out; the lowest number in it. */
function byDefinition(kept: Graph): number | undefined {
  const dead = new Set(kept.keys());
  for (let before = -1; before !== dead.size; ) {
    before = dead.size;
    for (const state of [...dead]) if (!kept.get(state)!.every((to) => dead.has(to))) dead.delete(state);
  }
  return dead.size > 0 ? Math.min(...dead) : undefined;
}

function found(kept: Graph, states: number): { nearest: number | undefined; slices: number } {
  const ends = new DeadEnds();
  for (const [state, leads] of kept) {
    ends.begin(state, leads.length);
    for (const to of leads) ends.leadsTo(to);
    ends.ended();
  }
  let slices = 1;
  while (!ends.find(states, 1)) slices += 1;
  return { nearest: ends.nearest, slices };
}

describe('dead ends', () => {
  test('are those of the definition, on 2,000 graphs drawn by chance', () => {
    let [some, none] = [0, 0];
    for (let seed = 1; seed <= 2000; seed++) {
      const draw = new Draw(seed);
      const states = 1 + draw.below(40);
      const share = draw.pick([0.8, 0.9, 1, 1]);
      const kept = new Map<number, number[]>();
      for (let state = 0; state < states; state++)
        if (draw.chance(share))
          kept.set(
            state,
            Array.from({ length: 1 + draw.below(3) }, () => (draw.chance(0.03) ? NOT_FOLLOWED : draw.below(states))),
          );
      const { nearest } = found(kept, states);
      expect(nearest, `seed ${seed}`).toBe(byDefinition(kept));
      if (nearest === undefined) none += 1;
      else some += 1;
    }
    expect(some).toBeGreaterThan(150);
    expect(none).toBeGreaterThan(200);
  });
  test('a way out at the far end of a long chain is found in slices that grow with the chain, not with its square', () => {
    const chain = (length: number): Graph =>
      new Map(Array.from({ length }, (_, i) => [i, i + 1 === length ? [NOT_FOLLOWED] : [i + 1]]));
    const [short, long] = [found(chain(400_000), 400_000), found(chain(1_600_000), 1_600_000)];
    expect([short.nearest, long.nearest]).toEqual([undefined, undefined]);
    expect(long.slices).toBeGreaterThan(1);
    expect(long.slices).toBeLessThanOrEqual(5 * short.slices);
  });
});
