import type { Partition } from '../detection';
import { mmOf } from '../measure';
import type { EdgeStretch } from '../track';
import { turnoutsUnder } from './footprint';
import type { RollingTrain } from './rolling-train';
import { lineMm } from './tape';

interface Extent {
  train: number;
  edge: number;
  from: number;
  to: number;
}

interface Suspicion {
  /** Trains that stand on the same edge, or on two stretches that foul each other. */
  one: number;
  two: number;
  pair: number;
  /** Until the two have run this far together since `from`, they cannot touch. */
  roomMm: number;
  from: number;
}

const SAME_EDGE = -1;
/** Nearly always nothing touches anew. */
const NONE: [number, number][] = [];
/** On which sides of a fouling pair a train stands, as bits. */
const [ON_A, ON_B] = [1, 2];

/**
 * Finds trains that touch. Only pairs that share an edge or a fouling stretch are compared, and only when they have run
 * far enough to touch; the list is made anew when something crosses a boundary.
 */
export class Proximity {
  private suspicions: Suspicion[] = [];
  private touching = new Set<string>();
  private readonly fouling: { a: Extent[]; b: Extent[] }[];
  /** For each edge, the fouling pairs that have a side on it. */
  private readonly foulingOn: { pair: number; side: number }[][];

  constructor(
    private readonly partition: Partition,
    private readonly trains: RollingTrain[],
  ) {
    const inMm = (zone: EdgeStretch[]) =>
      zone.map(({ edge, from, to }) => ({ train: -1, edge, from: mmOf(from), to: mmOf(to) }));
    const { fouling, edges } = partition.graph;
    this.fouling = fouling.map(({ a, b }) => ({ a: inMm(a), b: inMm(b) }));
    this.foulingOn = edges.map(() => []);
    fouling.forEach(({ a, b }, pair) => {
      for (const { edge } of a) this.foulingOn[edge]!.push({ pair, side: ON_A });
      for (const { edge } of b) this.foulingOn[edge]!.push({ pair, side: ON_B });
    });
    this.plan();
  }

  private extents(train: number): Extent[] {
    return this.trains[train]!.standsOn().map((stands) => {
      const p = lineMm(this.partition, stands.entry, stands.from);
      const q = lineMm(this.partition, stands.entry, stands.to);
      return { train, edge: this.partition.pieces[stands.piece]!.edge, from: Math.min(p, q), to: Math.max(p, q) };
    });
  }

  plan(): void {
    this.suspicions = [];
    const stands = this.trains.map((_, t) => this.extents(t));
    const sides = stands.map((extents) => this.sidesOf(extents));
    for (let one = 0; one < stands.length; one++) {
      for (let two = one + 1; two < stands.length; two++) {
        if (shareEdge(stands[one]!, stands[two]!)) this.suspect(one, two, SAME_EDGE, stands);
        if (sides[one]!.size === 0 || sides[two]!.size === 0) continue;
        for (const [pair, mine] of sides[one]!) {
          const theirs = sides[two]!.get(pair) ?? 0;
          const across = (mine & ON_A && theirs & ON_B) || (mine & ON_B && theirs & ON_A);
          if (across) this.suspect(one, two, pair, stands);
        }
      }
    }
  }

  /** By fouling pair, in order, the sides that a train is on. */
  private sidesOf(extents: readonly Extent[]): Map<number, number> {
    const found: { pair: number; side: number }[] = [];
    for (const { edge } of extents) found.push(...this.foulingOn[edge]!);
    found.sort((p, q) => p.pair - q.pair);
    const sides = new Map<number, number>();
    for (const { pair, side } of found) sides.set(pair, (sides.get(pair) ?? 0) | side);
    return sides;
  }

  /** A train is taken away or put elsewhere: what it touched, it touches no more. */
  forget(train: number): void {
    for (const key of [...this.touching]) if (key.split(' ').includes(String(train))) this.touching.delete(key);
  }

  private suspect(one: number, two: number, pair: number, stands: readonly Extent[][]): void {
    const roomMm = this.roomBetween(stands[one]!, stands[two]!, pair);
    this.suspicions.push({ one, two, pair, roomMm, from: this.runBy(one, two) });
  }

  private runBy(one: number, two: number): number {
    return this.trains[one]!.head + this.trains[two]!.head;
  }

  /** Pairs of trains that touch now and did not before. */
  newContacts(): [number, number][] {
    let found = NONE;
    for (let i = 0; i < this.suspicions.length; i++) {
      const suspicion = this.suspicions[i]!;
      const run = this.runBy(suspicion.one, suspicion.two);
      if (run - suspicion.from < suspicion.roomMm) continue;
      suspicion.from = run;
      suspicion.roomMm = this.roomBetween(this.extents(suspicion.one), this.extents(suspicion.two), suspicion.pair);
      const key = `${suspicion.one} ${suspicion.two}`;
      if (suspicion.roomMm > 0 || this.touching.has(key)) continue;
      this.touching.add(key);
      if (found === NONE) found = [];
      found.push([suspicion.one, suspicion.two]);
    }
    return found;
  }

  /** How far two trains must run together before they can touch; 0 or less when they do. */
  private roomBetween(mine: readonly Extent[], theirs: readonly Extent[], pair: number): number {
    if (pair === SAME_EDGE) return leastApart(mine, theirs);
    const { a, b } = this.fouling[pair]!;
    const toZone = (extents: readonly Extent[], zone: readonly Extent[]) => Math.max(0, leastApart(extents, zone));
    return Math.min(toZone(mine, a) + toZone(theirs, b), toZone(mine, b) + toZone(theirs, a));
  }

  /** Trains that stand over the blades of a turnout: on both sides of the tips. */
  trainsOver(motor: number): number[] {
    return [...this.trains.keys()].filter((train) =>
      turnoutsUnder(this.partition, this.trains[train]!.body()).includes(motor),
    );
  }
}

/** The least distance between any two of some extents that lie on one edge; below 0 where they overlap. */
function leastApart(some: readonly Extent[], others: readonly Extent[]): number {
  let least = Number.POSITIVE_INFINITY;
  for (const p of some)
    for (const q of others) if (p.edge === q.edge) least = Math.min(least, Math.max(p.from - q.to, q.from - p.to));
  return least;
}

function shareEdge(some: readonly Extent[], others: readonly Extent[]): boolean {
  for (const p of some) for (const q of others) if (p.edge === q.edge) return true;
  return false;
}
