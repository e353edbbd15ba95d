import type { NamedRoute } from '../patterns';
import type { WayTo } from '../plant';
import type { Controller, System } from '../system';
import type { Orders } from './orders';

/**
 * Before a signal whose routes trains set, a train that was sent somewhere takes no route of its own choice: from when it comes there until it has left, that
 * is switched off, and its routes are set for it.
 */
export class SentTrains {
  /** What was switched off for a train, by its place among the values. */
  private readonly off = new Set<number>();

  constructor(
    private readonly system: System,
    private readonly controller: Controller,
    private readonly orders: Orders,
    private readonly routesAhead: (train: number, way: WayTo) => readonly NamedRoute[],
  ) {}

  get size(): number {
    return this.off.size;
  }

  /** Somebody works that switch himself. */
  leave(slot: number): void {
    this.off.delete(slot);
  }

  /** Switches off where such a train has come, and on again where it has left. */
  serve(): void {
    const { controller, off } = this;
    const now = new Set<number>();
    for (const [train, { way }] of this.orders) {
      const ahead = way ? this.routesAhead(train, way) : [];
      for (const { signal, byTrainsUnless } of ahead.length > 0 ? this.system.commanded : [])
        if (byTrainsUnless !== undefined && ahead.some(({ reading }) => reading.index === signal))
          now.add(byTrainsUnless);
    }
    for (const slot of now)
      if (!off.has(slot) && controller.values[slot] !== 1) {
        off.add(slot);
        controller.set(slot, 1);
      }
    for (const slot of off)
      if (!now.has(slot)) {
        off.delete(slot);
        controller.set(slot, 0);
      }
  }
}
