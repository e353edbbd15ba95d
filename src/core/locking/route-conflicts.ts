import type { Partition } from '../detection';
import type { TenthUm } from '../measure';
import type { NamedRoute, Scheme } from '../patterns';
import { groupOf, guardsOf, rivalsIn } from '../patterns';
import type { TurnoutPosition } from '../survey';
import type { EdgeStretch } from '../track';

/** A part of a line, for people to see and for pictures. */
export interface Stretch {
  line: string;
  from: TenthUm;
  to: TenthUm;
}

/**
 * Why two routes of different signals must not be cleared at once. The first reason that holds, in this order:
 * `points`, one motor, or motors that throw together, must lie both ways; `head-on`, they run over the same track towards each other;
 * `same track`, they run over it the same way; `fouling`, the track of one lies within the clearance of the other's; `flank`, points that guard one,
 * or both, must lie both ways; `block`, both lead into one block by different tracks, and one detector cannot tell them apart; `overlap`, one runs
 * through the block that is kept free beyond the end of the other.
 */
export type ConflictReason = 'points' | 'head-on' | 'same track' | 'fouling' | 'flank' | 'block' | 'overlap';

export interface RouteConflict {
  /** Numbers of routes (`routesIn`), the lower first. */
  one: number;
  two: number;
  reason: ConflictReason;
  /** For points and flank: the motors that each needs, and how they would have to lie. */
  motors?: { one: Lying; two: Lying };
  /** For a block, its number. */
  block?: number;
  /** Track that both need, or that fouls the other's; none where only points or a block are shared. */
  where: Stretch[];
}

/** All routes of a scheme, numbered as they stand with their signals. */
export const routesIn = ({ routesOf }: Scheme): NamedRoute[] => routesOf.flat();

/** A motor as a route needs it. */
interface Lying {
  motor: number;
  position: TurnoutPosition;
}

/** What of a route other routes can be in conflict with. */
interface Needs {
  /** By motor, how it must lie; of points on the route, and of those that guard it. */
  lies: Map<number, Lying>;
  guards: Map<number, Lying>;
  /** By piece, the end by which it is entered. */
  pieces: Map<number, 0 | 1>;
  blocks: Set<number>;
  /** Places of fouling that its track lies in: twice the pair, and one more for its second side. */
  zones: Set<number>;
}

/** Every pair of routes that must not be cleared at once, except the routes of one signal, of which it clears one at a time. */
export function routeConflicts(scheme: Scheme): RouteConflict[] {
  const routes = routesIn(scheme);
  const needs = routes.map((route) => needsOf(scheme, route));
  const rivals = new Set<number>();
  /** Only routes that share something are looked at in pairs. */
  const sharing = new Map<string, number[]>();
  const share = (key: string, route: number) => {
    const others = sharing.get(key) ?? [];
    for (const other of others) rivals.add(other * routes.length + route);
    others.push(route);
    sharing.set(key, others);
  };
  needs.forEach(({ lies, guards, blocks, zones }, route) => {
    const groups = [...lies.keys(), ...guards.keys()].map(
      (motor) => groupOf(scheme, scheme.partition.graph.motors[motor]!)[0]!.index,
    );
    for (const group of new Set(groups)) share(`group ${group}`, route);
    for (const block of blocks) share(`block ${block}`, route);
    for (const pair of new Set([...zones].map((zone) => zone >> 1))) share(`pair ${pair}`, route);
  });
  const numberOf = new Map(routes.map((route, nth) => [route, nth]));
  const overlapping = new Set<number>();
  for (const [one, others] of rivalsIn(scheme))
    for (const other of others) {
      const [low, high] = [numberOf.get(one)!, numberOf.get(other)!].sort((a, b) => a - b) as [number, number];
      overlapping.add(low * routes.length + high);
    }
  return [...new Set([...rivals, ...overlapping])]
    .sort((a, b) => a - b)
    .flatMap((key): RouteConflict[] => {
      const [one, two] = [Math.floor(key / routes.length), key % routes.length];
      if (routes[one]!.reading === routes[two]!.reading) return [];
      const found = reasonOf(scheme, needs[one]!, needs[two]!);
      if (found) return [{ one, two, ...found }];
      return overlapping.has(key) ? [{ one, two, reason: 'overlap', where: [] }] : [];
    });
}

