import type { PointsKind } from './kind';

/** Two lines that cross: a runs from its lower side to its higher, and so does b. */
const crossing = {
  ports: ['aLow', 'aHigh', 'bLow', 'bHigh'] as const,
  fouls: [
    [
      ['aLow', 'aHigh'],
      ['bLow', 'bHigh'],
    ],
  ] as const,
};

/** Two tracks that cross, and nothing that moves. */
export const diamond: PointsKind = {
  ...crossing,
  title: 'Diamond',
  motors: [],
  ways: [
    { joins: ['aLow', 'aHigh'], lies: [] },
    { joins: ['bLow', 'bHigh'], lies: [] },
  ],
};

/** A diamond with one curve in it, from the lower side of a to the higher side of b, and one motor. Common practice, no source. */
export const singleSlip: PointsKind = {
  ...crossing,
  title: 'Single slip',
  motors: [''],
  ways: [
    { joins: ['aLow', 'aHigh'], lies: ['straight'] },
    { joins: ['bLow', 'bHigh'], lies: ['straight'] },
    { joins: ['aLow', 'bHigh'], lies: ['diverging'] },
  ],
};

/** A diamond with both curves, and a motor on each side that chooses the track there: straight a, diverging b. Common practice, no source. */
export const doubleSlip: PointsKind = {
  ...crossing,
  title: 'Double slip',
  motors: ['a', 'b'],
  ways: [
    { joins: ['aLow', 'aHigh'], lies: ['straight', 'straight'] },
    { joins: ['aLow', 'bHigh'], lies: ['straight', 'diverging'] },
    { joins: ['bLow', 'aHigh'], lies: ['diverging', 'straight'] },
    { joins: ['bLow', 'bHigh'], lies: ['diverging', 'diverging'] },
  ],
};

/** Track from one line to another beside it. Its own length counts, so that it has to be entered as two turnouts. */
export const crossover: PointsKind = { ...diamond, title: 'Crossover', readAs: 'a plain diamond' };
export const scissors: PointsKind = { ...diamond, title: 'Double crossover', readAs: 'a plain diamond' };
