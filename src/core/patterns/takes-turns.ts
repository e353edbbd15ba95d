import { or } from '../logic';
import { isTurnOf, writeTurn } from './turn';
import { arrives, twoRoadPattern } from './two-road-pattern';
import { other } from './two-roads';

/**
 * The alternating siding. It is the turn of one of two roads: its signal alone lets a train go, and the points lie for it, so that the next train
 * comes into it once it is empty. A train that arrives in a road gives the turn to the other; so does a pulse by hand. Common practice, no source.
 */
export const takesTurns = twoRoadPattern({
  id: 'takes turns',
  says: 'Its two roads take turns: a train that arrives in one lets go the train in the other, and sends the next one there',
  remembers: (scheme, roads, book) =>
    writeTurn(roads, book, (position) => or(...arrives(scheme, roads[other(position)]))),
  enters: (_, roads, position) => isTurnOf(roads, position),
  leaves: (_, roads, position) => isTurnOf(roads, position),
  sayLeaves: ({ motor }, position) => `it is the turn of the ${position} road of ${motor.name}`,
});
