import type { Advance, Placement } from './placements';

/**
 * Adds, for each place where something gives pulses, that it misses one: from when a part of the train comes there until nothing of it is there any more
 * that would be noticed, it notices nothing.
 */
export function withMissed(placements: Placement[], givesPulses: (field: number) => boolean): Placement[] {
  const all = placements.map((p) => ({ ...p, advances: [...p.advances] }));
  const fields = new Set(placements.flatMap(({ felt }) => felt.filter(givesPulses)));
  for (const field of fields) {
    const feels = (p: number) => placements[p]!.felt.includes(field);
    /** By a placement in which it would be noticed, the same in which it is not. */
    const missing = new Map<number, number>();
    placements.forEach((p, number) => {
      if (!feels(number)) return;
      missing.set(number, all.length);
      all.push({ ...p, felt: p.felt.filter((one) => one !== field), turns: [] });
    });
    const seen = (one: Advance, from: number, to: number) =>
      one.offTheEnd || all[from]!.felt.join() !== all[to]!.felt.join();
    placements.forEach((p, number) => {
      const from = missing.get(number);
      if (from !== undefined)
        all[from]!.advances = p.advances.map((one) => {
          const to = missing.get(one.to) ?? one.to;
          return { ...one, to, seen: seen(one, from, to) };
        });
      else
        for (const one of p.advances) {
          const to = one.offTheEnd ? undefined : missing.get(one.to);
          if (to !== undefined) all[number]!.advances.push({ ...one, to, seen: seen(one, number, to), misses: field });
        }
    });
  }
  return all;
}
