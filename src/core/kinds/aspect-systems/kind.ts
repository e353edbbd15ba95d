/** It obliges a driver to stop before no signal. */
export const NOWHERE = Number.POSITIVE_INFINITY;

/** How fast a train may run: a share of its own top speed, or so many scale km/h; one of the two. */
export interface SpeedLimit {
  share?: number;
  kmh?: number;
}

/** What a signal can say. */
export interface Aspect {
  /** Its name for people and in the rule program; the same in every system that has it, with the same obligation. */
  id: string;
  /** What it tells a driver, in a sentence. */
  means: string;
  /** What the crew does besides, if anything: whom it calls. */
  calls?: string;
  /** Before which signal it obliges him to stop: 0 this one, 1 the next, 2 the one after that; or NOWHERE. */
  stopsIn: number;
  /** It says nothing of what stands on the way: he runs so that he can stop short of anything. */
  onSight?: boolean;
  /** How fast from this signal to the next; left out, as fast as the line lets him, or as `CAUTION_SHARE` where the next is to be stopped at. */
  speed?: SpeedLimit;
  /** How fast he may pass the next signal: its own way leads aside. */
  speedAtNext?: SpeedLimit;
  /** It is shown only for ways that lead aside over facing points, or only for those that do not. */
  leads?: 'straight' | 'aside';
  /** The lamps that are lit, by their number. */
  lit: readonly number[];
  /** Those of them that flash. */
  flashing?: readonly number[];
}

export const LAMP_SHAPES = ['square', 'triangle', 'circle', 'diamond', 'bar', 'slant'] as const;
export const LAMP_COLOURS = ['stop', 'caution', 'clear', 'white'] as const;

/** One lamp or arm of a head. The shape says what the colour says, for grey prints and for people who see colours otherwise. */
export interface LampKind {
  shape: (typeof LAMP_SHAPES)[number];
  colour: (typeof LAMP_COLOURS)[number];
  /** Which of several heads on one mast it is in, the top one first; a mast of several heads is drawn with one place for each. */
  head?: number;
}

/** It lets a train go on and says that nothing stands on its way. */
export const promisesFree = ({ stopsIn, onSight }: Aspect): boolean => stopsIn !== 0 && !onSight;

/** A school of signalling: the lamps of its heads, and its aspects, the most restrictive first, which is the one for stop. */
export interface AspectSystem {
  name: string;
  /** From the mast outwards. */
  lamps: readonly LampKind[];
  aspects: readonly [Aspect, Aspect, ...Aspect[]];
}

/** How many heads stand on one mast. */
export const headsOf = ({ lamps }: AspectSystem): number => Math.max(...lamps.map(({ head = 0 }) => head)) + 1;

/** What is left of an aspect when nobody sees colours: the places and shapes of its lit lamps, and whether they flash. */
export const greyOf = ({ lamps }: AspectSystem, { lit, flashing = [] }: Aspect): string =>
  lit
    .map((i) => `${lamps[i]!.head ?? 0} ${lamps[i]!.shape}${flashing.includes(i) ? ' flashing' : ''}`)
    .sort()
    .join(', ');
