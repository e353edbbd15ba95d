import type { TrackGraph } from '../track';
import type { Run } from './runs';

/** A run and which way it is gone along: 0 from its first end on, 1 from its second. */
interface Going {
  run: number;
  way: 0 | 1;
}

/** How a train comes from run to run, over points as they can lie. */
export interface Network {
  runs: readonly Run[];
  /** By run and way: what comes next. */
  next: Going[][];
}

const keyOf = ({ run, way }: Going) => run * 2 + way;

export function networkOf(graph: TrackGraph, runs: readonly Run[]): Network {
  const at = new Map<string, Going>();
  for (const { index, ends } of runs)
    ends.forEach((end, e) => {
      if (end) at.set(`${end.points} ${end.port}`, { run: index, way: e as 0 | 1 });
    });
  const next = runs.flatMap((run) =>
    ([0, 1] as const).map((way): Going[] => {
      if (run.closed) return [{ run: run.index, way }];
      const end = run.ends[way === 0 ? 1 : 0];
      if (!end) return [];
      const ways = graph.points[end.points]!.kind.ways.filter(({ joins }) => joins.includes(end.port));
      return ways.map(({ joins }) => at.get(`${end.points} ${joins[0] === end.port ? joins[1] : joins[0]}`)!);
    }),
  );
  return { runs, next };
}

/** No more steps than this are taken in one search; then it is not known. */
const MOST_STEPS = 400_000;

/**
 * A way round, on which a train comes back to where it was without turning and without passing any run twice, on which the runs hold
 * fewer places than are asked for; “unknown” when there were too many ways to look at.
 */
export function wayRoundBelow(
  network: Network,
  places: readonly number[],
  asked: number,
): number[] | 'unknown' | undefined {
  const { runs, next } = network;
  const before: Going[][] = next.map(() => []);
  next.forEach((own, key) => {
    for (const on of own) before[keyOf(on)]!.push({ run: key >> 1, way: (key & 1) as 0 | 1 });
  });
  let steps = 0;
  for (const { index: first } of runs) {
    if (places[first]! >= asked) continue;
    const start: Going = { run: first, way: 0 };
    /** The fewest places on the way from the end of each run back to the start, over runs of no smaller number. */
    const left = new Array<number>(next.length).fill(Number.POSITIVE_INFINITY);
    const open: [number, Going][] = before[keyOf(start)]!.map((one) => [0, one]);
    while (open.length > 0) {
      let best = 0;
      for (let i = 1; i < open.length; i++) if (open[i]![0] < open[best]![0]) best = i;
      const [sum, going] = open.splice(best, 1)[0]!;
      if (going.run < first || sum >= left[keyOf(going)]!) continue;
      left[keyOf(going)] = sum;
      if (going.run === first) continue;
      for (const one of before[keyOf(going)]!) open.push([sum + places[going.run]!, one]);
    }
    const onWay = new Array<boolean>(runs.length).fill(false);
    const way: number[] = [];
    const search = (going: Going, sum: number): boolean => {
      steps += 1;
      const all = sum + places[going.run]!;
      if (steps > MOST_STEPS || all + left[keyOf(going)]! >= asked) return false;
      way.push(going.run);
      onWay[going.run] = true;
      for (const on of next[keyOf(going)]!) {
        if (on.run === first && on.way === 0) return true;
        if (!onWay[on.run] && on.run > first && search(on, all)) return true;
      }
      onWay[going.run] = false;
      way.pop();
      return false;
    };
    if (search(start, 0)) return way;
  }
  return steps > MOST_STEPS ? 'unknown' : undefined;
}
