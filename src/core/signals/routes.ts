import { blocksOn, onwardPieces, type Partition, type Piece, pieceAt } from '../detection';
import type { TenthUm } from '../measure';
import { remembered, type Signal, signalsOf } from '../survey';
import { type EdgeEnd, type EdgeStretch, isAgainst, type Over } from '../track';

/** A signal found on the track: the piece in whose direction of exit it is read. */
export interface SignalPlace {
  signal: Signal;
  piece: number;
  exit: EdgeEnd;
  /** The block in rear of it, where a train stands that reads it. */
  rear: number;
  /** Distance from the signal to the boundary it should stand at; 0 when it stands there. */
  offBoundary: TenthUm;
}

/** One route ahead of a signal, as the points may lie: everything up to the next signal read in the same direction. */
export interface Route {
  /** How the motors of points have to lie: facing ones choose the route, the others must merely lie right for it. */
  conditions: Over[];
  /** All track beyond the signal in order, up to the ending, with the end by which each piece is entered; of the piece with the signal nothing. */
  track: { piece: number; enters: EdgeEnd }[];
  /** Blocks in order, and the piece and end by which each is entered. */
  blocks: { block: number; piece: number; enters: EdgeEnd }[];
  /** Blocks off the route that must be free too, because a vehicle in them would foul it. */
  fouled: number[];
  ending:
    | { kind: 'signal'; signal: number }
    | { kind: 'end of track' }
    /** The block has no detector: nothing can tell that it is free. */
    | { kind: 'end of detection'; block: number }
    /** The route comes back to itself without meeting a signal. */
    | { kind: 'circle' };
  /** It leads off the straight over points met facing. */
  aside: boolean;
  /** Distance from the signal to the ending. */
  length: TenthUm;
}

export interface SignalReading extends SignalPlace {
  index: number;
  routes: Route[];
}

/** A boundary nearer than this to a signal is the one it stands at; people set masts beside the cut, not in it. */
const AT_BOUNDARY: TenthUm = 100;
/** More routes than this from one signal is a survey error; the rest are not read, and a finding says so. */
export const MOST_ROUTES = 200;

/** Reads every signal of a layout: where it stands, and all the routes ahead of it through points, but for those against a direction of running. */
export const readSignals = remembered(['features'], (document, partition: Partition): SignalReading[] => {
  const signals = signalsOf(document);
  const places = signals.map((signal) => placeOf(signal, partition));
  const standing = new Map<string, { index: number; at: TenthUm }[]>();
  places.forEach((place, index) => {
    const key = `${place.piece} ${place.exit}`;
    const entry = { index, at: place.signal.at.tenthUm };
    standing.set(key, [...(standing.get(key) ?? []), entry]);
  });
  const fouling = foulingByEdge(partition);
  return places.map((place, index) => ({
    ...place,
    index,
    routes: routesFrom(place, index, partition, standing, fouling),
  }));
});

function placeOf(signal: Signal, partition: Partition): SignalPlace {
  const up = signal.governs === 'up';
  const at = signal.at.tenthUm;
  const piece = pieceAt(partition, signal.line, at, up ? 'down' : 'up');
  const exit: EdgeEnd = up ? 1 : 0;
  const boundary = up ? piece.to : piece.from;
  const off = Math.abs(boundary - at);
  const atBoundary = off <= AT_BOUNDARY && leavesBlock(partition, piece, exit);
  return {
    signal,
    piece: piece.index,
    exit,
    rear: piece.block,
    offBoundary: atBoundary ? 0 : Math.max(off, AT_BOUNDARY + 1),
  };
}

/** Whether going out of a piece by an end leaves its block: over a cut, off the track, or into another block. */
export function leavesBlock(partition: Partition, piece: Piece, exit: EdgeEnd): boolean {
  if (piece.bounded[exit]) return true;
  return onwardPieces(partition, piece, exit).every(
    (on) => on.piece.block !== piece.block || on.piece.bounded[on.enters] !== undefined,
  );
}

type Standing = Map<string, { index: number; at: TenthUm }[]>;
type FoulingByEdge = Map<number, { from: TenthUm; to: TenthUm; other: number[] }[]>;

