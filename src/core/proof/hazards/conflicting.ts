import { type Conflict, conflictNow, conflictsOf } from '../../signals';
import type { System } from '../../system';
import type { DisplayedAspects } from '../model/displayed-aspects';
import { MOVING } from '../model/rule-memory';

const [YES, NO] = [1, 2];

/** Whether signals conflict by what is shown and how points lie, by the number of that: looked at once for each. */
export class Conflicting {
  private known = new Uint8Array(1024);
  /** No two signals can ever conflict, whatever they show. */
  private readonly never: boolean;

  constructor(
    private readonly system: System,
    private readonly displays: DisplayedAspects,
  ) {
    this.never = conflictsOf(system.readings).length === 0;
  }

  is(displayed: number): boolean {
    if (this.never) return false;
    if (displayed >= this.known.length) {
      const grown = new Uint8Array(2 * displayed);
      grown.set(this.known);
      this.known = grown;
    }
    this.known[displayed] ||= this.at(displayed) ? YES : NO;
    return this.known[displayed] === YES;
  }

  /** The same of anything in a list but the last. */
  isBefore(list: number): boolean {
    if (this.never) return false;
    const rest = this.displays.rest(list);
    return rest >= 0 && (this.is(this.displays.first(list)) || this.isBefore(rest));
  }

  at(displayed: number): Conflict | undefined {
    const { readings, aspects } = this.system;
    return conflictNow(
      readings,
      (signal) => aspects[this.displays.thing(displayed, signal)]!.stopsIn !== 0,
      (motor) => {
        const state = this.displays.lies(displayed, motor);
        return state >= MOVING ? undefined : state === 0 ? 'straight' : 'diverging';
      },
    );
  }
}
