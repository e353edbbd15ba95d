import { Random } from '../../src/core/simulation';

/** Draws of one layout: everything that varies comes from here, so that a seed names a layout. */
export class Draw {
  private readonly random: Random;
  constructor(seed: number, sequence = 99) {
    this.random = new Random(seed, sequence);
  }
  /** A whole number from 0 up to but not including `n`. */
  below(n: number): number {
    return Math.floor(this.random.uniform() * n);
  }
  /** A whole number from `low` up to and including `high`. */
  whole(low: number, high: number): number {
    return low + this.below(high - low + 1);
  }
  between(low: number, high: number): number {
    return low + this.random.uniform() * (high - low);
  }
  chance(p: number): boolean {
    return this.random.uniform() < p;
  }
  pick<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
}
