import type { TenthUm } from '../measure';
import { type LayoutDocument, type LineEnd, remembered, type Turnout, type TurnoutPosition } from '../survey';
import { type FoulingPair, foulingOf } from './fouling';

/** End 0 of an edge is its lower distance on the line, end 1 its higher. */
export type EdgeEnd = 0 | 1;

/** A run of plain track between turnouts or line ends; its distances are those of its line. */
export interface Edge {
  index: number;
  line: string;
  from: TenthUm;
  to: TenthUm;
  ends: [Node, Node];
}

/** What an edge meets at one of its ends. */
export type Node =
  | { kind: 'track'; edge: number; end: EdgeEnd }
  | { kind: 'turnout'; turnout: number; role: 'stem' | TurnoutPosition }
  | { kind: 'stop' };

export interface Leg {
  edge: number;
  end: EdgeEnd;
}

export interface TurnoutNode {
  index: number;
  turnout: Turnout;
  stem: Leg;
  straight: Leg;
  diverging: Leg;
}

export interface TrackGraph {
  edges: Edge[];
  turnouts: TurnoutNode[];
  fouling: FoulingPair[];
  /** Edges of each line in order of distance. */
  byLine: Map<string, Edge[]>;
}

const READS = ['lines', 'joins', 'turnouts', 'crossings'] as const;
/** What the track is compiled from. */
export type Tracks = Pick<LayoutDocument, (typeof READS)[number]>;

/** Compiles a checked document into edges and turnouts. Slips and crossovers are read as plain diamonds. */
export const compileTrack = remembered(READS, edgesAndTurnouts);

function edgesAndTurnouts(document: Tracks): TrackGraph {
  const edges: Edge[] = [];
  const byLine = new Map<string, Edge[]>();
  const cutsByLine = new Map<string, TenthUm[]>();
  for (const turnout of document.turnouts) {
    if (turnout.straight) continue;
    const cuts = cutsByLine.get(turnout.line);
    if (cuts) cuts.push(turnout.at.tenthUm);
    else cutsByLine.set(turnout.line, [turnout.at.tenthUm]);
  }
  for (const line of document.lines) {
    const cuts = (cutsByLine.get(line.id) ?? []).sort((a, b) => a - b);
    const bounds = [0, ...cuts, line.length.tenthUm];
    const own: Edge[] = [];
    for (let i = 0; i + 1 < bounds.length; i++) {
      const edge: Edge = {
        index: edges.length,
        line: line.id,
        from: bounds[i]!,
        to: bounds[i + 1]!,
        ends: [{ kind: 'stop' }, { kind: 'stop' }],
      };
      edges.push(edge);
      own.push(edge);
    }
    byLine.set(line.id, own);
  }

  const lineEnd = (end: LineEnd): Leg => {
    const own = byLine.get(end.line)!;
    return end.end === 'start' ? { edge: own[0]!.index, end: 0 } : { edge: own[own.length - 1]!.index, end: 1 };
  };
  for (const join of document.joins) {
    const a = lineEnd(join.a);
    const b = lineEnd(join.b);
    edges[a.edge]!.ends[a.end] = { kind: 'track', ...b };
    edges[b.edge]!.ends[b.end] = { kind: 'track', ...a };
  }

  const used = new Map<string, number>();
  const ordered = document.turnouts
    .map((turnout, index) => ({ turnout, index }))
    .sort((p, q) => p.turnout.at.tenthUm - q.turnout.at.tenthUm || p.index - q.index);
  const turnouts: TurnoutNode[] = new Array(document.turnouts.length);
  for (const { turnout, index } of ordered) {
    const up = turnout.facing === 'up';
    let lower: Leg;
    let upper: Leg;
    if (turnout.straight) {
      const own = lineEnd({ line: turnout.line, end: up ? 'end' : 'start' });
      const on = lineEnd(turnout.straight);
      lower = up ? own : on;
      upper = up ? on : own;
    } else {
      const nth = used.get(turnout.line) ?? 0;
      used.set(turnout.line, nth + 1);
      const own = byLine.get(turnout.line)!;
      lower = { edge: own[nth]!.index, end: 1 };
      upper = { edge: own[nth + 1]!.index, end: 0 };
    }
    const node: TurnoutNode = {
      index,
      turnout,
      stem: up ? lower : upper,
      straight: up ? upper : lower,
      diverging: lineEnd(turnout.diverging),
    };
    turnouts[index] = node;
    for (const role of ['stem', 'straight', 'diverging'] as const) {
      const leg = node[role];
      edges[leg.edge]!.ends[leg.end] = { kind: 'turnout', turnout: index, role };
    }
  }
  const graph = { edges, turnouts, byLine };
  return { ...graph, fouling: foulingOf(document, graph) };
}

/** The edge that holds a distance of a line; where two meet, the one on the `towards` side. */
export function edgeAt(graph: TrackGraph, line: string, at: TenthUm, towards: 'up' | 'down'): Edge {
  const own = graph.byLine.get(line);
  if (!own?.length) throw new Error(`There is no line “${line}” in the track graph.`);
  let low = 0;
  let high = own.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    const edge = own[middle]!;
    if (towards === 'up' ? at < edge.to : at <= edge.to) high = middle;
    else low = middle + 1;
  }
  return own[low]!;
}
