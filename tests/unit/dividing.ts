import type { DivideWishes } from '@/core/divide';
import { cm } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { onwardFrom, type TrackGraph } from '@/core/track';

/** What a division is asked to do, where a test says nothing else. */
export const wishes = (more: Partial<DivideWishes> = {}): DivideWishes => ({
  trains: 2,
  longest: cm(60).tenthUm,
  shortest: cm(30).tenthUm,
  stopping: 0,
  tail: 0,
  points: 'routes',
  wholePlatforms: true,
  wholeAreas: true,
  keep: 'all',
  ...more,
});
/** Without anything that divides it, and without signals. */
export const bare = (d: LayoutDocument): LayoutDocument => ({
  ...d,
  features: d.features.filter(({ kind }) => kind !== 'gap' && kind !== 'mark' && kind !== 'signal'),
  blocks: [],
  sensors: [],
});
/** Every way on which one comes back to an edge in the same direction, passing no edge twice: all of them, by trying every turn. */
export function circuits(graph: TrackGraph): number[][] {
  const found = new Map<string, number[]>();
  for (const { index: first } of graph.edges) {
    const way = [first];
    const go = (edge: number, exit: 0 | 1) => {
      for (const on of onwardFrom(graph, edge, exit)) {
        if (on.edge === first && on.enters === 0) found.set([...way].sort((a, b) => a - b).join(' '), [...way]);
        if (on.edge <= first || way.includes(on.edge)) continue;
        way.push(on.edge);
        go(on.edge, on.enters === 0 ? 1 : 0);
        way.pop();
      }
    };
    go(first, 1);
  }
  return [...found.values()];
}
