import { promisesFree } from '../../kinds';
import { type LettingIn, lettingIn, standsOn } from '../../signals';
import type { System } from '../../system';
import type { DisplayedAspects } from '../model/displayed-aspects';
import type { ProofTrain } from '../model/proof-train';

const BITS = 32;

/** Whether a signal shows proceed, but on sight, where a train stands: ways as bits, by what is shown and by where each train is. */
export class OverATrain {
  readonly routes: readonly LettingIn[];
  private readonly words: number;
  /** For each train, bits for one placement after the other. */
  private readonly stood: Int32Array[];
  /** By the number of what is shown: whether it has been looked at, then its bits. */
  private shown: Int32Array;

  constructor(
    private readonly system: System,
    private readonly displays: DisplayedAspects,
    trains: readonly ProofTrain[],
  ) {
    this.routes = lettingIn(system.readings);
    this.words = Math.ceil(this.routes.length / BITS);
    this.shown = new Int32Array(1024 * (this.words + 1));
    this.stood = trains.map(({ placements }) => {
      const bits = new Int32Array(placements.length * this.words);
      placements.forEach(({ heldIn }, p) => {
        this.routes.forEach((route, w) => {
          if (heldIn.some((held) => standsOn(route, held))) bits[p * this.words + (w >> 5)]! |= 1 << (w & 31);
        });
      });
      return bits;
    });
  }

  /** Of some trains, each by its placement; one that is off the track has none. */
  is(displayed: number, at: Int32Array): boolean {
    const from = this.bitsOf(displayed);
    for (let t = 0; t < at.length; t++) {
      const stood = this.stood[t]!;
      const begin = at[t]! * this.words;
      if (begin >= stood.length) continue;
      for (let w = 0; w < this.words; w++) if (stood[begin + w]! & this.shown[from + w]!) return true;
    }
    return false;
  }

  /** The first such way, with the train that stands on it. */
  at(displayed: number, at: Int32Array): { route: LettingIn; train: number } | undefined {
    const from = this.bitsOf(displayed);
    for (const [w, route] of this.routes.entries()) {
      if (!((this.shown[from + (w >> 5)]! >>> (w & 31)) & 1)) continue;
      const train = this.stood.findIndex((stood, t) => ((stood[at[t]! * this.words + (w >> 5)] ?? 0) >>> (w & 31)) & 1);
      if (train >= 0) return { route, train };
    }
    return undefined;
  }

  private bitsOf(displayed: number): number {
    const stride = this.words + 1;
    while ((displayed + 1) * stride > this.shown.length) {
      const grown = new Int32Array(2 * this.shown.length);
      grown.set(this.shown);
      this.shown = grown;
    }
    const at = displayed * stride;
    if (this.shown[at] === 0) {
      this.shown[at] = 1;
      this.routes.forEach(({ signal, lies }, w) => {
        const lets =
          promisesFree(this.system.aspects[this.displays.thing(displayed, signal)]!) &&
          lies.every(
            ({ motor, position }) => this.displays.lies(displayed, motor) === (position === 'straight' ? 0 : 1),
          );
        if (lets) this.shown[at + 1 + (w >> 5)]! |= 1 << (w & 31);
      });
    }
    return at + 1;
  }
}
