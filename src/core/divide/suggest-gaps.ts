import { greaterEq, lessEq, solve } from 'yalps';
import { divideTrack, pieceAt } from '../detection';
import { TENTH_UM_PER_CM, TENTH_UM_PER_INCH, type TenthUm } from '../measure';
import { asTyped, type LayoutDocument } from '../survey';
import { compileTrack, type TrackGraph } from '../track';
import { type Boundary, boundariesOf, type Cell, cellsOf, isOpen, pointsOfAreas, SHORTEST_CELL } from './cells';
import { crowded } from './crowded';
import { linesOf, placeOn, type Run, runsOf } from './runs';
import { mostCuts, spreadCuts, toSteps } from './spread-cuts';
import { type Network, networkOf, wayRoundBelow } from './ways-round';
import { type CutReason, type DivideWishes, openAreas } from './wishes';

export interface ProposedCut {
  line: string;
  at: TenthUm;
  reason: CutReason;
}

/** A wish that makes a division possible when it alone is given up. */
export type GivenUp = Partial<Pick<DivideWishes, 'trains' | 'longest' | 'stopping' | 'wholePlatforms' | 'wholeAreas'>>;

export interface Suggestion {
  cuts: ProposedCut[];
  /** Tentative gaps and block marks that are not kept. */
  without: string[];
  /** How many places for the longest train there then are. */
  places: number;
  /** Track on which no train longer than this can stand: too short for the longest. */
  short: { line: string; from: TenthUm; to: TenthUm }[];
  /** Track that is left whole: areas without signals, and what is reached only through them. */
  open: { line: string; from: TenthUm; to: TenthUm }[];
  /** Lines of a way round on which the trains cannot move on, and what to give up instead, when there is no division. */
  impossible?: { lines: string[]; places: number; giveUp: GivenUp[] };
  /** False when there were more ways round than could be looked at. */
  complete: boolean;
}

interface Divided {
  graph: TrackGraph;
  runs: Run[];
  boundaries: Boundary[][];
  cells: Cell[];
  network: Network;
}

/** Everything that follows from the wishes but the cuts for places. */
function begin(document: LayoutDocument, wishes: DivideWishes): Divided {
  const { graph, runs } = runsOf(
    document,
    ({ certainty }) => wishes.keep === 'all' || certainty === 'fixed',
    openAreas(document, wishes),
  );
  const { open, edge } = pointsOfAreas(runs);
  const apart = new Set(wishes.points === 'routes' ? graph.points.map(({ index }) => index) : edge);
  const bound = () => runs.map((run) => boundariesOf(run, graph, document, wishes, apart, open));
  let boundaries = bound();
  for (;;) {
    const more = crowded(runs, boundaries, apart, open);
    if (more.length === 0) break;
    for (const points of more) apart.add(points);
    boundaries = bound();
  }
  const cells = runs.flatMap((run) => cellsOf(run, boundaries[run.index]!, graph, wishes, apart, open));
  return { graph, runs, boundaries, cells, network: networkOf(graph, runs) };
}

/** How many places there are on each run when each cell has so many cuts. */
function placesOf({ runs, cells }: Divided, cuts: readonly number[], longest: TenthUm): number[] {
  const places = runs.map(() => 0);
  cells.forEach((cell, i) => {
    const held = cell.open ? Math.floor(cell.whole / Math.max(1, longest)) : cell.whole >= longest ? cuts[i]! + 1 : 0;
    places[cell.run] = places[cell.run]! + held;
  });
  return places;
}

/** A way round with too few places, if there is one. One that lies in areas that are not divided, all of it, is not asked for any. */
function tooNarrow({ network, runs }: Divided, places: number[], asked: number): number[] | 'unknown' | undefined {
  for (;;) {
    const way = wayRoundBelow(network, places, asked);
    if (!Array.isArray(way) || !way.every((run) => isOpen(runs[run]!))) return way;
    places[way[0]!] = asked;
  }
}

const roomiest = ({ cells }: Divided, { longest, stopping }: DivideWishes): number[] =>
  cells.map((cell) => mostCuts(cell, longest + stopping));

