import { and, or } from '../logic';
import { isTurnOf, wasTurnOf, writeTurn } from './turn';
import { hasLeft, twoRoadPattern } from './two-road-pattern';
import { other } from './two-roads';

/**
 * The two-road block for three trains. One road is fed at a time, and only while the block ahead is clear; a train that has left it gives the turn to
 * the other, so that two wait while the third is on the line; the points lie for the road that it has left, for whoever comes next. Common
 * practice, no source.
 */
export const twoRoadBlock = twoRoadPattern({
  id: 'two-road block',
  says: 'Of its two roads one is fed, while the block ahead is clear; a train that has left it gives the turn to the other',
  /** Two roads that have one block ahead are told apart by which was fed. */
  remembers: (scheme, roads, book) =>
    writeTurn(roads, book, (position) =>
      and(wasTurnOf(roads, other(position)), or(...hasLeft(scheme, roads[other(position)]))),
    ),
  enters: (_, roads, position) => isTurnOf(roads, other(position)),
  leaves: (_, roads, position) => isTurnOf(roads, position),
  sayLeaves: ({ motor }, position) => `it is the turn of the ${position} road of ${motor.name}`,
  clearAhead: true,
});
