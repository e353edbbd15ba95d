import { onwardPieces, type Piece } from '../detection';
import type { TenthUm } from '../measure';
import type { SignalReading } from '../signals';
import type { TurnoutPosition } from '../survey';
import { type EdgeEnd, edgeAt, isAgainst } from '../track';
import { byScheme } from './by-scheme';
import { groupOf } from './groups';
import type { NamedRoute, Scheme } from './scheme';

/** What keeps others from running into the side of a route from one place, or that nothing does. */
export type FlankGuard =
  /** A signal that is read on the way there; it is at stop for every route that leads there, since these conflict. */
  | { by: 'signal'; signal: number }
  /** Points that lead a train elsewhere while they lie so; they guard where somebody asks that of them. */
  | { by: 'points'; motor: number; position: TurnoutPosition }
  /** The track ends there: only what stands on it, or is put there, can move. */
  | { by: 'end'; line: string; at: TenthUm };

/** A track that comes to the side of a route, by the points or the crossing at which it does, and what guards it. */
export interface Flank {
  at: { id: string; name: string };
  /** The line of that track, and where on it the other one is met. */
  line: string;
  from: TenthUm;
  /** The blocks of the route there. */
  blocks: number[];
  /** More than one where the track branches on the way out. */
  guards: FlankGuard[];
}

/** A way that a walk away from the route takes: out of a piece by an end; from a place in it on, where it begins there. */
interface Way {
  piece: Piece;
  exit: EdgeEnd;
  from?: TenthUm;
}

/** Every track that comes to the side of a route, nearest its signal first. */
export function flanksOf(scheme: Scheme, { route }: Pick<NamedRoute, 'route'>): Flank[] {
  const { partition, document } = scheme;
  const { graph, pieces, piecesOfEdge } = partition;
  if (route.conditions.length === 0 && document.crossings.length === 0) return [];
  const own = new Set(route.track.map(({ piece }) => piece));
  const bound = () => boundBy(scheme, route);
  const found: Flank[] = [];
  const add = (at: Flank['at'], from: { line: string; at: TenthUm }, mine: readonly Piece[], ways: readonly Way[]) => {
    const free = ways.filter(({ piece }) => !own.has(piece.index));
    if (free.length === 0) return;
    const visited = new Set<string>();
    const guards = free.flatMap((way) => guardsAlong(scheme, { own, bound }, way, visited));
    const blocks = [...new Set(mine.map(({ block }) => block))];
    if (guards.length > 0) found.push({ at, line: from.line, from: from.at, blocks, guards });
  };
  const met = new Set(route.conditions.map(({ motor }) => graph.motors[motor]!.points));
  for (const { id, name, ports, kind } of [...met].sort((a, b) => a - b).map((index) => graph.points[index]!)) {
    const passed = ports.flatMap(({ edge, end }, port) => (own.has(pieceAtEnd(edge, end).index) ? [port] : []));
    const through = passed.map((port) => pieceAtEnd(ports[port]!.edge, ports[port]!.end));
    if (passed.length < 2) continue;
    ports.forEach(({ edge, end }, port) => {
      if (passed.includes(port)) return;
      const joins = kind.ways.some(
        ({ joins: two }) =>
          two.includes(kind.ports[port]!) && passed.some((other) => two.includes(kind.ports[other]!) && other !== port),
      );
      const fouls = kind.fouls.some((sides) => sides.some((side) => side.includes(kind.ports[port]!)));
      if (!(joins || fouls)) return;
      const piece = pieceAtEnd(edge, end);
      const at = end === 0 ? piece.from : piece.to;
      add({ id, name }, { line: piece.line, at }, through, [{ piece, exit: end === 0 ? 1 : 0 }]);
    });
  }
  for (const { id, name, a, b } of document.crossings) {
    if (graph.points.some((points) => points.id === id)) continue;
    for (const [mine, { line, at }] of [
      [a, b],
      [b, a],
    ] as const) {
      const crossed = pieceOf(mine.line, mine.at.tenthUm);
      if (!own.has(crossed.index)) continue;
      const piece = pieceOf(line, at.tenthUm);
      const ways = ([0, 1] as const).map((exit): Way => ({ piece, exit, from: at.tenthUm }));
      add({ id, name }, { line, at: at.tenthUm }, [crossed], ways);
    }
  }
  const order = new Map(route.conditions.map(({ motor }, nth) => [graph.points[graph.motors[motor]!.points]!.id, nth]));
  return found.sort((one, two) => (order.get(one.at.id) ?? 1e9) - (order.get(two.at.id) ?? 1e9));

  function pieceAtEnd(edge: number, end: EdgeEnd): Piece {
    const along = piecesOfEdge[edge]!;
    return end === 0 ? along[0]! : along[along.length - 1]!;
  }
  function pieceOf(line: string, at: TenthUm): Piece {
    const along = piecesOfEdge[edgeAt(graph, line, at, 'up').index]!;
    return along.find((piece) => at < piece.to) ?? pieces[along[along.length - 1]!.index]!;
  }
}

