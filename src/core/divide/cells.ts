import { fromMm, type TenthUm } from '../measure';
import type { LayoutDocument } from '../survey';
import type { TrackGraph } from '../track';
import { joined, type Run, type RunEnd, type Stretch } from './runs';
import type { Room } from './spread-cuts';
import type { CutReason, DivideWishes } from './wishes';

/** How far before the blades a gap is cut, so that whoever stands at it is not yet on the points; common practice, no source. */
const BEFORE_BLADES = fromMm(50);
/** Nobody takes a shorter stretch for a place where something could stand. */
export const SHORTEST_CELL = fromMm(100);

/** A boundary of blocks on a run; one without a reason is there already. */
export interface Boundary {
  at: TenthUm;
  reason?: CutReason;
}

/** Track of a run between two boundaries: one block, and more if it is cut. */
export interface Cell extends Room {
  run: number;
  /** Its length with what its blocks hold of the points at its ends. */
  whole: TenthUm;
  /** In an area that is not divided: trains stand in it one behind the other, on sight. */
  open: boolean;
}

/** A boundary at least so far from an end of a run; one that is there already will do if it is no nearer than `least`. */
interface Asked {
  off: TenthUm;
  least: TenthUm;
  reason: CutReason;
}

/** What points at an end of a run ask for, of which those that are apart have a section of their own: a boundary at least so far from that end. Nothing where they share a block with the run. */
function askedAt(
  run: Run,
  end: 0 | 1,
  graph: TrackGraph,
  apart: ReadonlySet<number>,
  tail: TenthUm,
): Asked | undefined {
  const meets = run.ends[end];
  if (!meets) return undefined;
  const { id } = graph.points[meets.points]!;
  if (meets.tip)
    return apart.has(meets.points)
      ? { off: Math.max(BEFORE_BLADES, tail), least: 0, reason: { kind: 'blades', points: id } }
      : undefined;
  const least = fouledAt(run, end);
  return { off: least > 0 ? least + tail : 0, least, reason: { kind: 'clearance', points: id } };
}

/** Whether one comes from there over points only when they are thrown. */
const isBranch = ({ points }: TrackGraph, { points: node, port, tip }: NonNullable<RunEnd>): boolean =>
  !tip &&
  points[node]!.kind.ways.filter(({ joins }) => joins.includes(port)).every(({ lies }) => lies.includes('diverging'));

/** How far from an end of a run its track is fouled. */
function fouledAt({ fouled, length }: Run, end: 0 | 1): TenthUm {
  const own = end === 0 ? fouled.find(({ from }) => from <= 0) : fouled.find(({ to }) => to >= length);
  return own ? (end === 0 ? own.to : length - own.from) : 0;
}

/** It lies in areas that are not divided, all of it. */
export const isOpen = ({ open, length }: Run): boolean =>
  joined(open).some(({ from, to }) => from <= 0 && to >= length);

/** It lies in them where it meets points, as far as its track is fouled there. */
function isOpenAt(run: Run, end: 0 | 1): boolean {
  const far = fouledAt(run, end);
  const [from, to] = end === 0 ? [0, far] : [run.length - far, run.length];
  return joined(run.open).some((open) => open.from <= from && open.to >= to);
}

/**
 * Points of which every track lies in areas that are not divided, where nothing is asked for; and points at the edge of one, with
 * their blades towards it, which want a section of their own.
 */
export function pointsOfAreas(runs: readonly Run[]): { open: Set<number>; edge: Set<number> } {
  const ends = runs.flatMap((run) =>
    run.ends.flatMap((end, e) => (end ? [{ ...end, inside: isOpenAt(run, e as 0 | 1) }] : [])),
  );
  const outside = new Set(ends.filter(({ inside }) => !inside).map(({ points }) => points));
  const towards = ends.filter(({ inside }) => inside);
  return {
    open: new Set(towards.flatMap(({ points }) => (outside.has(points) ? [] : [points]))),
    edge: new Set(towards.flatMap(({ points, tip }) => (tip && outside.has(points) ? [points] : []))),
  };
}

