import { promisesFree } from '../kinds';
import { type LettingIn, lettingIn, standsOn } from '../signals';
import type { System } from '../system';
import type { ProofTrain } from './proof-train';
import type { Showings } from './showings';

const BITS = 32;

/** Whether a signal lets trains on, but on sight, where one stands: ways as bits, by what is shown and by where each train is. */
export class OverATrain {
  readonly ways: readonly LettingIn[];
  private readonly words: number;
  /** For each train, bits for one placement after the other. */
  private readonly stood: Int32Array[];
  /** By the number of what is shown: whether it has been looked at, then its bits. */
  private shown: Int32Array;

  constructor(
    private readonly system: System,
    private readonly showings: Showings,
    trains: readonly ProofTrain[],
  ) {
    this.ways = lettingIn(system.readings);
    this.words = Math.ceil(this.ways.length / BITS);
    this.shown = new Int32Array(1024 * (this.words + 1));
    this.stood = trains.map(({ placements }) => {
      const bits = new Int32Array(placements.length * this.words);
      placements.forEach(({ heldIn }, p) => {
        this.ways.forEach((way, w) => {
          if (heldIn.some((held) => standsOn(way, held))) bits[p * this.words + (w >> 5)]! |= 1 << (w & 31);
        });
      });
      return bits;
    });
  }

  /** Of some trains, each by its placement; one that is off the track has none. */
  is(showing: number, at: Int32Array): boolean {
    const from = this.bitsOf(showing);
    for (let t = 0; t < at.length; t++) {
      const stood = this.stood[t]!;
      const begin = at[t]! * this.words;
      if (begin >= stood.length) continue;
      for (let w = 0; w < this.words; w++) if (stood[begin + w]! & this.shown[from + w]!) return true;
    }
    return false;
  }

  /** The first such way, with the train that stands on it. */
  at(showing: number, at: Int32Array): { way: LettingIn; train: number } | undefined {
    const from = this.bitsOf(showing);
    for (const [w, way] of this.ways.entries()) {
      if (!((this.shown[from + (w >> 5)]! >>> (w & 31)) & 1)) continue;
      const train = this.stood.findIndex((stood, t) => ((stood[at[t]! * this.words + (w >> 5)] ?? 0) >>> (w & 31)) & 1);
      if (train >= 0) return { way, train };
    }
    return undefined;
  }

  private bitsOf(showing: number): number {
    const stride = this.words + 1;
    while ((showing + 1) * stride > this.shown.length) {
      const grown = new Int32Array(2 * this.shown.length);
      grown.set(this.shown);
      this.shown = grown;
    }
    const at = showing * stride;
    if (this.shown[at] === 0) {
      this.shown[at] = 1;
      this.ways.forEach(({ signal, lies }, w) => {
        const lets =
          promisesFree(this.system.aspects[this.showings.thing(showing, signal)]!) &&
          lies.every(({ motor, position }) => this.showings.lies(showing, motor) === (position === 'straight' ? 0 : 1));
        if (lets) this.shown[at + 1 + (w >> 5)]! |= 1 << (w & 31);
      });
    }
    return at + 1;
  }
}
