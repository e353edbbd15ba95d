import type { Partition } from '../detection';
import { mmOf } from '../measure';
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
}

const SAME_EDGE = -1;

/**
 * Finds trains that touch. Only pairs that share an edge or a fouling stretch are compared, and that list is made anew
 * when something crosses a boundary, so that a step with trains far apart costs nothing.
 */
export class Proximity {
  private suspicions: Suspicion[] = [];
  private touching = new Set<string>();
  private readonly fouling: { a: Extent; b: Extent }[];

  constructor(
    private readonly partition: Partition,
    private readonly trains: RollingTrain[],
  ) {
    this.fouling = partition.graph.fouling.map(({ a, b }) => ({
      a: { train: -1, edge: a.edge, from: mmOf(a.from), to: mmOf(a.to) },
      b: { train: -1, edge: b.edge, from: mmOf(b.from), to: mmOf(b.to) },
    }));
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
    const edges = this.trains.map((_, t) => new Set(this.trains[t]!.standsOn().map((s) => this.partition.pieces[s.piece]!.edge)));
    for (let one = 0; one < edges.length; one++) {
      for (let two = one + 1; two < edges.length; two++) {
        if ([...edges[one]!].some((edge) => edges[two]!.has(edge))) this.suspicions.push({ one, two, pair: SAME_EDGE });
        this.fouling.forEach(({ a, b }, pair) => {
          const across = (edges[one]!.has(a.edge) && edges[two]!.has(b.edge)) || (edges[one]!.has(b.edge) && edges[two]!.has(a.edge));
          if (across) this.suspicions.push({ one, two, pair });
        });
      }
    }
  }

  /** Pairs of trains that touch now and did not before. */
  newContacts(): [number, number][] {
    const found: [number, number][] = [];
    for (const suspicion of this.suspicions) {
      const key = `${suspicion.one} ${suspicion.two}`;
      if (this.touching.has(key) || !this.touch(suspicion)) continue;
      this.touching.add(key);
      found.push([suspicion.one, suspicion.two]);
    }
    return found;
  }

  private touch({ one, two, pair }: Suspicion): boolean {
    const mine = this.extents(one);
    const theirs = this.extents(two);
    if (pair === SAME_EDGE) return mine.some((m) => theirs.some((t) => m.edge === t.edge && m.from < t.to && t.from < m.to));
    const { a, b } = this.fouling[pair]!;
    const on = (extents: Extent[], zone: Extent) => extents.some((e) => e.edge === zone.edge && e.from < zone.to && zone.from < e.to);
    return (on(mine, a) && on(theirs, b)) || (on(mine, b) && on(theirs, a));
  }

  /** Trains that stand over the blades of a turnout: on both sides of the tips. */
  trainsOver(turnout: number): number[] {
    const node = this.partition.graph.turnouts[turnout]!;
    const legs = [node.straight.edge, node.diverging.edge];
    const found: number[] = [];
    this.trains.forEach((train, index) => {
      const stands = train.standsOn();
      const over = stands.some((entry, i) => {
        const next = stands[i + 1];
        if (!next) return false;
        const [p, q] = [this.partition.pieces[entry.piece]!.edge, this.partition.pieces[next.piece]!.edge];
        return (p === node.stem.edge && legs.includes(q)) || (q === node.stem.edge && legs.includes(p));
      });
      if (over) found.push(index);
    });
    return found;
  }
}
