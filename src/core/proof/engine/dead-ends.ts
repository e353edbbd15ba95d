import { grown } from './state-set';

/** Where a step leads that is not followed: nobody can say that no way on is there. */
export const NOT_FOLLOWED = -1;
/** Steps looked at between two chances to stop. */
const SLICE = 1 << 16;

/**
 * Of some states, each kept with all that it leads to, those from which nothing but these can ever be reached. Found by a work list, from those
 * that lead out backwards: each step is looked at twice, whatever the shape.
 */
export class DeadEnds {
  /** For each kept state its number, how many steps lead from it, and where they lead. */
  private kept = new Int32Array(1024);
  private end = 0;
  private begun = 0;
  private work: Iterator<void> | undefined;
  /** The one with the lowest number, once it is known that there is one. */
  nearest: number | undefined;

  get bytes(): number {
    return this.kept.byteLength;
  }

  /** Keeps a state from which at most so many steps lead. */
  begin(state: number, steps: number): void {
    while (this.end + 2 + steps > this.kept.length) this.kept = grown(this.kept);
    this.begun = this.end;
    this.kept[this.end] = state;
    this.end += 2;
  }
  leadsTo(state: number): void {
    this.kept[this.end++] = state;
  }
  ended(): void {
    this.kept[this.begun + 1] = this.end - this.begun - 2;
  }

  /** Goes on for so many slices, of all `states` that were found. True when it is known. */
  find(states: number, slices = Number.POSITIVE_INFINITY): boolean {
    this.work ??= this.search(states);
    for (let i = 0; i < slices; i++) if (this.work.next().done) return true;
    return false;
  }

  private *search(states: number): Generator<void, void, void> {
    const { kept, end } = this;
    /** 1 for a kept state from which no way out is known. */
    const dead = new Uint8Array(states);
    for (let at = 0; at < end; at += 2 + kept[at + 1]!) dead[kept[at]!] = 1;
    /** Who leads to each kept state: where its list begins, once it has been counted. */
    const from = new Int32Array(states + 1);
    const out: number[] = [];
    let looked = 0;
    const each = function* (tell: (state: number, to: number) => void): Generator<void, void, void> {
      for (let at = 0; at < end; at += 2 + kept[at + 1]!) {
        for (let i = at + 2; i < at + 2 + kept[at + 1]!; i++) tell(kept[at]!, kept[i]!);
        looked += kept[at + 1]!;
        if (looked < SLICE) continue;
        looked = 0;
        yield;
      }
    };
    yield* each((_, to) => {
      if (to >= 0 && dead[to] === 1) from[to + 1]!++;
    });
    for (let state = 0; state < states; state++) from[state + 1]! += from[state]!;
    const leads = new Int32Array(from[states]!);
    const filled = from.slice();
    yield* each((state, to) => {
      if (to >= 0 && dead[to] !== 0) leads[filled[to]!++] = state;
      else if (dead[state] === 1) {
        dead[state] = 2;
        out.push(state);
      }
    });
    for (const state of out) dead[state] = 0;
    while (out.length > 0) {
      const state = out.pop()!;
      for (let i = from[state]!; i < from[state + 1]!; i++) {
        const before = leads[i]!;
        if (dead[before] !== 1) continue;
        dead[before] = 0;
        out.push(before);
        if (++looked < SLICE) continue;
        looked = 0;
        yield;
      }
    }
    const nearest = dead.indexOf(1);
    if (nearest >= 0) this.nearest = nearest;
  }
}
