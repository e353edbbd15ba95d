import type { Lie } from '../kinds';
import type { EdgeEnd, TrackGraph } from './graph';

/** How a motor has to lie on a way over points. */
export interface Over {
  motor: number;
  position: Lie;
  /** It leads a train that comes from there this way or another; else it only has to lie right. */
  facing: boolean;
}

/** A way on from an end of an edge: where it enters, and how the motors of points in between have to lie. */
export interface Onward {
  edge: number;
  /** The end by which the next edge is entered. */
  enters: EdgeEnd;
  over: readonly Over[];
}

const NOTHING: readonly Over[] = [];

/** All ways on from an end: none at a buffer, one on plain track or trailing over a turnout, at blades one for each leg. */
export function onwardFrom(graph: Pick<TrackGraph, 'edges' | 'points'>, edge: number, end: EdgeEnd): Onward[] {
  const node = graph.edges[edge]!.ends[end];
  if (node.kind === 'stop') return [];
  if (node.kind === 'track') return [{ edge: node.edge, enters: node.end, over: NOTHING }];
  const { kind, ports, motors } = graph.points[node.points]!;
  const port = kind.ports[node.port]!;
  const ways = kind.ways.filter(({ joins }) => joins.includes(port));
  return ways.map(({ joins, lies }) => {
    const to = ports[kind.ports.indexOf(joins[0] === port ? joins[1] : joins[0])]!;
    const over = lies.flatMap((position, m): Over[] => {
      if (position === undefined) return [];
      return [{ motor: motors[m]!, position, facing: ways.some((other) => other.lies[m] !== position) }];
    });
    return { edge: to.edge, enters: to.end, over };
  });
}
