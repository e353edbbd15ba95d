import { blockOf, type Partition } from '../detection';
import { type Plant, type WayTo, wayTo } from '../plant';

/** A train was sent to a block: the order stands until it is done or taken back. */
export interface Order {
  /** By its number. */
  block: number;
  /** The way there; undefined while the block does not lie ahead. */
  way: WayTo | undefined;
}

/** The orders that stand, each beside its train. */
export class Orders {
  private readonly standing = new Map<number, Order>();

  constructor(
    private readonly partition: Partition,
    private readonly plant: Plant,
  ) {}

  get size(): number {
    return this.standing.size;
  }
  of(train: number): Order | undefined {
    return this.standing.get(train);
  }
  [Symbol.iterator](): IterableIterator<[number, Order]> {
    return this.standing.entries();
  }

  /** Sends a train to a block; says why when it cannot be done as the train stands. An order that stood is replaced. */
  give(train: number, block: string): string | undefined {
    const known = blockOf(this.partition, block);
    if (!known) return 'That block is no longer there.';
    const rolling = this.plant.trains[train]!;
    const way = wayTo(this.partition, rolling, known.index);
    if (!way)
      return `${known.name} does not lie ahead of ${rolling.figures.name}. Turn it back first, or choose another block.`;
    this.standing.set(train, { block: known.index, way });
    this.begin(train);
    return undefined;
  }

  /** The train has turned: the order stands, and is gone on with when its block lies ahead now. */
  turned(train: number): void {
    const order = this.standing.get(train);
    if (!order) return;
    order.way = wayTo(this.partition, this.plant.trains[train]!, order.block);
    this.begin(train);
  }

  /** Looks the way up again, since points may have led the train another one. It halts where its block no longer lies ahead. */
  lookAgain(train: number): void {
    const order = this.standing.get(train)!;
    const rolling = this.plant.trains[train]!;
    const there = rolling.held().some(({ piece }) => this.partition.pieces[piece]!.block === order.block);
    const way = wayTo(this.partition, rolling, order.block);
    if (way) {
      order.way = way;
      rolling.goalAt = way.goalAt;
    } else if (!there) {
      order.way = undefined;
      this.begin(train);
    }
  }

  /** Goes on with an order, after a halt too; a train whose block does not lie ahead waits. */
  begin(train: number): void {
    const rolling = this.plant.trains[train]!;
    const way = this.standing.get(train)?.way;
    rolling.goalAt = way?.goalAt;
    rolling.running = way !== undefined;
    if (way) rolling.stranded = false;
  }

  /** The order is done, or taken back. */
  drop(train: number): void {
    this.standing.delete(train);
    this.plant.trains[train]!.goalAt = undefined;
  }
}