/** In the block in rear of the signal the train stands already, and holds it. */
function needsOf(scheme: Scheme, named: NamedRoute): Needs {
  const { partition } = scheme;
  const {
    route,
    reading: { rear },
  } = named;
  const beyond = route.track.filter(({ piece }) => partition.pieces[piece]!.block !== rear);
  const pieces = new Map(beyond.map(({ piece, enters }) => [piece, enters]));
  const zones = new Set<number>();
  partition.graph.fouling.forEach(({ a, b }, pair) => {
    for (const [side, stretches] of [a, b].entries())
      if (stretches.some((part) => liesOn(partition, pieces.keys(), part))) zones.add(2 * pair + side);
  });
  return {
    lies: new Map(route.conditions.map((over) => [over.motor, over])),
    guards: new Map(
      guardsOf(scheme, named).map(({ motor: { index: motor }, position }) => [motor, { motor, position }]),
    ),
    pieces,
    blocks: new Set([...pieces.keys()].map((piece) => partition.pieces[piece]!.block)),
    zones,
  };
}

function reasonOf(scheme: Scheme, one: Needs, two: Needs): Omit<RouteConflict, 'one' | 'two'> | undefined {
  const { partition } = scheme;
  const shared = [...one.pieces.keys()].filter((piece) => two.pieces.has(piece));
  const where = stretchesOf(partition, shared);
  const motors = contraryPoints(scheme, one.lies, two.lies);
  if (motors) return { reason: 'points', motors, where };
  const [first] = shared;
  if (first !== undefined) {
    const opposed = shared.some((piece) => one.pieces.get(piece) !== two.pieces.get(piece));
    return { reason: opposed ? 'head-on' : 'same track', where };
  }
  const zone = [...one.zones].find((own) => two.zones.has(own ^ 1));
  if (zone !== undefined) {
    const pair = partition.graph.fouling[zone >> 1]!;
    return { reason: 'fouling', where: merged([...pair.a, ...pair.b].map((part) => onLine(partition, part))) };
  }
  const beside =
    contraryPoints(scheme, one.guards, two.lies) ??
    contraryPoints(scheme, one.lies, two.guards) ??
    contraryPoints(scheme, one.guards, two.guards);
  if (beside) return { reason: 'flank', motors: beside, where: [] };
  const block = [...one.blocks].find((own) => two.blocks.has(own));
  return block === undefined ? undefined : { reason: 'block', block, where: [] };
}

/** Motors of one group that the routes need to lie differently; those that both pass first. */
function contraryPoints(scheme: Scheme, one: Needs['lies'], two: Needs['lies']): RouteConflict['motors'] {
  const { motors } = scheme.partition.graph;
  let together: RouteConflict['motors'];
  for (const own of one.values())
    for (const { index } of groupOf(scheme, motors[own.motor]!)) {
      const other = two.get(index);
      if (!other || other.position === own.position) continue;
      if (index === own.motor) return { one: own, two: other };
      together ??= { one: own, two: other };
    }
  return together;
}

function liesOn({ pieces }: Partition, own: Iterable<number>, part: EdgeStretch): boolean {
  for (const piece of own) {
    const { edge, from, to } = pieces[piece]!;
    if (edge === part.edge && part.from < to && part.to > from) return true;
  }
  return false;
}

const onLine = ({ graph }: Partition, { edge, from, to }: EdgeStretch): Stretch => ({
  line: graph.edges[edge]!.line,
  from,
  to,
});

/** Pieces as parts of lines. */
export const stretchesOf = ({ pieces }: Partition, of: Iterable<number>): Stretch[] =>
  merged([...of].map((piece) => pieces[piece]!));

/** Those that lie end to end made one. */
function merged(stretches: readonly Stretch[]): Stretch[] {
  const found: Stretch[] = [];
  for (const { line, from, to } of stretches) {
    const beside = found.find((one) => one.line === line && (one.to === from || one.from === to));
    if (!beside) found.push({ line, from, to });
    else {
      beside.from = Math.min(beside.from, from);
      beside.to = Math.max(beside.to, to);
    }
  }
  return found;
}
