import type { Placement } from './placements';

/**
 * Where no current flows while a train stands: adds to each placement in which something of it is noticed by what needs current the same one at rest, in
 * which that is not noticed, with the way there and back. A train may come to rest anywhere.
 */
export function withRest(placements: Placement[], needsCurrent: (field: number) => boolean): Placement[] {
  const all = placements.map((p) => ({ ...p, advances: [...p.advances] }));
  placements.forEach((p, number) => {
    const felt = p.felt.filter((field) => !needsCurrent(field));
    if (felt.length === p.felt.length) return;
    const step = {
      gates: [],
      passes: [],
      turnouts: [],
      carry: p.before.map((_, i) => i),
      seen: true,
      offTheEnd: false,
      runMm: 0,
    };
    all[number]!.advances.push({ ...step, to: all.length, rests: 'begins' });
    all.push({ ...p, felt, advances: [{ ...step, to: number, rests: 'ends' }] });
  });
  return all;
}