/** Whether there is any division at all with these wishes; else the way round that has too few places. */
function tooFew(document: LayoutDocument, wishes: DivideWishes): number[] | 'unknown' | undefined {
  const divided = begin(document, wishes);
  const places = placesOf(divided, roomiest(divided, wishes), wishes.longest);
  return tooNarrow(divided, places, wishes.trains + 1);
}

/**
 * The fewest gaps that divide the track as is wished for, exactly: those that points ask for, and of all ways to cut the rest, one with the
 * fewest cuts with which every way round has a place more than there are trains. Ways round are brought into an integer program one by
 * one, as far as its answers break them.
 */
export function suggestGaps(document: LayoutDocument, wishes: DivideWishes): Suggestion {
  const lines = new Map(document.lines.map(({ id, length }) => [id, length.tenthUm]));
  const held = (wishes.held ?? []).filter(({ line, at }) => at > 0 && at < (lines.get(line) ?? 0));
  if (held.length === 0) return layOut(document, wishes);
  const { cuts, ...rest } = layOut(withGaps(document, held), wishes);
  return { ...rest, cuts: [...held.map((one) => ({ ...one, reason: { kind: 'held' as const } })), ...cuts] };
}

function layOut(document: LayoutDocument, wishes: DivideWishes): Suggestion {
  const divided = begin(document, wishes);
  const { runs, boundaries, cells } = divided;
  const most = roomiest(divided, wishes);
  const asked = wishes.trains + 1;
  const widest = tooNarrow(divided, placesOf(divided, most, wishes.longest), asked);
  let complete = widest !== 'unknown';
  let counts = cells.map(() => 0);
  const ways: number[][] = [];
  while (complete && widest === undefined) {
    const way = tooNarrow(divided, placesOf(divided, counts, wishes.longest), asked);
    if (way === 'unknown') complete = false;
    if (way === undefined || way === 'unknown') break;
    ways.push(way);
    counts = fewestCuts(divided, wishes, most, ways);
  }
  const inch = document.shownUnit === 'inch';
  const step = inch ? TENTH_UM_PER_INCH / 2 : TENTH_UM_PER_CM;
  const cuts: ProposedCut[] = boundaries.flatMap((own, r) =>
    own.flatMap(({ at, reason }) => (reason ? [{ ...placeOn(runs[r]!, at), reason }] : [])),
  );
  cells.forEach((cell, i) => {
    if (counts[i] === 0) return;
    const run = runs[cell.run]!;
    const need = wishes.longest + wishes.stopping;
    const exact = spreadCuts(cell, counts[i]!, need);
    const placed = toSteps(cell, exact, need, (at) => Math.round(at / step) * step);
    const ends = [cell.from - cell.before, ...placed, cell.to + cell.after];
    const shortest = Math.min(...placed.map((at, k) => Math.min(at - ends[k]!, ends[k + 2]! - at)));
    for (const at of placed)
      cuts.push({
        ...placeOn(run, run.closed ? at % run.length : at),
        reason: { kind: 'places', blocks: placed.length + 1, shortest },
      });
  });
  const suggestion: Suggestion = {
    cuts: partingSomething(document, cuts),
    without: document.features
      .filter(
        ({ kind, certainty }) =>
          (kind === 'gap' || kind === 'mark') && wishes.keep === 'fixed' && certainty === 'tentative',
      )
      .map(({ id }) => id),
    places: placesOf(divided, counts, wishes.longest).reduce((sum, n) => sum + n, 0),
    short: cells
      .filter(({ whole, open }) => whole < wishes.longest && whole > SHORTEST_CELL && !open)
      .map(({ run, from, to }) => {
        const [a, b] = [placeOn(runs[run]!, from), placeOn(runs[run]!, to)];
        return a.line === b.line
          ? { line: a.line, from: Math.min(a.at, b.at), to: Math.max(a.at, b.at) }
          : { line: a.line, from: a.at, to: a.at };
      }),
    open: runs.flatMap((run) => run.open.flatMap((stretch) => linesOf(run, stretch))),
    complete,
  };
  if (Array.isArray(widest)) {
    const places = placesOf(divided, most, wishes.longest);
    suggestion.impossible = {
      lines: [...new Set(widest.flatMap((run) => runs[run]!.parts.map(({ line }) => line)))],
      places: widest.reduce((sum, run) => sum + places[run]!, 0),
      giveUp: giveUp(document, wishes),
    };
  }
  return suggestion;
}

