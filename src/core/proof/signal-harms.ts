import type { System } from '../system';
import { Conflicting } from './conflicting';
import { BITS_OF_OVER_A_TRAIN, BITS_OF_TWO_AT_ONCE } from './harm-bits';
import { OverATrain } from './over-a-train';
import type { ProofTrain } from './proof-train';
import type { Showings } from './showings';

/** The harms that lie in what signals show, as bits. */
export class SignalHarms {
  readonly conflicting: Conflicting;
  readonly overATrain: OverATrain;

  constructor(system: System, showings: Showings, trains: readonly ProofTrain[]) {
    this.conflicting = new Conflicting(system, showings);
    this.overATrain = new OverATrain(system, showings, trains);
  }

  /** By what is shown, and where each train is. */
  bits(showing: number, at: Int32Array): number {
    const conflict = this.conflictBits(showing);
    return this.overATrain.is(showing, at) ? conflict | BITS_OF_OVER_A_TRAIN : conflict;
  }
  /** What is shown for one scan alone is a harm too where two signals conflict. */
  conflictBits(showing: number): number {
    return this.conflicting.is(showing) ? BITS_OF_TWO_AT_ONCE : 0;
  }
}
