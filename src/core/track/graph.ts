import { CROSSINGS, type Lie, MOTORS, type PointsKind, TURNOUTS } from '../kinds';
import type { TenthUm } from '../measure';
import { type Facing, type LayoutDocument, type LineEnd, remembered } from '../survey';
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
  /** The direction of running of its line, where trains run it one way only. */
  running?: Facing;
}

/** Whether a train that comes into an edge by an end runs against the direction of running. */
export const isAgainst = ({ running }: Edge, enters: EdgeEnd): boolean =>
  running !== undefined && (running === 'up') !== (enters === 0);

/** What an edge meets at one of its ends. */
export type Node =
  | { kind: 'track'; edge: number; end: EdgeEnd }
  /** Points, by the number of a port of theirs. */
  | { kind: 'points'; points: number; port: number }
  | { kind: 'stop' };

export interface Leg {
  edge: number;
  end: EdgeEnd;
}

/** Where tracks meet in points of any kind: the one kind of node that joins more than two ends of track. */
export interface PointsNode {
  index: number;
  /** The thing of the document that it is. */
  id: string;
  name: string;
  kind: PointsKind;
  /** The end of track at each port, in the order of its kind. */
  ports: Leg[];
  /** Its motors, by their numbers among all of the layout. */
  motors: number[];
  /** How far from it the tracks foul each other. */
  clearance: TenthUm;
}

/** What moves points over: a turnout’s own, or one of several. */
export interface Motor {
  index: number;
  /** The id of the points for their first motor. */
  id: string;
  name: string;
  points: number;
  throwMs: number;
  lies: Lie;
  /** The points that are thrown together with it. */
  throwsWith?: string;
}

export interface TrackGraph {
  edges: Edge[];
  points: PointsNode[];
  /** First one of each turnout in the order of the document, then those that points have beside. */
  motors: Motor[];
  fouling: FoulingPair[];
  /** Edges of each line in order of distance. */
  byLine: Map<string, Edge[]>;
}

const READS = ['lines', 'joins', 'turnouts', 'crossings'] as const;
/** What the track is compiled from. */
export type Tracks = Pick<LayoutDocument, (typeof READS)[number]>;

/** Where a line is cut in two by points that stand in the middle of it. */
interface Cut {
  at: TenthUm;
  order: number;
  take(lower: Leg, upper: Leg): void;
}

/** How long a motor takes where the document does not say it; common practice, no source. */
const THROW_MS = 1500;