function foulingByEdge(partition: Partition): FoulingByEdge {
  const found: FoulingByEdge = new Map();
  const add = (on: EdgeStretch[], off: EdgeStretch[]) => {
    const other = [...new Set(off.flatMap(({ edge, from, to }) => blocksOn(partition, edge, from, to)))];
    for (const { edge, from, to } of on) found.set(edge, [...(found.get(edge) ?? []), { from, to, other }]);
  };
  for (const pair of partition.graph.fouling) {
    add(pair.a, pair.b);
    add(pair.b, pair.a);
  }
  return found;
}

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one walk; each step looks at what the walk has visited.
function routesFrom(
  place: SignalPlace,
  own: number,
  partition: Partition,
  standing: Standing,
  fouling: FoulingByEdge,
): Route[] {
  const routes: Route[] = [];
  const rear = place.rear;

  const visited = new Set<number>();
  const walk = (piece: Piece, exit: EdgeEnd, route: Route): void => {
    if (routes.length >= MOST_ROUTES) return;
    const onward = onwardPieces(partition, piece, exit);
    if (onward.length === 0) {
      route.ending = { kind: 'end of track' };
      routes.push(route);
      return;
    }
    for (const on of onward) {
      const earlier = (motor: number) => route.conditions.find((c) => c.motor === motor);
      if (on.over.some(({ motor, position }) => (earlier(motor)?.position ?? position) !== position)) continue;
      if (isAgainst(partition.graph.edges[on.piece.edge]!, on.enters)) continue;
      const next: Route =
        onward.length === 1
          ? route
          : {
              ...route,
              conditions: [...route.conditions],
              track: [...route.track],
              blocks: [...route.blocks],
              fouled: [...route.fouled],
            };
      if (onward.length > 1 && on.over.some(({ position }) => position === 'diverging')) next.aside = true;
      next.conditions.push(...on.over.filter(({ motor }) => !earlier(motor)));
      const key = on.piece.index * 2 + on.enters;
      if (visited.has(key)) {
        next.ending = { kind: 'circle' };
        routes.push(next);
        continue;
      }
      enter(on.piece, on.enters, next);
      const out: EdgeEnd = on.enters === 0 ? 1 : 0;
      const block = partition.blocks[on.piece.block]!;
      const met = nextStanding(standing, on.piece, out, undefined);
      if (partition.sections[block.section]!.sensors.length === 0 && !partition.inferred.has(block.index))
        next.ending = { kind: 'end of detection', block: block.index };
      else if (met !== undefined) next.ending = { kind: 'signal', signal: met };
      else {
        visited.add(key);
        walk(on.piece, out, next);
        visited.delete(key);
        continue;
      }
      routes.push(next);
    }
  };

  /** Comes into a piece by an end. In the block that it comes from, also when it comes round to that, a train meets nobody but itself. */
  const enter = (piece: Piece, enters: EdgeEnd, route: Route) => {
    route.length += piece.to - piece.from;
    route.track.push({ piece: piece.index, enters });
    if (piece.block !== rear && !route.blocks.some((b) => b.block === piece.block))
      route.blocks.push({ block: piece.block, piece: piece.index, enters });
    for (const trafficSection of fouling.get(piece.edge) ?? []) {
      if (trafficSection.to <= piece.from || trafficSection.from >= piece.to) continue;
      for (const block of trafficSection.other)
        if (block !== rear && !route.fouled.includes(block)) route.fouled.push(block);
    }
  };

  const start = partition.pieces[place.piece]!;
  if (isAgainst(partition.graph.edges[start.edge]!, place.exit === 1 ? 0 : 1)) return [];
  const up = place.exit === 1;
  const toBoundary = up ? start.to - place.signal.at.tenthUm : place.signal.at.tenthUm - start.from;
  const first: Route = {
    conditions: [],
    track: [],
    blocks: [],
    fouled: [],
    ending: { kind: 'end of track' },
    aside: false,
    length: toBoundary,
  };
  const ahead = nextStanding(standing, start, place.exit, { index: own, at: place.signal.at.tenthUm });
  if (ahead !== undefined) return [{ ...first, ending: { kind: 'signal', signal: ahead } }];
  walk(start, place.exit, first);
  for (const route of routes) route.fouled = route.fouled.filter((b) => !route.blocks.some((w) => w.block === b));
  return routes;
}

/** The first signal read on the way out of a piece, beyond the given one if it stands there too. */
function nextStanding(
  standing: Standing,
  piece: Piece,
  exit: EdgeEnd,
  beyond: { index: number; at: TenthUm } | undefined,
): number | undefined {
  const here = standing.get(`${piece.index} ${exit}`);
  if (!here) return undefined;
  const sign = exit === 1 ? 1 : -1;
  const ordered = here
    .filter((s) => !beyond || (s.index !== beyond.index && (s.at - beyond.at) * sign > 0))
    .sort((a, b) => (a.at - b.at) * sign || a.index - b.index);
  return ordered[0]?.index;
}

/** Whether two routes can be set at the same time: no motor is wanted in two positions. */
export function canBothBeSet(one: Route, two: Route): boolean {
  return one.conditions.every((c) => two.conditions.every((d) => c.motor !== d.motor || c.position === d.position));
}
