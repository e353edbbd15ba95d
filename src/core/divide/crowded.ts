import type { Boundary } from './cells';
import type { Run } from './runs';

/**
 * Points that would make one block of the track before several blades: they hang together, no boundary parts them, and more than one run
 * begins at their blades. They want a section of their own, whatever is wished for, but in areas that are not divided (`open`).
 */
export function crowded(
  runs: readonly Run[],
  boundaries: readonly (readonly Boundary[])[],
  apart: ReadonlySet<number>,
  open: ReadonlySet<number>,
): number[] {
  const leader = new Map<number, number>();
  const find = (points: number): number => {
    const up = leader.get(points);
    return up === undefined || up === points ? points : find(up);
  };
  for (const { index, ends } of runs)
    if (ends[0] && ends[1] && boundaries[index]!.length === 0) leader.set(find(ends[0].points), find(ends[1].points));
  /** By group: the runs whose track is one block with it. */
  const before = new Map<number, Set<number>>();
  const members = new Map<number, Set<number>>();
  for (const { index, ends } of runs)
    for (const [i, end] of ends.entries()) {
      if (!end) continue;
      const group = find(end.points);
      members.set(group, (members.get(group) ?? new Set()).add(end.points));
      const other = ends[1 - i];
      const within = boundaries[index]!.length === 0 && other && !other.tip;
      if (end.tip && !within && !apart.has(end.points) && !open.has(end.points))
        before.set(group, (before.get(group) ?? new Set()).add(index));
    }
  return [...before].flatMap(([group, own]) => (own.size > 1 ? [...members.get(group)!] : []));
}
