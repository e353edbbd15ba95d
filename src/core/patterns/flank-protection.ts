import { and, type Expr, is, name } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { byScheme } from './by-scheme';
import { contactArms } from './contact-arms';
import { type Flank, flanksOf } from './flank';
import { groupOf } from './groups';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { pointsOf } from './points-of';
import type { NamedRoute, Scheme } from './scheme';

/**
 * Points beside a route that can lead aside what would run into it: a signal clears for the route only while they lie so, and they stay so while a
 * train is cleared for it, and while one is where they guard. Common practice, no source.
 */
export const flankProtection: Pattern = {
  id: 'flank protection',
  chosen: {
    at: 'points',
    says: 'Guard the routes beside them: these clear only while they lie to lead aside what could run into them',
    makes: 'drive',
  },
  /** Also where an operator clears the signal. */
  always: true,
  proceed: (scheme, route) =>
    guardsOf(scheme, route).map(({ motor, position, flank }) => ({
      expr: is(name(names.points(motor)), position),
      says: `${motor.name} lies ${position} and leads aside what could come to ${flank.at.name}`,
    })),
  lock: (scheme, motor) =>
    [...guardedBy(scheme, motor)].flatMap(([block, { position, flank }]) => {
      const { name: called } = scheme.partition.blocks[block]!;
      const expr: Expr = and(
        name(names.occupied(scheme.partition.blocks[block]!)),
        ...groupOf(scheme, motor).map((one) => is(name(names.points(one)), position)),
      );
      return [{ expr, says: `${called} is occupied, and it leads aside what could come to ${flank.at.name}` }];
    }),
};

/** Points that somebody chose to guard a route, and how they must lie for it. */
export interface Guard {
  route: NamedRoute;
  motor: Motor;
  position: TurnoutPosition;
  flank: Flank;
}

const allGuards = byScheme((scheme): ReadonlyMap<NamedRoute, readonly Guard[]> => {
  const { motors } = scheme.partition.graph;
  const guarding = motors.filter((motor) => isChosen(flankProtection, pointsOf(scheme, motor)));
  if (guarding.length === 0) return new Map();
  return new Map(
    signalled(scheme).map((route) => {
      const found = new Map<Motor, Guard>();
      for (const flank of flanksOf(scheme, route))
        for (const guard of flank.guards) {
          const motor = guard.by === 'points' ? motors[guard.motor]! : undefined;
          if (guard.by !== 'points' || !motor || !guarding.includes(motor) || found.has(motor)) continue;
          found.set(motor, { route, motor, position: guard.position, flank });
        }
      return [route, [...found.values()]];
    }),
  );
});

/** Arms that follow the points clear no route. */
const signalled = ({ routesOf }: Scheme): NamedRoute[] =>
  routesOf.flat().filter(({ reading: { signal } }) => !isChosen(contactArms, signal));

/** The points that must lie so beside a route. */
export const guardsOf = (scheme: Scheme, route: NamedRoute): readonly Guard[] => allGuards(scheme).get(route) ?? NONE;
const NONE: readonly Guard[] = [];

/** The routes that a motor, or one that throws with it, guards. */
export const routesBeside = (scheme: Scheme, { index }: Motor): NamedRoute[] =>
  [...allGuards(scheme)].flatMap(([route, guards]) =>
    guards.some(({ motor }) => motor.index === index) ? [route] : [],
  );

/** Every motor that must lie so for a route: on it, and beside it. */
export const liesFor = (scheme: Scheme, route: NamedRoute): { motor: number; position: TurnoutPosition }[] => [
  ...route.route.conditions,
  ...guardsOf(scheme, route).map(({ motor, position }) => ({ motor: motor.index, position })),
];

/** The blocks at the places that a motor guards, or one that throws with it, each with the first of its guards there. */
function guardedBy(scheme: Scheme, motor: Motor): Map<number, Guard> {
  const found = new Map<number, Guard>();
  const group = groupOf(scheme, motor);
  for (const guard of [...allGuards(scheme).values()].flat())
    if (group.includes(guard.motor))
      for (const block of guard.flank.blocks) if (!found.has(block)) found.set(block, guard);
  return found;
}
