import { divideTrack, type Partition } from '../detection';
import { type Aspect, aspectsOf } from '../kinds';
import { type Expr, is, name } from '../logic';
import { layoutSpeedMmPerS, stoppingTimeS } from '../measure';
import {
  findTrafficSections,
  type Route,
  readSignals,
  type SignalReading,
  type TrafficSection,
  type TrafficSections,
} from '../signals';
import { type LayoutDocument, systemOf, type Train } from '../survey';
import { compileTrack } from '../track';
import * as names from './names';

/** A traffic section worked in both directions, and the side from which a route enters it. */
export interface Direction {
  trafficSection: TrafficSection;
  side: string;
  /** Blocks of the route before the section is reached; while a train is in them it is still on its way there. */
  before: number[];
}

/** A route of a signal, named by the signal or the end it leads to. */
export interface NamedRoute {
  reading: SignalReading;
  route: Route;
  /** Distinct among the routes of its signal. */
  id: string;
  to: string;
  /** The directions it has to hold, in the order in which it meets them. */
  directions: Direction[];
}

/** Everything computed from a document before rules are written. */
export interface Scheme {
  document: LayoutDocument;
  partition: Partition;
  readings: readonly SignalReading[];
  trafficSections: TrafficSections;
  /** How long a cleared route usually stays locked after it is put back: the slowest train's stopping time and a second. */
  releaseMs: number;
  /** Everything that a signal of the layout can show; rules and runs have an aspect by its number here. */
  aspects: Aspect[];
  /** Routes by signal, by the signal they lead to, by the traffic section they enter, and by the motor of points they pass. */
  routesOf: NamedRoute[][];
  routesTo: NamedRoute[][];
  routesInto: NamedRoute[][];
  routesOver: NamedRoute[][];
}

/** With no train surveyed yet; common practice, no source. */
const RELEASE_WITHOUT_TRAINS_MS = 5000;

/** Compiles a checked document as far as the rules need: track, sections and blocks, routes, traffic sections. */
export function compileScheme(document: LayoutDocument): Scheme {
  const partition = divideTrack(document, compileTrack(document));
  const readings = readSignals(document, partition);
  const trafficSections = findTrafficSections(document, partition, readings);
  const lists = (count: number): NamedRoute[][] => Array.from({ length: count }, () => []);
  const scheme: Scheme = {
    document,
    partition,
    readings,
    trafficSections,
    releaseMs: releaseTimeMs(document),
    aspects: aspectsOf(readings.map(({ signal }) => systemOf(document, signal.system))),
    routesOf: readings.map((reading) => nameRoutes(partition, readings, trafficSections, reading)),
    routesTo: lists(readings.length),
    routesInto: lists(trafficSections.all.length),
    routesOver: lists(partition.graph.motors.length),
  };
  for (const named of scheme.routesOf.flat()) {
    if (named.route.ending.kind === 'signal') scheme.routesTo[named.route.ending.signal]!.push(named);
    for (const { trafficSection } of named.directions) scheme.routesInto[trafficSection.index]!.push(named);
    for (const { motor } of named.route.conditions) scheme.routesOver[motor]!.push(named);
  }
  return scheme;
}

/** Top speed over the layout divided by the braking rate, the worst of all trains, and one second. */
function releaseTimeMs(document: LayoutDocument): number {
  if (document.trains.length === 0) return RELEASE_WITHOUT_TRAINS_MS;
  const times = document.trains.map((train) => stoppingMs(document, train));
  return Math.ceil((Math.max(...times) + 1000) / 100) * 100;
}

function stoppingMs(document: LayoutDocument, train: Train): number {
  return stoppingTimeS(layoutSpeedMmPerS(train.topSpeedKmh, document.scale), 0, train.brakingMmPerS2) * 1000;
}

function nameRoutes(
  partition: Partition,
  readings: readonly SignalReading[],
  trafficSections: TrafficSections,
  reading: SignalReading,
): NamedRoute[] {
  const taken = new Map<string, number>();
  return reading.routes.map((route) => {
    const ending = endingOf(partition, readings, route);
    const nth = (taken.get(ending.id) ?? 0) + 1;
    taken.set(ending.id, nth);
    const mark = nth === 1 ? '' : `:${nth}`;
    const directions = directionsOf(trafficSections, route);
    return { reading, route, id: `${ending.id}${mark}`, to: `${ending.name}${mark}`, directions };
  });
}

/** What a route leads to. */
function endingOf(
  partition: Partition,
  readings: readonly SignalReading[],
  route: Route,
): { id: string; name: string } {
  const { ending } = route;
  if (ending.kind === 'signal') return readings[ending.signal]!.signal;
  if (ending.kind === 'end of detection') return partition.blocks[ending.block]!;
  const last = route.blocks[route.blocks.length - 1];
  return last ? partition.blocks[last.block]! : { id: 'end', name: 'end' };
}

function directionsOf(trafficSections: TrafficSections, route: Route): Direction[] {
  const found: Direction[] = [];
  route.blocks.forEach((step, i) => {
    const trafficSection = trafficSections.all[trafficSections.ofBlock[step.block]!]!;
    if (!trafficSection.bothWays || found.some((d) => d.trafficSection === trafficSection)) return;
    const before = route.blocks.slice(0, i).map((b) => b.block);
    found.push({ trafficSection, side: trafficSections.sideOf(step.block, step.piece, step.enters), before });
  });
  return found;
}

/** Every motor of points on the route lies for it. */
export function pointsLie(scheme: Scheme, route: Route): Expr[] {
  return route.conditions.map((c) => is(name(names.points(scheme.partition.graph.motors[c.motor]!)), c.position));
}