/** Compiles a checked document into edges and points. Crossings that nothing moves need no node. */
export const compileTrack = remembered(READS, edgesAndPoints);

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: cuts are gathered from all that cuts a line, then edges made, then ports known; the order is the matter.
function edgesAndPoints(document: Tracks): TrackGraph {
  const edges: Edge[] = [];
  const byLine = new Map<string, Edge[]>();
  const cutsOf = new Map<string, Cut[]>();
  const points: PointsNode[] = [];
  const cut = (line: string, at: TenthUm, take: Cut['take']) => {
    const own = cutsOf.get(line);
    const made = { at, order: points.length, take };
    if (own) own.push(made);
    else cutsOf.set(line, [made]);
  };
  /** What becomes known of a node’s ports once every line is an edge or several. */
  const atLineEnds: (() => void)[] = [];
  const lineEnd = (end: LineEnd): Leg => {
    const own = byLine.get(end.line)!;
    return end.end === 'start' ? { edge: own[0]!.index, end: 0 } : { edge: own[own.length - 1]!.index, end: 1 };
  };
  const add = (thing: { id: string; name: string; clearance: { tenthUm: TenthUm } }, kind: PointsKind) => {
    const { id, name, clearance } = thing;
    const node = { index: points.length, id, name, kind, ports: [], motors: [], clearance: clearance.tenthUm };
    points.push(node);
    return node as PointsNode;
  };
  for (const turnout of document.turnouts) {
    const { line, at, facing, straight, legs, kind } = turnout;
    const { ports } = add(turnout, TURNOUTS[kind]);
    const up = facing === 'up';
    if (straight)
      atLineEnds.push(() => {
        ports[0] = lineEnd({ line, end: up ? 'end' : 'start' });
        ports[1] = lineEnd(straight);
      });
    else
      cut(line, at.tenthUm, (lower, upper) => {
        ports[0] = up ? lower : upper;
        ports[1] = up ? upper : lower;
      });
    atLineEnds.push(() => {
      legs.forEach((leg, i) => {
        ports[2 + i] = lineEnd(leg);
      });
    });
  }
  for (const crossing of document.crossings) {
    const kind: PointsKind = CROSSINGS[crossing.kind];
    if (kind.motors.length === 0) continue;
    const { ports } = add(crossing, kind);
    for (const [i, side] of (['a', 'b'] as const).entries()) {
      const turned = crossing.turned === side || crossing.turned === 'both';
      cut(crossing[side].line, crossing[side].at.tenthUm, (lower, upper) => {
        ports[2 * i] = turned ? upper : lower;
        ports[2 * i + 1] = turned ? lower : upper;
      });
    }
  }
  for (const line of document.lines) {
    const cuts = (cutsOf.get(line.id) ?? []).sort((a, b) => a.at - b.at || a.order - b.order);
    const bounds = [0, ...cuts.map(({ at }) => at), line.length.tenthUm];
    const own: Edge[] = [];
    for (let i = 0; i + 1 < bounds.length; i++) {
      const edge: Edge = {
        index: edges.length,
        line: line.id,
        from: bounds[i]!,
        to: bounds[i + 1]!,
        ends: [{ kind: 'stop' }, { kind: 'stop' }],
        running: line.running,
      };
      edges.push(edge);
      own.push(edge);
    }
    cuts.forEach(({ take }, i) => {
      take({ edge: own[i]!.index, end: 1 }, { edge: own[i + 1]!.index, end: 0 });
    });
    byLine.set(line.id, own);
  }
  for (const know of atLineEnds) know();
  for (const join of document.joins) {
    const [a, b] = [lineEnd(join.a), lineEnd(join.b)];
    edges[a.edge]!.ends[a.end] = { kind: 'track', ...b };
    edges[b.edge]!.ends[b.end] = { kind: 'track', ...a };
  }
  for (const node of points)
    node.ports.forEach(({ edge, end }, port) => {
      edges[edge]!.ends[end] = { kind: 'points', points: node.index, port };
    });
  const graph = { edges, points, motors: motorsOf(document, points), byLine };
  return { ...graph, fouling: foulingOf(document, graph) };
}

/** The motors of all points, first one of each turnout; each node learns which are its own. */
function motorsOf({ turnouts, crossings }: Tracks, points: PointsNode[]): Motor[] {
  const made = points.flatMap((node) => {
    const turnout = turnouts[node.index];
    const crossing = crossings.find(({ id }) => id === node.id);
    return node.kind.motors.map((called, nth): Omit<Motor, 'index'> & { nth: number } => ({
      nth,
      id: nth === 0 ? node.id : `${node.id}:${called}`,
      name: `${node.name}${called}`,
      points: node.index,
      throwMs: turnout ? (turnout.throwMs ?? MOTORS[turnout.motor].throwMs) : (crossing?.throwMs ?? THROW_MS),
      lies: (turnout ?? crossing)?.lies?.[nth] ?? 'straight',
      throwsWith: nth === 0 ? turnout?.throwsWith : undefined,
    }));
  });
  const isFirst = ({ nth, points: node }: (typeof made)[number]) => nth === 0 && node < turnouts.length;
  return [...made.filter(isFirst), ...made.filter((motor) => !isFirst(motor))].map(({ nth, ...motor }, index) => {
    points[motor.points]!.motors[nth] = index;
    return { ...motor, index };
  });
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
