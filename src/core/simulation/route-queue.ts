import type { Commanded } from '../system';

/** Routes that somebody wants set as soon as nothing that conflicts is: who has waited longer goes first. */
export class RouteQueue {
  private waiting: Commanded[] = [];

  constructor(private readonly commanded: readonly Commanded[]) {}

  get size(): number {
    return this.waiting.length;
  }
  get all(): readonly Commanded[] {
    return this.waiting;
  }

  /** Puts a route at the end, unless it waits already. */
  add(route: Commanded): void {
    if (!this.waiting.includes(route)) this.waiting.push(route);
  }

  /** Nothing from that signal waits any more. */
  cancel(signal: number): void {
    this.waiting = this.waiting.filter((one) => one.signal !== signal);
  }

  /** Takes out those that can be set now: no rival is set, and none has waited longer. */
  due(values: ArrayLike<number>): Commanded[] {
    const rivalsOf = ({ rivals }: Commanded) => rivals.map((nth) => this.commanded[nth]!);
    const due = this.waiting.filter((route, nth) => {
      const rivals = rivalsOf(route);
      const earlier = this.waiting.slice(0, nth);
      return rivals.every((rival) => values[rival.isSet] !== 1 && !earlier.includes(rival));
    });
    this.waiting = this.waiting.filter((route) => !due.includes(route));
    return due;
  }
}
