import type { TenthUm } from '../measure';
import { type Area, isKind, type LayoutDocument } from '../survey';
import { compileTrack, type EdgeEnd, type TrackGraph } from '../track';

export interface Stretch {
  from: TenthUm;
  to: TenthUm;
}

/** What a run meets at one of its ends: a port of points, or the end of the track. */
export type RunEnd = { points: number; port: string; tip: boolean } | undefined;

/** Track without points, from points or an end of the track to the next, over however many lines. Distances count from its first end. */
export interface Run {
  index: number;
  length: TenthUm;
  ends: [RunEnd, RunEnd];
  /** A ring without points; its distances begin where its first line does. */
  closed: boolean;
  /** The edges that it consists of; `up`: its distances grow with theirs. */
  parts: { edge: number; line: string; from: TenthUm; to: TenthUm; start: TenthUm; up: boolean }[];
  /** Where tracks foul each other, in order, none touching the next. */
  fouled: Stretch[];
  /** Of that, where crossings that nothing moves are, each with its id. */
  crossed: (Stretch & { id: string })[];
  platforms: Stretch[];
  /** What is in areas that are not divided, each with its id; and the whole of a track that is reached only over points in them. */
  open: (Stretch & { area: string })[];
  /** Gaps and block marks that there are, in order. */
  given: { id: string; at: TenthUm }[];
}

/** Where a distance of a run is on the layout. */
export function placeOn(run: Run, at: TenthUm): { line: string; at: TenthUm } {
  const part = run.parts.find(({ start, from, to }) => at <= start + to - from) ?? run.parts[run.parts.length - 1]!;
  return { line: part.line, at: part.up ? part.from + at - part.start : part.to - (at - part.start) };
}

/** The lines that a stretch of a run lies on, and where. */
export const linesOf = (run: Run, { from, to }: Stretch): { line: string; from: TenthUm; to: TenthUm }[] =>
  run.parts.flatMap((part) => {
    const [begin, end] = [from, to].map((at) => Math.min(Math.max(at - part.start, 0), part.to - part.from));
    if (begin === end) return [];
    const at = (off: number) => (part.up ? part.from + off : part.to - off);
    return [{ line: part.line, from: Math.min(at(begin!), at(end!)), to: Math.max(at(begin!), at(end!)) }];
  });

/** The same of a stretch of an edge; undefined where the run does not have that edge. */
function onRun(run: Run, edge: number, from: TenthUm, to: TenthUm): Stretch | undefined {
  const part = run.parts.find((one) => one.edge === edge);
  if (!part) return undefined;
  return part.up
    ? { from: part.start + from - part.from, to: part.start + to - part.from }
    : { from: part.start + part.to - to, to: part.start + part.to - from };
}

/** Every run of a layout. `given`: whether a gap or mark that there is counts; `open`: areas that are not divided. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: runs are followed first, then what lies along them; each step needs the numbers that the one before gave.
export function runsOf(
  document: LayoutDocument,
  given: (cut: { certainty: 'tentative' | 'fixed' }) => boolean,
  open: readonly Area[],
): { graph: TrackGraph; runs: Run[] } {
  const graph = compileTrack(document);
  const runOfEdge = new Map<number, Run>();
  const runs: Run[] = [];
  const endOf = (edge: number, end: EdgeEnd): RunEnd => {
    const node = graph.edges[edge]!.ends[end];
    if (node.kind !== 'points') return undefined;
    const { kind } = graph.points[node.points]!;
    const port = kind.ports[node.port]!;
    return { points: node.points, port, tip: !kind.fouls.flat(2).includes(port) };
  };
  for (const first of graph.edges) {
    if (runOfEdge.has(first.index)) continue;
    /** Back to where the run begins, or round to here. */
    let [edge, end]: [number, EdgeEnd] = [first.index, 0];
    let closed = false;
    for (let node = first.ends[0]; node.kind === 'track'; node = graph.edges[edge]!.ends[end]) {
      [edge, end] = [node.edge, node.end === 0 ? 1 : 0];
      closed = edge === first.index && end === 0;
      if (closed) break;
    }
    const parts: Run['parts'] = [];
    let length = 0;
    const begins = endOf(edge, end);
    for (;;) {
      const { line, from, to, ends } = graph.edges[edge]!;
      parts.push({ edge, line, from, to, start: length, up: end === 0 });
      length += to - from;
      const far: EdgeEnd = end === 0 ? 1 : 0;
      const node = ends[far];
      if (node.kind !== 'track' || (closed && node.edge === first.index)) {
        const run: Run = {
          index: runs.length,
          length,
          ends: [begins, endOf(edge, far)],
          closed,
          parts,
          fouled: [],
          crossed: [],
          platforms: [],
          open: [],
          given: [],
        };
        runs.push(run);
        for (const part of parts) runOfEdge.set(part.edge, run);
        break;
      }
      [edge, end] = [node.edge, node.end];
    }
  }
  const moved = new Set(graph.points.map(({ id }) => id));
  for (const { cause, a, b } of graph.fouling)
    for (const { edge, from, to } of [...a, ...b]) {
      const run = runOfEdge.get(edge)!;
      run.fouled.push(onRun(run, edge, from, to)!);
      if (!moved.has(cause)) run.crossed.push({ ...onRun(run, edge, from, to)!, id: cause });
    }
  const along = (line: string, from: TenthUm, to: TenthUm) =>
    graph.byLine.get(line)!.flatMap(({ index, from: low, to: high }) => {
      const [begin, end] = [Math.max(low, from), Math.min(high, to)];
      const run = runOfEdge.get(index)!;
      return begin > end ? [] : [{ run, on: onRun(run, index, begin, end)! }];
    });
  for (const feature of document.features) {
    const cuts = feature.kind === 'gap' || feature.kind === 'mark';
    if ((!cuts || !given(feature)) && !isKind('platform')(feature)) continue;
    const to = 'to' in feature ? feature.to : feature.at;
    for (const { run, on } of along(feature.line, feature.at.tenthUm, to.tenthUm))
      if (!cuts) run.platforms.push(on);
      else if (!run.given.some(({ id }) => id === feature.id)) run.given.push({ id: feature.id, at: on.from });
  }
  for (const { id: area, line, from, to } of open)
    for (const { run, on } of along(line, from.tenthUm, to.tenthUm))
      if (on.to > on.from) run.open.push({ ...on, area });
  /** Points whose blades lie in an area, by their number. */
  const inside = new Map<number, string>();
  for (const { id, line, at } of document.turnouts) {
    const area = open.find((one) => one.line === line && at.tenthUm > one.from.tenthUm && at.tenthUm < one.to.tenthUm);
    const points = graph.points.findIndex((one) => one.id === id);
    if (area && points >= 0) inside.set(points, area.id);
  }
  for (const run of runs) {
    const met = run.ends.flatMap((end) => end?.points ?? []);
    const area = inside.get(met[0] ?? -1);
    if (run.open.length === 0 && area !== undefined && met.every((points) => inside.has(points)))
      run.open.push({ from: 0, to: run.length, area });
    run.fouled = joined(run.fouled);
    run.platforms = joined(run.platforms);
    run.given.sort((a, b) => a.at - b.at);
  }
  return { graph, runs };
}

/** The same track in order, with stretches that touch made one. */
export function joined(stretches: readonly Stretch[]): Stretch[] {
  const kept: Stretch[] = [];
  for (const one of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = kept[kept.length - 1];
    if (last && one.from <= last.to) last.to = Math.max(last.to, one.to);
    else kept.push({ ...one });
  }
  return kept;
}