/** Where areas begin and end on a run, moved outwards to where a gap may be. */
function edgesOf(run: Run, wishes: DivideWishes): Boundary[] {
  const { length, closed, open } = run;
  const barred = barredOn(run, wishes);
  const areas = joined(open);
  const found = new Map<TenthUm, Boundary>();
  for (const stretch of areas)
    for (const edge of ['from', 'to'] as const) {
      const inside = barred.find(({ from, to }) => stretch[edge] > from && stretch[edge] < to);
      const there = inside ? inside[edge] : stretch[edge];
      /** On a ring the end is where it begins. */
      const at = closed ? there % length : there;
      if (!closed && (at <= 0 || at >= length)) continue;
      const touched = areas.filter(({ from, to }) => (at >= from && at <= to) || (closed && at === 0 && to === length));
      if (
        touched.some((other) => other !== stretch) ||
        (touched[0] === stretch && stretch.to - stretch.from === length)
      )
        continue;
      const { area } = open.find((one) => one[edge] === stretch[edge])!;
      found.set(at, { at, reason: { kind: 'area', area } });
    }
  return [...found.values()];
}

/** The boundaries of a run that do not depend on how many trains there are: those that are there, and those that points ask for. */
export function boundariesOf(
  run: Run,
  graph: TrackGraph,
  document: LayoutDocument,
  wishes: DivideWishes,
  apart: ReadonlySet<number>,
  open: ReadonlySet<number>,
): Boundary[] {
  const there: Boundary[] = run.given.map(({ at }) => ({ at }));
  /** The edge of an area may lie a little beside one that is there, as long as no train finds room between. */
  const edges = edgesOf(run, wishes).filter(({ at }) => !there.some((one) => Math.abs(one.at - at) < wishes.shortest));
  const kept = [...there, ...edges];
  const given = [...kept, ...aroundCrossings(run, kept, wishes)].sort((a, b) => a.at - b.at);
  if (run.closed && isOpen(run)) return given;
  if (run.closed) return given.length > 0 ? given : [{ at: ringStart(run, wishes), reason: { kind: 'ring' } }];
  const asked = ([0, 1] as const).map((end) =>
    open.has(run.ends[end]?.points ?? -1) ? undefined : askedAt(run, end, graph, apart, wishes.tail),
  );
  const [low, high] = asked.map((one) => one?.off ?? 0) as [TenthUm, TenthUm];
  const free = run.length - low - high;
  const branches = run.ends.every((end) => end && isBranch(graph, end));
  /** Between points where no train can stand. */
  if (run.ends[0] && run.ends[1] && asked[0] && asked[1] && free < Math.max(1, wishes.shortest)) {
    const crossed = document.crossings.some(({ a, b }) =>
      run.parts.some(({ line }) => line === a.line || line === b.line),
    );
    if (!branches || crossed || given.length > 0 || run.ends[0].points === run.ends[1].points) return given;
    const points = run.ends.map((end) => graph.points[end!.points]!.id);
    return [{ at: Math.round(run.length / 2), reason: { kind: 'crossover', points } }];
  }
  /** A boundary that is there serves if it is no nearer than is asked for, and no train finds room between. */
  const serves = (end: 0 | 1, { off, least }: Asked) =>
    given.some(({ at }) => {
      const there = end === 0 ? at : run.length - at;
      return there >= least && there < off + wishes.longest;
    });
  const made = asked.flatMap((one, i): Boundary[] => {
    const end = i as 0 | 1;
    if (!one || one.off >= run.length || serves(end, one)) return [];
    return [{ at: end === 0 ? one.off : run.length - one.off, reason: one.reason }];
  });
  return [...given, ...made].sort((a, b) => a.at - b.at);
}

