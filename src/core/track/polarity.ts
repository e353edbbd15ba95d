import type { TenthUm } from '../measure';
import type { EdgeEnd, TrackGraph } from './graph';

/** A stretch of an edge with no cut through both rails in it. */
export interface RailSpan {
  edge: number;
  line: string;
  from: TenthUm;
  to: TenthUm;
  /** Stretches whose rails are joined have the same one. */
  zone: number;
  /** Its left rail, looking up the line, is joined to the right rails of the first of its zone. */
  flipped: boolean;
}

export interface Polarity {
  spans: RailSpan[];
  /** Points at which a zone comes back on itself the other way round, so that left meets right. */
  clashes: { zone: number; points: string }[];
}

/**
 * Which rail is joined to which. Track that goes on from the end of one stretch to the start of the next keeps left left; from end to end or
 * start to start left becomes right. Places at which both rails are cut join nothing.
 */
export function railsOf(graph: TrackGraph, cuts: readonly { line: string; at: TenthUm }[]): Polarity {
  const onLine = new Map<string, TenthUm[]>();
  for (const { line, at } of cuts) onLine.set(line, [...(onLine.get(line) ?? []), at]);
  const spans: Omit<RailSpan, 'zone' | 'flipped'>[] = [];
  /** The first and the last span of each edge, and whether its end is cut off. */
  const atEnd: [number, number][] = [];
  const cutOff: [boolean, boolean][] = [];
  for (const { index, line, from, to } of graph.edges) {
    const own = (onLine.get(line) ?? []).filter((at) => at >= from && at <= to);
    const inside = own.filter((at) => at > from && at < to).sort((a, b) => a - b);
    const bounds = [from, ...inside, to];
    const first = spans.length;
    for (let i = 0; i + 1 < bounds.length; i++) spans.push({ edge: index, line, from: bounds[i]!, to: bounds[i + 1]! });
    atEnd.push([first, spans.length - 1]);
    cutOff.push([own.includes(from), own.includes(to)]);
  }
  const parent = spans.map((_, i) => i);
  const flips = spans.map(() => false);
  const rootOf = (span: number): [number, boolean] => {
    let [at, flipped] = [span, false];
    while (parent[at] !== at) {
      flipped = flipped !== flips[at];
      at = parent[at]!;
    }
    return [at, flipped];
  };
  type End = { edge: number; end: EdgeEnd };
  /** Joins the rails at two ends; false where they are joined already, the other way round. */
  const join = (a: End, b: End): boolean => {
    if (cutOff[a.edge]![a.end] || cutOff[b.edge]![b.end]) return true;
    const [one, oneFlipped] = rootOf(atEnd[a.edge]![a.end]);
    const [two, twoFlipped] = rootOf(atEnd[b.edge]![b.end]);
    const crossed = (a.end === b.end) !== (oneFlipped !== twoFlipped);
    if (one === two) return !crossed;
    parent[two] = one;
    flips[two] = crossed;
    return true;
  };
  for (const { index, ends } of graph.edges)
    ends.forEach((node, end) => {
      if (node.kind === 'track') join({ edge: index, end: end as EdgeEnd }, node);
    });
  const clashing: { span: number; points: string }[] = [];
  for (const { id, kind, ports } of graph.points)
    for (const { joins } of kind.ways) {
      const [a, b] = joins.map((port) => ports[kind.ports.indexOf(port)]!) as [End, End];
      if (!join(a, b) && !clashing.some((other) => other.points === id))
        clashing.push({ span: atEnd[a.edge]![a.end], points: id });
    }
  return {
    spans: spans.map((span, i) => {
      const [zone, flipped] = rootOf(i);
      return { ...span, zone, flipped };
    }),
    clashes: clashing.map(({ span, points }) => ({ zone: rootOf(span)[0], points })),
  };
}
