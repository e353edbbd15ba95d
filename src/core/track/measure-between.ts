import type { TenthUm } from '../measure';
import type { EdgeEnd, TrackGraph } from './graph';
import { onwardFrom } from './onward';

/** A place on the track. */
export interface TrackPlace {
  line: string;
  at: TenthUm;
}

/** The shortest way between two places that a train can run without turning back, and the turnouts it leads over. */
export interface Between {
  length: TenthUm;
  turnouts: string[];
  /** What of each line it leads along. */
  stretches: Stretch[];
}

/** Part of a line, from the lower distance to the higher. */
export interface Stretch {
  line: string;
  from: TenthUm;
  to: TenthUm;
}

/**
 * The shortest way along the track from one place to another, starting either way, over whatever points; undefined when no
 * train gets from one to the other without turning back.
 */
export function measureBetween(graph: TrackGraph, from: TrackPlace, to: TrackPlace): Between | undefined {
  const edgesAt = (place: TrackPlace) =>
    (graph.byLine.get(place.line) ?? []).filter((edge) => place.at >= edge.from && place.at <= edge.to);
  const starts = edgesAt(from);
  const targets = edgesAt(to);
  let best: Between | undefined;
  const consider = (between: Between) => {
    if (!best || between.length < best.length) best = between;
  };
  const along = (line: string, a: TenthUm, b: TenthUm): Stretch => ({ line, from: Math.min(a, b), to: Math.max(a, b) });
  for (const edge of starts)
    if (targets.includes(edge))
      consider({ length: Math.abs(to.at - from.at), turnouts: [], stretches: [along(edge.line, from.at, to.at)] });
  interface Reached {
    edge: number;
    exit: EdgeEnd;
    /** From the start to the end by which this edge is left. */
    length: TenthUm;
    turnouts: string[];
    stretches: Stretch[];
  }
  const queue: Reached[] = starts.flatMap((edge) =>
    ([0, 1] as const).map((exit) => ({
      edge: edge.index,
      exit,
      length: exit === 1 ? edge.to - from.at : from.at - edge.from,
      turnouts: [],
      stretches: [along(edge.line, from.at, exit === 1 ? edge.to : edge.from)],
    })),
  );
  const seen = new Set<string>();
  while (queue.length > 0) {
    queue.sort((a, b) => a.length - b.length);
    const here = queue.shift()!;
    if (best && here.length >= best.length) break;
    const key = `${here.edge} ${here.exit}`;
    if (seen.has(key)) continue;
    seen.add(key);
    for (const on of onwardFrom(graph, here.edge, here.exit)) {
      const edge = graph.edges[on.edge]!;
      const passed = on.over.map(({ motor }) => graph.points[graph.motors[motor]!.points]!.name);
      const turnouts = [...here.turnouts, ...new Set(passed)];
      if (targets.includes(edge))
        consider({
          length: here.length + (on.enters === 0 ? to.at - edge.from : edge.to - to.at),
          turnouts,
          stretches: [...here.stretches, along(edge.line, on.enters === 0 ? edge.from : edge.to, to.at)],
        });
      queue.push({
        edge: on.edge,
        exit: on.enters === 0 ? 1 : 0,
        length: here.length + edge.to - edge.from,
        turnouts,
        stretches: [...here.stretches, along(edge.line, edge.from, edge.to)],
      });
    }
  }
  return best;
}
