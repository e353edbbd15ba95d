import { type RouteConflict, routeConflicts, routesIn, type Stretch, stretchesOf } from '../locking';
import { alwaysOf, anyOf, type Expr, namesRead, Teller } from '../logic';
import { showLength } from '../measure';
import {
  arrivalsOf,
  BY_TRAINS,
  type FlankGuard,
  flanksOf,
  type Guard,
  guardsOf,
  isChosen,
  isDriven,
  isPositionAssumed,
  type NamedRoute,
  names,
  OWN,
  overlapOf,
  pointsOf,
  rivalsIn,
  routeLocking,
  type Scheme,
} from '../patterns';
import type { TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { aspectTree } from './aspect-tree';
import type { Design } from './check-design';
import { exclude, type Literals, literalsOf, waysToClear } from './route-terms';

interface Thing {
  id: string;
  name: string;
}

/** Another route with which one must not be cleared. */
export interface ConflictCell {
  /** The number of its row. */
  row: number;
  reason: RouteConflict['reason'];
  says: string;
  /** The conditions of the two exclude each other, as the rules stand. */
  apart: boolean;
  where: Stretch[];
}

/** What comes to the side of a route at some points or a crossing, and what holds it off. */
export interface FlankCell {
  at: Thing;
  /** Loose points would guard it, but nobody asks that of them. */
  guards: { by: 'signal' | 'points' | 'loose points' | 'end'; about?: string; says: string; short: string }[];
}

/** Points that have to lie so before a signal is cleared. */
interface LyingPoints {
  motor: string;
  name: string;
  position: TurnoutPosition;
  /** No contact tells how they lie; and a person throws them, nobody else. */
  assumed: boolean;
  byHand: boolean;
}

/** One route in the locking table: what clears its signal is read off the rules, what it conflicts with off the track. */
export interface LockingRow {
  /** Its signal and what it leads to; the same as long as these are. */
  id: string;
  signal: Thing;
  exit: string;
  ending: NamedRoute['route']['ending']['kind'];
  /** What the signal can show for it, as its rule stands. */
  aspects: string[];
  /** Somebody has to set it. */
  commanded: boolean;
  /** Trains set it themselves. */
  byTrains: boolean;
  /** It is never cleared, whatever happens, by the rules as they stand. */
  never: boolean;
  points: LyingPoints[];
  /** Points beside it that have to lie so. */
  beside: LockingRow['points'];
  /** The points on it, as they were surveyed, each once. */
  over: string[];
  /** Blocks that have to read free. */
  free: Thing[];
  /** Blocks beyond its end that are kept free for it. */
  overlap: Thing[];
  /** Whatever else is asked for. */
  also: string[];
  /** Each of these alone clears it, whatever else is asked for. */
  besides: string[];
  flank: FlankCell[];
  conflicts: ConflictCell[];
  /** How long all of its points stay locked after the signal was put back, in ms; undefined where nothing keeps some of them. */
  keepsMs: number | undefined;
  /** What somebody has changed of what is usual, in sentences: times, and rules of one’s own. */
  changed: { keeps: string | undefined; rules: string | undefined };
  /** For each motor of its points, and of those that guard it, the blocks that hold it while they are occupied, and the spot at which a train that took this route has arrived. */
  release: { motor: string; name: string; blocks: string[]; arrival?: string }[];
  track: Stretch[];
}

function changedOf(scheme: Scheme, teller: Teller, named: NamedRoute, over: readonly Motor[]): LockingRow['changed'] {
  const isSet = (motor: Motor) =>
    pointsOf(scheme, motor)?.settings?.some(({ pattern }) => pattern === routeLocking.id) ?? false;
  const rules = [names.go(named), names.may(named), names.free(named), names.proceed(named.reading.signal)];
  return {
    keeps: over.some(isSet) ? `Set by hand; usual is ${scheme.releaseMs / 1000} s` : undefined,
    rules: rules.some((name) => teller.ruleOf(name)?.why?.pattern === OWN) ? 'A rule of your own decides' : undefined,
  };
}

/** What is asked before a signal is cleared for a route: how points lie, which blocks are free, and the rest. */
function sorted(
  scheme: Scheme,
  asked: readonly Expr[],
  named: NamedRoute,
  byPoints: ReadonlyMap<string, Motor>,
  byOccupied: ReadonlyMap<string, Thing>,
): { points: LockingRow['points']; free: Thing[]; rest: Expr[] } {
  const rest: Expr[] = [];
  const points: LockingRow['points'] = [];
  const free: Thing[] = [];
  for (const part of asked) {
    const motor = part.op === 'is' && part.left.op === 'name' ? byPoints.get(part.left.name) : undefined;
    const block = part.op === 'not' && part.of.op === 'name' ? byOccupied.get(part.of.name) : undefined;
    if (motor && part.op === 'is' && part.right.op === 'value')
      points.push({
        motor: motor.id,
        name: motor.name,
        position: part.right.value as TurnoutPosition,
        assumed: isPositionAssumed(scheme, motor),
        byHand: !isDriven(scheme, motor),
      });
    else if (block) free.push({ id: block.id, name: block.name });
    else if (part.op !== 'name' || part.name !== names.may(named)) rest.push(part);
  }
  return { points, free, rest };
}

/** The overlap at the end of a route, in blocks through which it does not run itself. */
function overlapAt(scheme: Scheme, { route: { ending, blocks } }: NamedRoute): Thing[] {
  const overlaps = ending.kind === 'signal' ? overlapOf(scheme, { index: ending.signal }) : [];
  const own = new Set(blocks.map(({ block }) => block));
  return [...new Set(overlaps.map(({ block }) => block))]
    .filter((block) => !own.has(block))
    .map((block) => {
      const { id, name } = scheme.partition.blocks[block]!;
      return { id, name };
    });
}

/** How long each of some motors stays locked after a signal was put back, the shortest; undefined where nothing keeps one of them. */
function keepsMs(teller: Teller, over: readonly Motor[]): number | undefined {
  const kept = over.flatMap((motor) => {
    const rule = teller.ruleOf(names.cleared(motor))?.expr;
    return rule?.op === 'TOF' ? [rule.ms] : [];
  });
  return kept.length > 0 && kept.length === over.length ? Math.min(...kept) : undefined;
}

/** How the points of each route are let go: by the blocks that hold them, by an arrival; and so those that guard it. */
function releasing(scheme: Scheme, teller: Teller, byOccupied: ReadonlyMap<string, Thing>) {
  const { partition } = scheme;
  const marks = new Map(arrivalsOf(scheme).flatMap(({ route, mark }) => (mark ? [[route, mark.name] as const] : [])));
  const heldBy = partition.graph.motors.map((motor) => {
    const lock = teller.ruleOf(names.locked(motor))?.expr;
    return new Set((lock ? anyOf(lock) : []).flatMap((part) => (part.op === 'name' ? [part.name] : [])));
  });
  const holding = heldBy.map((held) => [...held].flatMap((name) => byOccupied.get(name)?.name ?? []));
  return (named: NamedRoute, over: readonly Motor[], guards: readonly Guard[]): LockingRow['release'] => [
    ...over.map(({ id: motor, name, index }) => ({
      motor,
      name,
      blocks: holding[index]!,
      ...(heldBy[index]!.has(names.underWay(named)) && { arrival: marks.get(named)! }),
    })),
    ...guards.map(({ motor: { id: motor, name, index }, flank }) => ({
      motor,
      name,
      blocks: [...new Set([...holding[index]!, ...flank.blocks.map((block) => partition.blocks[block]!.name)])],
    })),
  ];
}

/** The locking table of a layout, a row for each route of each signal. */
export function lockingTable({ scheme, system }: Design): LockingRow[] {
  const { program } = system;
  const { partition } = scheme;
  const { motors } = partition.graph;
  const teller = new Teller(program);
  const isAlways = alwaysOf(program);
  const routes = routesIn(scheme);
  const set = new Set(system.commanded.map(({ signal, route }) => `${signal} ${route}`));
  const aspects = scheme.readings.map((reading) => aspectTree(scheme, program, reading).routes);
  const ways = routes.map((route) => waysToClear(teller, route));
  const conflicts = conflictCells(
    scheme,
    routes,
    ways.map((all) => all.map(literalsOf)),
  );
  const byPoints = new Map(motors.map((motor) => [names.points(motor), motor]));
  const byOccupied = new Map(partition.blocks.map((block) => [names.occupied(block), block]));
  const release = releasing(scheme, teller, byOccupied);
  return routes.map((named, nth): LockingRow => {
    const { reading, route, id, to } = named;
    const { points: lying, free, rest } = sorted(scheme, ways[nth]![0] ?? [], named, byPoints, byOccupied);
    const over = route.conditions.map(({ motor }) => motors[motor]!);
    const read = new Set((ways[nth]![0] ?? []).flatMap((part) => [...namesRead(part)]));
    const beyond = overlapAt(scheme, named).filter((block) => read.has(names.occupied(block)));
    const guards = guardsOf(scheme, named).filter(({ motor }) => !over.includes(motor));
    const isBeside = (lying: { motor: string }) => guards.some(({ motor }) => motor.id === lying.motor);
    return {
      id: `${reading.signal.id} ${id}`,
      signal: { id: reading.signal.id, name: reading.signal.name },
      exit: to,
      ending: route.ending.kind,
      commanded: set.has(`${reading.index} ${id}`),
      byTrains: set.has(`${reading.index} ${id}`) && isChosen(BY_TRAINS, reading.signal),
      aspects: [...new Set(aspects[reading.index]![id]!.map(({ aspect }) => aspect))],
      never: isAlways(names.go(named)) === 0,
      points: lying.filter((one) => !isBeside(one)),
      beside: lying.filter(isBeside),
      over: [...new Set(over.map((motor) => partition.graph.points[motor.points]!.id))],
      free: free.filter((one) => !beyond.some(({ id: block }) => block === one.id)),
      overlap: beyond,
      also: [...new Set(rest.filter(({ op }) => op !== 'false').map((part) => teller.say(part)))],
      besides: ways[nth]!.slice(1).map((way) => way.map((part) => teller.say(part)).join(', and ')),
      flank: flankCells(scheme, named, lying),
      conflicts: conflicts[nth]!,
      keepsMs: keepsMs(teller, over),
      changed: changedOf(scheme, teller, named, over),
      release: release(named, over, guards),
      track: stretchesOf(
        partition,
        route.track.map(({ piece }) => piece),
      ),
    };
  });
}

function conflictCells(scheme: Scheme, routes: NamedRoute[], ways: readonly Literals[][]): ConflictCell[][] {
  const cells: ConflictCell[][] = routes.map(() => []);
  for (const conflict of routeConflicts(scheme)) {
    const { one, two, reason, where } = conflict;
    const apart = ways[one]!.every((mine) => ways[two]!.every((theirs) => exclude(mine, theirs)));
    const [first, second] = [routes[one]!, routes[two]!];
    const says = sayConflict(scheme, first, second, conflict);
    cells[one]!.push({ row: two, reason, apart, where, says });
    cells[two]!.push({ row: one, reason, apart, where, says });
  }
  return cells;
}

export const routeName = ({ reading: { signal }, to }: NamedRoute): string => `${signal.name} → ${to}`;

function sayConflict(scheme: Scheme, one: NamedRoute, two: NamedRoute, conflict: RouteConflict): string {
  const { partition } = scheme;
  const { reason, motors, block } = conflict;
  const [first, second] = [routeName(one), routeName(two)];
  const called = (motor: number) => partition.graph.motors[motor]!.name;
  const where = sayWhere(scheme, conflict.where);
  const shared = where ? ` Both run over ${where}.` : '';
  switch (reason) {
    case 'points':
    case 'flank': {
      const { one: mine, two: theirs } = motors!;
      const needs = `${first} needs ${called(mine.motor)} ${mine.position}, ${second} needs `;
      return mine.motor === theirs.motor
        ? `${needs}it ${theirs.position}.${shared}`
        : `${needs}${called(theirs.motor)} ${theirs.position}, and they throw together.${shared}`;
    }
    case 'head-on':
      return `${first} and ${second} run over ${where} towards each other.`;
    case 'same track':
      return `${first} and ${second} both run over ${where}.`;
    case 'fouling':
      return `${first} and ${second} come too near to each other, or cross: ${where}.`;
    case 'overlap': {
      const [to, through] = rivalsIn(scheme).get(one)?.includes(two) ? [one, two] : [two, one];
      return `${routeName(through)} runs through the overlap of ${to.to}, which is kept free for ${routeName(to)}.`;
    }
    case 'block':
      return `${first} and ${second} lead into ${partition.blocks[block!]!.name} by different tracks, ${isDetected(scheme, block!) ? 'and its detector cannot tell them apart' : 'and one train at a time may hold it'}.`;
  }
}

const isDetected = ({ partition: { blocks, sections } }: Scheme, block: number): boolean =>
  sections[blocks[block]!.section]!.sensors.length > 0;

const sayWhere = ({ document }: Scheme, where: readonly Stretch[]): string =>
  where
    .map(({ line, from, to }) => {
      const { name } = document.lines.find(({ id }) => id === line)!;
      const [low, high] = [from, to].map((at) => showLength(at, document.shownUnit));
      return `${name} from ${low} to ${high}`;
    })
    .join(' and ');

function flankCells(scheme: Scheme, route: NamedRoute, asked: LockingRow['points']): FlankCell[] {
  return flanksOf(scheme, route).map(({ at, guards }) => ({
    at,
    guards: guards.map((guard) => sayGuard(scheme, asked, at, guard)),
  }));
}

function sayGuard(
  scheme: Scheme,
  asked: LockingRow['points'],
  at: Thing,
  guard: FlankGuard,
): FlankCell['guards'][number] {
  const { partition, readings, document } = scheme;
  if (guard.by === 'signal') {
    const { id, name } = readings[guard.signal]!.signal;
    return { by: 'signal', about: id, short: name, says: `${name} holds what comes to ${at.name} from there` };
  }
  if (guard.by === 'points') {
    const { id, name } = partition.graph.motors[guard.motor]!;
    const isAsked = asked.some(({ motor, position }) => motor === id && position === guard.position);
    const short = `${name} ${guard.position === 'straight' ? 'N' : 'R'}`;
    return isAsked
      ? {
          by: 'points',
          about: id,
          short,
          says: `${name} ${guard.position} leads aside what comes to ${at.name} from there`,
        }
      : {
          by: 'loose points',
          about: id,
          short: `${short}?`,
          says: `${name} would lead it aside while it lies ${guard.position}; nobody asks that of it yet`,
        };
  }
  const { name } = document.lines.find(({ id }) => id === guard.line)!;
  return { by: 'end', short: `${name}: none`, says: `Nothing holds what stands on ${name} before ${at.name}` };
}