/** Either side of a crossing, clear of it, where no boundary is that will do. */
function aroundCrossings(run: Run, there: readonly Boundary[], { tail, longest }: DivideWishes): Boundary[] {
  const open = joined(run.open);
  return run.crossed.flatMap(({ id, from, to }): Boundary[] => {
    if (open.some((area) => area.from <= from && area.to >= to)) return [];
    return [
      { at: from - tail, serves: (at: TenthUm) => at <= from && at > from - tail - longest },
      { at: to + tail, serves: (at: TenthUm) => at >= to && at < to + tail + longest },
    ].flatMap(({ at, serves }) => {
      const inside = at > 0 && at < run.length && !run.fouled.some((zone) => at > zone.from && at < zone.to);
      return inside && !there.some((one) => serves(one.at))
        ? [{ at, reason: { kind: 'clearance' as const, points: id } }]
        : [];
    });
  });
}

/** Where a ring is cut first: near its start, but not on a platform and not where it is crossed. */
function ringStart(run: Run, wishes: DivideWishes): TenthUm {
  const barred = barredOn(run, wishes);
  const at = Math.min(BEFORE_BLADES, Math.round(run.length / 2));
  return barred.find(({ from, to }) => at > from && at < to)?.to ?? at;
}

const barredOn = ({ fouled, platforms }: Run, { wholePlatforms }: DivideWishes): Stretch[] =>
  joined(wholePlatforms ? [...fouled, ...platforms] : fouled);

/** What lies between the boundaries of a run. Where points have no boundary, the last cell goes on over them as far as trains may stand there. */
export function cellsOf(
  run: Run,
  boundaries: readonly Boundary[],
  graph: TrackGraph,
  wishes: DivideWishes,
  apart: ReadonlySet<number>,
  openPoints: ReadonlySet<number>,
): Cell[] {
  const barred = joined([...barredOn(run, wishes), ...run.open]);
  /** On a ring the last cell goes on past the start. */
  const past = (some: readonly Stretch[]) =>
    joined([...some, ...some.map(({ from, to }) => ({ from: from + run.length, to: to + run.length }))]);
  const areas = run.closed ? past(run.open) : joined(run.open);
  const cell = (from: TenthUm, to: TenthUm, before = 0, after = 0, not: readonly Stretch[] = barred): Cell => {
    const { shortest } = wishes;
    const open = areas.some((area) => area.from < from + shortest && area.to > to - shortest);
    /** What lies between a crossing and its boundaries is the crossing’s: nobody waits there. */
    const crossed = run.crossed.some(
      (zone) => zone.from >= from && zone.to <= to && to - from < zone.to - zone.from + shortest,
    );
    const whole = crossed ? 0 : to - from + before + after;
    return { run: run.index, from, to, before, after, whole, barred: open ? [{ from, to }] : not, open };
  };
  const cuts = boundaries.map(({ at }) => at);
  if (run.closed) {
    const round = past(barred);
    return cuts.map((at, i) => cell(at, cuts[i + 1] ?? cuts[0]! + run.length, 0, 0, round));
  }
  /** Beyond blades that no boundary parts from it, a train stands as far as where their tracks come together. */
  const beyond = (end: 0 | 1): TenthUm | undefined => {
    const meets = run.ends[end];
    if (!meets) return 0;
    if (openPoints.has(meets.points)) return -fouledAt(run, end);
    return meets.tip && !apart.has(meets.points) ? graph.points[meets.points]!.clearance : undefined;
  };
  const [before, after] = [beyond(0), beyond(1)];
  const ends = [0, ...cuts, run.length];
  return ends.slice(0, -1).flatMap((from, i) => {
    const [first, last] = [i === 0, i === ends.length - 2];
    /** What lies between points and their boundary is theirs. */
    if ((first && before === undefined) || (last && after === undefined)) return [];
    return [cell(from, ends[i + 1]!, first ? before : 0, last ? after : 0)];
  });
}
