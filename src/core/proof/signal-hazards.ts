import type { System } from '../system';
import { Conflicting } from './conflicting';
import type { DisplayedAspects } from './displayed-aspects';
import { BITS_OF_OVER_A_TRAIN, BITS_OF_TWO_AT_ONCE } from './hazard-bits';
import { OverATrain } from './over-a-train';
import type { ProofTrain } from './proof-train';

/** The hazards that lie in what signals show, as bits. */
export class SignalHazards {
  readonly conflicting: Conflicting;
  readonly overATrain: OverATrain;

  constructor(system: System, displays: DisplayedAspects, trains: readonly ProofTrain[]) {
    this.conflicting = new Conflicting(system, displays);
    this.overATrain = new OverATrain(system, displays, trains);
  }

  /** By what is shown, and where each train is. */
  bits(displayed: number, at: Int32Array): number {
    const conflict = this.conflictBits(displayed);
    return this.overATrain.is(displayed, at) ? conflict | BITS_OF_OVER_A_TRAIN : conflict;
  }
  /** What is shown for one scan alone is a hazard too where two signals conflict. */
  conflictBits(displayed: number): number {
    return this.conflicting.is(displayed) ? BITS_OF_TWO_AT_ONCE : 0;
  }
}
