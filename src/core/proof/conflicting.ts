import { type Conflict, conflictNow, conflictsOf } from '../signals';
import type { System } from '../system';
import { MOVING } from './rules';
import type { Showings } from './showings';

const [YES, NO] = [1, 2];

/** Whether signals conflict by what is shown and how points lie, by the number of that: looked at once for each. */
export class Conflicting {
  private known = new Uint8Array(1024);
  /** No two signals can ever conflict, whatever they show. */
  private readonly never: boolean;

  constructor(
    private readonly system: System,
    private readonly showings: Showings,
  ) {
    this.never = conflictsOf(system.readings).length === 0;
  }

  is(showing: number): boolean {
    if (this.never) return false;
    if (showing >= this.known.length) {
      const grown = new Uint8Array(2 * showing);
      grown.set(this.known);
      this.known = grown;
    }
    this.known[showing] ||= this.at(showing) ? YES : NO;
    return this.known[showing] === YES;
  }

  at(showing: number): Conflict | undefined {
    const { readings, aspects } = this.system;
    return conflictNow(
      readings,
      (signal) => aspects[this.showings.thing(showing, signal)]!.stopsIn !== 0,
      (motor) => {
        const state = this.showings.lies(showing, motor);
        return state >= MOVING ? undefined : state === 0 ? 'straight' : 'diverging';
      },
    );
  }
}
