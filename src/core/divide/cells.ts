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
}

/** What points at an end of a run ask for, of which those that are apart have a section of their own: a boundary at least so far from that end. Nothing where they share a block with the run. */
function askedAt(
  run: Run,
  end: 0 | 1,
  graph: TrackGraph,
  apart: ReadonlySet<number>,
): { off: TenthUm; reason: CutReason } | undefined {
  const meets = run.ends[end];
  if (!meets) return undefined;
  const { id } = graph.points[meets.points]!;
  if (meets.tip)
    return apart.has(meets.points) ? { off: BEFORE_BLADES, reason: { kind: 'blades', points: id } } : undefined;
  return { off: fouledAt(run, end), reason: { kind: 'clearance', points: id } };
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

/** The boundaries of a run that do not depend on how many trains there are: those that are there, and those that points ask for. */
export function boundariesOf(
  run: Run,
  graph: TrackGraph,
  document: LayoutDocument,
  wishes: DivideWishes,
  apart: ReadonlySet<number>,
): Boundary[] {
  const given: Boundary[] = run.given.map(({ at }) => ({ at }));
  if (run.closed) return given.length > 0 ? given : [{ at: ringStart(run, wishes), reason: { kind: 'ring' } }];
  const asked = ([0, 1] as const).map((end) => askedAt(run, end, graph, apart));
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
  const serves = (end: 0 | 1, off: TenthUm) =>
    given.some(({ at }) => {
      const there = end === 0 ? at : run.length - at;
      return there >= (run.ends[end]!.tip ? 0 : off) && there < off + wishes.longest;
    });
  const made = asked.flatMap((one, i): Boundary[] => {
    const end = i as 0 | 1;
    if (!one || one.off >= run.length || serves(end, one.off)) return [];
    return [{ at: end === 0 ? one.off : run.length - one.off, reason: one.reason }];
  });
  return [...given, ...made].sort((a, b) => a.at - b.at);
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
): Cell[] {
  const barred = barredOn(run, wishes);
  const cell = (from: TenthUm, to: TenthUm, before = 0, after = 0, not: readonly Stretch[] = barred): Cell => ({
    run: run.index,
    from,
    to,
    before,
    after,
    whole: to - from + before + after,
    barred: not,
  });
  const cuts = boundaries.map(({ at }) => at);
  if (run.closed) {
    /** Round past the start, so that the last cell is one piece. */
    const round = joined([
      ...barred,
      ...barred.map(({ from, to }) => ({ from: from + run.length, to: to + run.length })),
    ]);
    return cuts.map((at, i) => cell(at, cuts[i + 1] ?? cuts[0]! + run.length, 0, 0, round));
  }
  /** Beyond blades that no boundary parts from it, a train stands as far as where their tracks come together. */
  const beyond = (end: 0 | 1): TenthUm | undefined => {
    const meets = run.ends[end];
    if (!meets) return 0;
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
