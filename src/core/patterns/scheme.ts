import { divideTrack, type Partition } from '../detection';
import { type Aspect, aspectsOf } from '../kinds';
import { type Expr, is, name } from '../logic';
import { layoutSpeedMmPerS, stoppingTimeS } from '../measure';
import { findStretches, readSignals, type SignalReading, type Stretch, type Stretches, type Way } from '../signals';
import { type LayoutDocument, systemOf, type Train } from '../survey';
import { compileTrack } from '../track';
import * as names from './names';

/** A stretch worked both ways, and the side from which a way enters it. */
export interface Direction {
  stretch: Stretch;
  side: string;
  /** Blocks of the way before the stretch is reached; while a train is in them it is still on its way there. */
  before: number[];
}

/** A way of a signal, named by the signal or the end it leads to. */
export interface NamedWay {
  reading: SignalReading;
  way: Way;
  /** Distinct among the ways of its signal. */
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
  stretches: Stretches;
  /** How long a cleared way stays locked after it is put back: the slowest train's stopping time and a second. */
  releaseMs: number;
  /** Everything that a signal of the layout can show; rules and runs have an aspect by its number here. */
  aspects: Aspect[];
  /** Ways by signal, by the signal they lead to, by the stretch they enter, and by the motor of points they pass. */
  waysOf: NamedWay[][];
  waysTo: NamedWay[][];
  waysInto: NamedWay[][];
  waysOver: NamedWay[][];
}

/** With no train surveyed yet; common practice, no source. */
const RELEASE_WITHOUT_TRAINS_MS = 5000;

/** Compiles a checked document as far as the rules need: track, sections and blocks, ways, stretches. */
export function compileScheme(document: LayoutDocument): Scheme {
  const partition = divideTrack(document, compileTrack(document));
  const readings = readSignals(document, partition);
  const stretches = findStretches(document, partition, readings);
  const lists = (count: number): NamedWay[][] => Array.from({ length: count }, () => []);
  const scheme: Scheme = {
    document,
    partition,
    readings,
    stretches,
    releaseMs: releaseTimeMs(document),
    aspects: aspectsOf(readings.map(({ signal }) => systemOf(document, signal.system))),
    waysOf: readings.map((reading) => nameWays(partition, readings, stretches, reading)),
    waysTo: lists(readings.length),
    waysInto: lists(stretches.all.length),
    waysOver: lists(partition.graph.motors.length),
  };
  for (const named of scheme.waysOf.flat()) {
    if (named.way.ending.kind === 'signal') scheme.waysTo[named.way.ending.signal]!.push(named);
    for (const { stretch } of named.directions) scheme.waysInto[stretch.index]!.push(named);
    for (const { motor } of named.way.conditions) scheme.waysOver[motor]!.push(named);
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

function nameWays(
  partition: Partition,
  readings: readonly SignalReading[],
  stretches: Stretches,
  reading: SignalReading,
): NamedWay[] {
  const taken = new Map<string, number>();
  return reading.ways.map((way) => {
    const ending = endingOf(partition, readings, way);
    const nth = (taken.get(ending.id) ?? 0) + 1;
    taken.set(ending.id, nth);
    const mark = nth === 1 ? '' : `:${nth}`;
    const directions = directionsOf(stretches, way);
    return { reading, way, id: `${ending.id}${mark}`, to: `${ending.name}${mark}`, directions };
  });
}

/** What a way leads to. */
function endingOf(partition: Partition, readings: readonly SignalReading[], way: Way): { id: string; name: string } {
  const { ending } = way;
  if (ending.kind === 'signal') return readings[ending.signal]!.signal;
  if (ending.kind === 'end of detection') return partition.blocks[ending.block]!;
  const last = way.blocks[way.blocks.length - 1];
  return last ? partition.blocks[last.block]! : { id: 'end', name: 'end' };
}

function directionsOf(stretches: Stretches, way: Way): Direction[] {
  const found: Direction[] = [];
  way.blocks.forEach((step, i) => {
    const stretch = stretches.all[stretches.ofBlock[step.block]!]!;
    if (!stretch.bothWays || found.some((d) => d.stretch === stretch)) return;
    const before = way.blocks.slice(0, i).map((b) => b.block);
    found.push({ stretch, side: stretches.sideOf(step.block, step.piece, step.enters), before });
  });
  return found;
}

/** Every motor of points on the way lies for it. */
export function pointsLie(scheme: Scheme, way: Way): Expr[] {
  return way.conditions.map((c) => is(name(names.points(scheme.partition.graph.motors[c.motor]!)), c.position));
}
