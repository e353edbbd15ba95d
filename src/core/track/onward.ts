import type { TurnoutPosition } from '../survey';
import type { EdgeEnd, TrackGraph } from './graph';

/** A way on from an end of an edge: where it enters, and how a turnout in between has to lie. */
export interface Onward {
  edge: number;
  /** The end by which the next edge is entered. */
  enters: EdgeEnd;
  turnout?: { index: number; position: TurnoutPosition; facing: boolean };
}

/** All ways on from an end: none at a buffer, one on plain track or trailing over a turnout, two at its blades. */
export function onwardFrom(graph: Pick<TrackGraph, 'edges' | 'turnouts'>, edge: number, end: EdgeEnd): Onward[] {
  const node = graph.edges[edge]!.ends[end];
  if (node.kind === 'stop') return [];
  if (node.kind === 'track') return [{ edge: node.edge, enters: node.end }];
  const turnout = graph.turnouts[node.turnout]!;
  if (node.role !== 'stem') {
    return [
      {
        edge: turnout.stem.edge,
        enters: turnout.stem.end,
        turnout: { index: node.turnout, position: node.role, facing: false },
      },
    ];
  }
  return (['straight', 'diverging'] as const).map((position) => ({
    edge: turnout[position].edge,
    enters: turnout[position].end,
    turnout: { index: node.turnout, position, facing: true },
  }));
}
