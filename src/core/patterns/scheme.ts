import { divideTrack, type Partition } from '../detection';
import { and, type Declaration, type Expr, is, name, not, type Program, type Why } from '../logic';
import { layoutSpeedMmPerS, stoppingTimeS } from '../measure';
import { findStretches, readSignals, type SignalReading, type Stretches, type Way } from '../signals';
import type { LayoutDocument, Train } from '../survey';
import { compileTrack } from '../track';
import * as names from './names';

/** Everything computed from a document before rules are written. */
export interface Scheme {
  document: LayoutDocument;
  partition: Partition;
  readings: SignalReading[];
  stretches: Stretches;
  /** How long a cleared way stays locked after it is put back: the slowest train's stopping time and a second. */
  releaseMs: number;
  /** The distinct name of each way of each signal: the signal or the end it leads to. */
  wayNames: string[][];
}

export const SETTLE_MS = 200;
/** With no train surveyed yet; common practice, no source. */
const RELEASE_WITHOUT_TRAINS_MS = 5000;

/** Compiles a checked document as far as the rules need: track, sections and blocks, ways, stretches. */
export function compileScheme(document: LayoutDocument): Scheme {
  const partition = divideTrack(document, compileTrack(document));
  const readings = readSignals(document, partition);
  const scheme: Scheme = {
    document,
    partition,
    readings,
    stretches: findStretches(partition, readings),
    releaseMs: releaseTimeMs(document),
    wayNames: [],
  };
  scheme.wayNames = readings.map((reading) => nameWays(scheme, reading));
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

function nameWays(scheme: Scheme, reading: SignalReading): string[] {
  const taken = new Map<string, number>();
  return reading.ways.map((way) => {
    const base = endingName(scheme, way);
    const nth = (taken.get(base) ?? 0) + 1;
    taken.set(base, nth);
    return nth === 1 ? base : `${base}:${nth}`;
  });
}

export function endingName(scheme: Scheme, way: Way): string {
  const { ending } = way;
  if (ending.kind === 'signal') return scheme.readings[ending.signal]!.signal.name;
  if (ending.kind === 'end of detection') return scheme.partition.blocks[ending.block]!.name;
  const last = way.blocks[way.blocks.length - 1];
  return last ? scheme.partition.blocks[last.block]!.name : 'end';
}

/** Gathers declarations while patterns write them. */
export class RuleBook {
  readonly declarations: Declaration[] = [];
  constructor(private readonly pattern: string) {}

  input(ruleName: string, type: string, why: Omit<Why, 'pattern'>): void {
    this.declarations.push({ name: ruleName, type, role: 'input', why: { ...why, pattern: this.pattern } });
  }
  rule(ruleName: string, type: string, expr: Expr, why: Omit<Why, 'pattern'>): void {
    this.declarations.push({ name: ruleName, type, role: 'rule', expr, why: { ...why, pattern: this.pattern } });
  }
  output(ruleName: string, type: string, expr: Expr, why: Omit<Why, 'pattern'>): void {
    this.declarations.push({ name: ruleName, type, role: 'output', expr, why: { ...why, pattern: this.pattern } });
  }
}

/** The way is set and free: every turnout lies for it, every block on it and every block that fouls it reads free. */
export function wayIsFree(scheme: Scheme, way: Way): Expr {
  if (way.ending.kind === 'circle' || way.blocks.length === 0) return { op: 'false' };
  const { partition } = scheme;
  const clear = [...way.blocks.map((b) => b.block), ...way.fouled].map((block) => not(name(names.occupied(partition.blocks[block]!.name))));
  return and(...pointsLie(scheme, way), ...clear);
}

/** Every turnout of the way lies for it. */
export function pointsLie(scheme: Scheme, way: Way): Expr[] {
  return way.conditions.map((c) => is(name(names.points(scheme.document.turnouts[c.turnout]!.name)), c.position));
}

export function assemble(...books: RuleBook[]): Program {
  return {
    scanMs: 20,
    enums: { aspect: ['stop', 'caution', 'clear'], position: ['straight', 'diverging', 'between'] },
    declarations: books.flatMap((book) => book.declarations),
  };
}
