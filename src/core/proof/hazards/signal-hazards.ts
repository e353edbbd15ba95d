import type { System } from '../../system';
import type { DisplayedAspects } from '../model/displayed-aspects';
import type { ProofTrain } from '../model/proof-train';
import { Conflicting } from './conflicting';
import { bitsDisplayed } from './hazard-bits';
import { OverATrain } from './over-a-train';

const [TWO_AT_ONCE, OVER_A_TRAIN] = [bitsDisplayed('two at once'), bitsDisplayed('over a train')];

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
    return this.overATrain.is(displayed, at) ? conflict | OVER_A_TRAIN : conflict;
  }
  /** What is shown for one scan alone is a hazard too where two signals conflict: by a list of what is shown, without the last of it. */
  bitsBefore(list: number): number {
    return this.conflicting.isBefore(list) ? TWO_AT_ONCE : 0;
  }
  private conflictBits(displayed: number): number {
    return this.conflicting.is(displayed) ? TWO_AT_ONCE : 0;
  }
}
