import { describe, expect, test } from 'vitest';
import { withMissed } from '@/core/proof/model/missed';
import type { Placement } from '@/core/proof/model/placement';

/** A train that goes on from one of these to the next; the first number that it feels everywhere is no spot. */
const SECTION = 9;
const placed = (detected: number[][]): Placement[] =>
  detected.map((spots, i) => ({
    detected: [SECTION, ...spots],
    turns: [{ to: 0, standsOn: [] }],
    advances: i === detected.length - 1 ? [] : [{ to: i + 1, seen: true, offTheEnd: false }],
  })) as unknown as Placement[];

/** What is noticed on every way from the first placement to the end, and what is told to be missed on it. */
function routesOf(placements: Placement[]): Map<string, string> {
  const found = new Map<string, string>();
  const go = (at: number, noticed: string[], missed: number[]) => {
    const { detected, advances } = placements[at]!;
    const now = [...noticed, detected.filter((one) => one !== SECTION).join('')];
    if (advances.length === 0) found.set(now.join(' '), [...missed].sort().join(''));
    for (const { to, misses = [] } of advances) go(to, now, [...missed, ...misses]);
  };
  go(0, [], []);
  return found;
}

describe('pulses that are missed', () => {
  /** By hand: each spot that the train comes to notices all of it or nothing, whatever the others do. */
  test('any of them, at once and one after the other', () => {
    const spots = [[], [1], [1, 2], [2, 3, 4], [4], []];
    const ways = routesOf(withMissed(placed(spots), (field) => field !== SECTION));
    const expected = new Map<string, string>();
    for (let bits = 0; bits < 16; bits++) {
      const missed = [1, 2, 3, 4].filter((spot) => (bits >> (spot - 1)) & 1);
      const noticed = spots.map((detected) => detected.filter((spot) => !missed.includes(spot)).join(''));
      expected.set(noticed.join(' '), missed.join(''));
    }
    expect(ways).toEqual(expected);
  });
  test('a spot that it stands on from the beginning, and what is no spot, are always noticed', () => {
    const ways = routesOf(withMissed(placed([[1], [1, 2], [2]]), (field) => field !== SECTION && field !== 2));
    expect([...ways.keys()]).toEqual(['1 12 2']);
  });
  test('it turns back only where nothing is missed, and a scan is asked for only where something changes', () => {
    const all = withMissed(placed([[], [1], []]), (field) => field === 1);
    expect(all.map(({ turns }) => turns.length)).toEqual([1, 1, 1, 0]);
    expect(all.map(({ advances }) => advances.map(({ to, seen }) => [to, seen]))).toEqual([
      [
        [1, true],
        [3, false],
      ],
      [[2, true]],
      [],
      [[2, false]],
    ]);
  });
});
