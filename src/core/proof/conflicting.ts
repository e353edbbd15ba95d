import type { Scheme } from '../patterns';
import { type Conflict, conflictNow } from '../signals';
import { MOVING } from './rules';
import type { Showings } from './showings';

/** Whether signals conflict by what is shown and how points lie, by the number of that: looked at once for each. */
export class Conflicting {
  private readonly known = new Map<number, Conflict | undefined>();

  constructor(
    private readonly scheme: Scheme,
    private readonly showings: Showings,
  ) {}

  at(showing: number): Conflict | undefined {
    if (this.known.has(showing)) return this.known.get(showing);
    const { readings, aspects } = this.scheme;
    const conflict = conflictNow(
      readings,
      (signal) => aspects[this.showings.thing(showing, signal)]!.stopsIn !== 0,
      (motor) => {
        const state = this.showings.lies(showing, motor);
        return state >= MOVING ? undefined : state === 0 ? 'straight' : 'diverging';
      },
    );
    this.known.set(showing, conflict);
    return conflict;
  }
}
