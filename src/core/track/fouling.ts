import { CROSSINGS } from '../kinds';
import type { TenthUm } from '../measure';
import type { LayoutDocument } from '../survey';
import type { Edge, EdgeEnd, Leg, PointsNode, TrackGraph } from './graph';
import { onwardFrom } from './onward';

/** A part of an edge. */
export interface EdgeStretch {
  edge: number;
  from: TenthUm;
  to: TenthUm;
}

/** Two places that no two vehicles may stand on at once: two legs of points up to clearance, or both tracks of a crossing. */
export interface FoulingPair {
  /** The points or crossing that make them foul. */
  cause: string;
  a: EdgeStretch[];
  b: EdgeStretch[];
}

/** The track within `reach` of an end of an edge, going away from that end, over as many edges and points as it takes. */
export function trackFrom(graph: Pick<TrackGraph, 'edges' | 'points'>, leg: Leg, reach: TenthUm): EdgeStretch[] {
  const found: EdgeStretch[] = [];
  const most = new Map<string, TenthUm>();
  const walk = (edge: Edge, enters: EdgeEnd, left: TenthUm): void => {
    const key = `${edge.index} ${enters}`;
    if (left <= (most.get(key) ?? 0)) return;
    most.set(key, left);
    const length = edge.to - edge.from;
    const part = Math.min(length, left);
    found.push(
      enters === 0
        ? { edge: edge.index, from: edge.from, to: edge.from + part }
        : { edge: edge.index, from: edge.to - part, to: edge.to },
    );
    if (left <= length) return;
    for (const on of onwardFrom(graph, edge.index, enters === 0 ? 1 : 0))
      walk(graph.edges[on.edge]!, on.enters, left - length);
  };
  walk(graph.edges[leg.edge]!, leg.end, reach);
  return merged(found);
}

/** What fouls what: the legs of points, two by two, and the two tracks of each crossing. */
export function foulingOf(
  { crossings }: Pick<LayoutDocument, 'crossings'>,
  graph: Pick<TrackGraph, 'edges' | 'points' | 'byLine'>,
): FoulingPair[] {
  const pair = (cause: string, a: EdgeStretch[], b: EdgeStretch[]) => ({ cause, a, b: without(b, a) });
  const ofPoints = ({ id, kind, ports, clearance }: PointsNode) =>
    kind.fouls.map(([one, two]) => {
      const from = (names: readonly string[]) =>
        merged(names.flatMap((port) => trackFrom(graph, ports[kind.ports.indexOf(port)]!, clearance)));
      return pair(id, from(one), from(two));
    });
  const around = (line: string, at: TenthUm, reach: TenthUm): EdgeStretch[] => {
    const edge = graph.byLine.get(line)!.find((e) => at <= e.to)!;
    const beyond = ([0, 1] as const).flatMap((end) => {
      const left = reach - (end === 1 ? edge.to - at : at - edge.from);
      if (left <= 0) return [];
      return onwardFrom(graph, edge.index, end).flatMap((on) =>
        trackFrom(graph, { edge: on.edge, end: on.enters }, left),
      );
    });
    const own = { edge: edge.index, from: Math.max(edge.from, at - reach), to: Math.min(edge.to, at + reach) };
    return merged([own, ...beyond]);
  };
  return [
    ...graph.points.flatMap(ofPoints),
    ...crossings
      .filter(({ kind }) => CROSSINGS[kind].motors.length === 0)
      .map(({ id, a, b, clearance }) =>
        pair(id, around(a.line, a.at.tenthUm, clearance.tenthUm), around(b.line, b.at.tenthUm, clearance.tenthUm)),
      ),
  ];
}

/** The same track with parts that touch or overlap made one. */
function merged(stretches: EdgeStretch[]): EdgeStretch[] {
  const kept: EdgeStretch[] = [];
  for (const part of [...stretches].sort((p, q) => p.edge - q.edge || p.from - q.from)) {
    const last = kept[kept.length - 1];
    if (last && last.edge === part.edge && part.from <= last.to) last.to = Math.max(last.to, part.to);
    else kept.push({ ...part });
  }
  return kept;
}

/** The first less whatever of it lies in the second: on one track two trains touch, or they do not. */
function without(stretches: EdgeStretch[], taken: EdgeStretch[]): EdgeStretch[] {
  return stretches.flatMap((part) => {
    let left = [part];
    for (const cut of taken) {
      if (cut.edge !== part.edge) continue;
      left = left.flatMap((p) =>
        [
          { ...p, to: Math.min(p.to, cut.from) },
          { ...p, from: Math.max(p.from, cut.to) },
        ].filter((piece) => piece.to > piece.from),
      );
    }
    return left;
  });
}