/** How the motors of a route have to lie, and those that throw with them: these cannot lead aside what comes to it, unless they lie so anyway. */
function boundBy(scheme: Scheme, route: NamedRoute['route']): ReadonlyMap<number, TurnoutPosition> {
  const { motors } = scheme.partition.graph;
  return new Map(
    route.conditions.flatMap(({ motor, position }) =>
      groupOf(scheme, motors[motor]!).map(({ index }) => [index, position] as const),
    ),
  );
}

/** Of a route: its track, and the motors that it binds. */
interface Guarded {
  own: ReadonlySet<number>;
  bound(): ReadonlyMap<number, TurnoutPosition>;
}

/** The signals on each piece of track that has any. */
const standingOn = byScheme(({ readings }): ReadonlyMap<number, SignalReading[]> => {
  const found = new Map<number, SignalReading[]>();
  for (const reading of readings) found.set(reading.piece, [...(found.get(reading.piece) ?? []), reading]);
  return found;
});

/** What guards a route from whatever comes along a track towards it: found by going out along it, up to the first thing on each branch. */
function guardsAlong(scheme: Scheme, guarded: Guarded, { piece, exit, from }: Way, visited: Set<string>): FlankGuard[] {
  const key = `${piece.index} ${exit}`;
  if (visited.has(key)) return [];
  visited.add(key);
  const { partition } = scheme;
  if (isAgainst(partition.graph.edges[piece.edge]!, exit)) return [];
  /** Trains that come to the route leave the piece by its other end. */
  const inward: EdgeEnd = exit === 0 ? 1 : 0;
  const standing = (standingOn(scheme).get(piece.index) ?? [])
    .filter((reading) => reading.exit === inward)
    .filter(({ signal: { at } }) => from === undefined || (inward === 1 ? at.tenthUm <= from : at.tenthUm >= from))
    .sort((one, two) => (one.signal.at.tenthUm - two.signal.at.tenthUm) * (inward === 1 ? -1 : 1))[0];
  if (standing) return [{ by: 'signal', signal: standing.index }];
  const onward = onwardPieces(partition, piece, exit);
  if (onward.length === 0) return [{ by: 'end', line: piece.line, at: exit === 1 ? piece.to : piece.from }];
  return onward.flatMap((on): FlankGuard[] => {
    if (guarded.own.has(on.piece.index)) return [];
    const beyond: Way = { piece: on.piece, exit: on.enters === 0 ? 1 : 0 };
    const further = guardsAlong(scheme, guarded, beyond, visited);
    if (further.every(({ by }) => by === 'signal')) return further;
    const diverted = divertedBy(scheme, guarded, on, piece);
    return diverted ? [diverted] : further;
  });
}

/** Points between two pieces that can lead a train from the first elsewhere than to the second. */
function divertedBy(
  { partition }: Scheme,
  { bound }: Guarded,
  from: { piece: Piece; enters: EdgeEnd },
  to: Piece,
): Extract<FlankGuard, { by: 'points' }> | undefined {
  const ways = onwardPieces(partition, from.piece, from.enters);
  const here = ways.find(({ piece }) => piece.index === to.index);
  for (const { motor, position, facing } of here?.over ?? []) {
    const elsewhere = ways.some(({ over }) => over.some((one) => one.motor === motor && one.position !== position));
    const aside = position === 'straight' ? 'diverging' : 'straight';
    if (facing && elsewhere && (bound().get(motor) ?? aside) === aside) return { by: 'points', motor, position: aside };
  }
  return undefined;
}