/** The layout as it would be with gaps at those places. */
function withGaps(document: LayoutDocument, places: readonly { line: string; at: TenthUm }[]): LayoutDocument {
  const gaps = places.map(({ line, at }, nth) => ({
    id: `to be ${nth}`,
    kind: 'gap' as const,
    rail: 'both' as const,
    line,
    at: asTyped(at, document.shownUnit),
    certainty: 'fixed' as const,
  }));
  return { ...document, features: [...document.features, ...gaps] };
}

/** Without the gaps on both sides of which lies one block, as in a loop over points that is too short for a block of its own: they would part nothing. */
function partingSomething(document: LayoutDocument, cuts: readonly ProposedCut[]): ProposedCut[] {
  const done = withGaps(document, cuts);
  const partition = divideTrack(done, compileTrack(done));
  return cuts.filter(({ line, at, reason }) => {
    if (reason.kind !== 'clearance') return true;
    const [before, beyond] = [pieceAt(partition, line, at, 'down'), pieceAt(partition, line, at, 'up')];
    return before.block !== beyond.block || partition.blocks[before.block]!.points.length === 0;
  });
}

/** The fewest cuts with which the ways round that are known have places enough; of as many, those of the longest cells. */
function fewestCuts(
  { cells, runs }: Divided,
  { trains, longest }: DivideWishes,
  most: readonly number[],
  ways: readonly number[][],
) {
  const all = most.reduce((sum, n) => sum + n, 0) + 1;
  const longestCell = Math.max(...cells.map(({ whole }) => whole));
  const constraints = new Map(cells.map((_, i) => [`most ${i}`, lessEq(most[i]!)]));
  const bare = placesOf(
    { runs, cells } as Divided,
    cells.map(() => 0),
    longest,
  );
  ways.forEach((way, w) => {
    constraints.set(`way ${w}`, greaterEq(trains + 1 - way.reduce((sum, run) => sum + bare[run]!, 0)));
  });
  const variables = cells.map((cell, i): [string, Record<string, number>] => [
    String(i),
    {
      cost: 1 + (0.5 * (1 - cell.whole / longestCell)) / all,
      [`most ${i}`]: 1,
      ...Object.fromEntries(ways.flatMap((way, w) => (way.includes(cell.run) ? [[`way ${w}`, 1]] : []))),
    },
  ]);
  const solution = solve({ direction: 'minimize', objective: 'cost', constraints, variables, integers: true });
  if (solution.status !== 'optimal') throw new Error(`The search for gaps ended ${solution.status}.`);
  const counts = cells.map(() => 0);
  for (const [name, count] of solution.variables) counts[Number(name)] = Math.round(count);
  return counts;
}

/** Each wish that makes a division possible when it alone is given up, as little of it as will do. */
function giveUp(document: LayoutDocument, wishes: DivideWishes): GivenUp[] {
  const does = (change: GivenUp) => tooFew(document, { ...wishes, ...change }) === undefined;
  const found: GivenUp[] = [];
  if (wishes.stopping > 0 && does({ stopping: 0 })) found.push({ stopping: 0 });
  if (wishes.wholePlatforms && does({ wholePlatforms: false })) found.push({ wholePlatforms: false });
  if (wishes.wholeAreas && does({ wholeAreas: false })) found.push({ wholeAreas: false });
  let trains = wishes.trains - 1;
  while (trains > 0 && !does({ trains })) trains -= 1;
  if (trains > 0) found.push({ trains });
  let [low, high] = [0, Math.floor(wishes.longest / TENTH_UM_PER_CM)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (does({ longest: middle * TENTH_UM_PER_CM })) low = middle;
    else high = middle - 1;
  }
  if (low > 0) found.push({ longest: low * TENTH_UM_PER_CM });
  return found;
}
