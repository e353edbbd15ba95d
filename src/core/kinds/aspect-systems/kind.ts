/** It obliges a driver to stop before no signal. */
export const NOWHERE = Number.POSITIVE_INFINITY;

/** What a signal can say. */
export interface Aspect {
  /** Its name for people and in the rule program; the same in every system that has it, with the same obligation. */
  id: string;
  /** What it tells a driver, in a sentence. */
  means: string;
  /** Before which signal it obliges him to stop: 0 this one, 1 the next, 2 the one after that; or NOWHERE. */
  stopsIn: number;
  /** The lamps that are lit, by their number. */
  lit: readonly number[];
}

/** One lamp of a head. The shape says what the colour says, for grey prints and for people who see colours otherwise. */
export interface LampKind {
  shape: 'square' | 'triangle' | 'circle' | 'diamond';
  colour: 'stop' | 'caution' | 'clear';
}

/** A school of signalling: the lamps of its heads, and its aspects, the most restrictive first, which is the one for stop. */
export interface AspectSystem {
  name: string;
  /** From the mast outwards. */
  lamps: readonly LampKind[];
  aspects: readonly [Aspect, Aspect, ...Aspect[]];
}
