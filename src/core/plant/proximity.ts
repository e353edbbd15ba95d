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

/**
 * Finds trains that touch. Only pairs that share an edge or a fouling stretch are compared, and only when they have run
 * far enough to touch; the list is made anew when something crosses a boundary.
 */
export class Proximity {
  private suspicions: Suspicion[] = [];
  private touching = new Set<string>();
  private readonly fouling: { a: Extent[]; b: Extent[] }[];

  constructor(
    private readonly partition: Partition,
    private readonly trains: RollingTrain[],
  ) {
    const inMm = (zone: EdgeStretch[]) =>
      zone.map(({ edge, from, to }) => ({ train: -1, edge, from: mmOf(from), to: mmOf(to) }));
    this.fouling = partition.graph.fouling.map(({ a, b }) => ({ a: inMm(a), b: inMm(b) }));
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
    const edges = this.trains.map(
      (_, t) => new Set(this.trains[t]!.standsOn().map((s) => this.partition.pieces[s.piece]!.edge)),
    );
    for (let one = 0; one < edges.length; one++) {
      for (let two = one + 1; two < edges.length; two++) {
        if ([...edges[one]!].some((edge) => edges[two]!.has(edge))) this.suspect(one, two, SAME_EDGE);
        this.fouling.forEach(({ a, b }, pair) => {
          const on = (train: number, zone: Extent[]) => zone.some(({ edge }) => edges[train]!.has(edge));
          const across = (on(one, a) && on(two, b)) || (on(one, b) && on(two, a));
          if (across) this.suspect(one, two, pair);
        });
      }
    }
  }

  /** A train is taken away or put elsewhere: what it touched, it touches no more. */
  forget(train: number): void {
    for (const key of [...this.touching]) if (key.split(' ').includes(String(train))) this.touching.delete(key);
  }

  private suspect(one: number, two: number, pair: number): void {
    this.suspicions.push({ one, two, pair, roomMm: this.roomBetween(one, two, pair), from: this.runBy(one, two) });
  }

  private runBy(one: number, two: number): number {
    return this.trains[one]!.head + this.trains[two]!.head;
  }

  /** Pairs of trains that touch now and did not before. */
  newContacts(): [number, number][] {
    const found: [number, number][] = [];
    for (const suspicion of this.suspicions) {
      const run = this.runBy(suspicion.one, suspicion.two);
      if (run - suspicion.from < suspicion.roomMm) continue;
      suspicion.from = run;
      suspicion.roomMm = this.roomBetween(suspicion.one, suspicion.two, suspicion.pair);
      const key = `${suspicion.one} ${suspicion.two}`;
      if (suspicion.roomMm > 0 || this.touching.has(key)) continue;
      this.touching.add(key);
      found.push([suspicion.one, suspicion.two]);
    }
    return found;
  }

  /** How far two trains must run together before they can touch; 0 or less when they do. */
  private roomBetween(one: number, two: number, pair: number): number {
    const mine = this.extents(one);
    const theirs = this.extents(two);
    const apart = (p: Extent, q: Extent) => Math.max(p.from - q.to, q.from - p.to);
    let least = Number.POSITIVE_INFINITY;
    if (pair === SAME_EDGE) {
      for (const m of mine) for (const t of theirs) if (m.edge === t.edge) least = Math.min(least, apart(m, t));
      return least;
    }
    const { a, b } = this.fouling[pair]!;
    const toZone = (extents: Extent[], zone: Extent[]) => {
      const far = extents.flatMap((e) => zone.map((z) => (e.edge === z.edge ? apart(e, z) : Number.POSITIVE_INFINITY)));
      return Math.max(0, Math.min(...far));
    };
    return Math.min(toZone(mine, a) + toZone(theirs, b), toZone(mine, b) + toZone(theirs, a));
  }

  /** Trains that stand over the blades of a turnout: on both sides of the tips. */
  trainsOver(motor: number): number[] {
    return [...this.trains.keys()].filter((train) =>
      turnoutsUnder(this.partition, this.trains[train]!.body()).includes(motor),
    );
  }
}
