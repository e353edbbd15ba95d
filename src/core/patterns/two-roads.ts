import type { SignalReading } from '../signals';
import type { Sensor, TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { markOf } from './arrival-locking';
import { byScheme } from './by-scheme';
import type { NamedRoute, Scheme } from './scheme';

/** One of two tracks that points met facing lead into, each with a signal at its far end before which trains wait. */
export interface Road {
  position: TurnoutPosition;
  signals: SignalReading[];
  /** The blocks in which a train stands before them. */
  blocks: number[];
  /** Spots that tell of a train at the end of the road, where there are any. */
  marks: Sensor[];
  /** How the points must lie by which trains leave. */
  leaves: { motor: number; position: TurnoutPosition }[];
}

/** Points with the two roads that they lead into, trains in which take turns. */
export interface TwoRoads {
  motor: Motor;
  straight: Road;
  diverging: Road;
}

/** What is missing where points do not lead into two roads at whose ends trains wait. */
export interface NoRoads {
  motor: Motor;
  missing: string;
}

export const isTwoRoads = (found: TwoRoads | NoRoads): found is TwoRoads => 'straight' in found;
export const other = (position: TurnoutPosition): TurnoutPosition =>
  position === 'straight' ? 'diverging' : 'straight';
export const POSITIONS: readonly TurnoutPosition[] = ['straight', 'diverging'];

/** Both roads of each motor, whether anything was chosen for it or not. */
export const allRoads = byScheme((scheme): (TwoRoads | NoRoads)[] =>
  scheme.partition.graph.motors.map((motor) => roadsAt(scheme, motor)),
);

function roadsAt(scheme: Scheme, motor: Motor): TwoRoads | NoRoads {
  const { motors } = scheme.partition.graph;
  if (motors.filter(({ points }) => points === motor.points).length > 1)
    return { motor, missing: 'it has more than one motor, and takes turns by one alone' };
  const facing = scheme.routesOver[motor.index]!.filter(({ route }) =>
    route.conditions.some((one) => one.motor === motor.index && one.facing),
  );
  if (facing.length === 0) return { motor, missing: 'no signal leads over it facing' };
  const [straight, diverging] = POSITIONS.map((position) => roadAt(scheme, motor, position, facing));
  for (const road of [straight!, diverging!])
    if (road.signals.length === 0)
      return { motor, missing: `no signal stands at the end of the road that it leads into ${road.position}` };
  if (straight!.blocks.some((block) => diverging!.blocks.includes(block)))
    return { motor, missing: 'both its roads are one block' };
  /** Only points that lie otherwise for the one road than for the other are thrown for it. */
  const apart = (road: Road, two: Road) =>
    road.leaves.filter(({ motor: of, position }) =>
      two.leaves.some((one) => one.motor === of && one.position !== position),
    );
  return {
    motor,
    straight: { ...straight!, leaves: apart(straight!, diverging!) },
    diverging: { ...diverging!, leaves: apart(diverging!, straight!) },
  };
}

function roadAt(scheme: Scheme, motor: Motor, position: TurnoutPosition, facing: readonly NamedRoute[]): Road {
  /** Up to a signal before the roads come together again: beyond their points trailing they are one. */
  const into = facing.filter(({ route: { conditions } }) => {
    const nth = conditions.findIndex((one) => one.motor === motor.index && one.position === position);
    return nth >= 0 && conditions.slice(nth + 1).every((one) => one.facing);
  });
  const ends = into.flatMap(({ route: { ending } }) =>
    ending.kind === 'signal' ? [scheme.readings[ending.signal]!] : [],
  );
  const signals = [...new Set(ends)];
  const marks = into.flatMap((route) => markOf(scheme, route) ?? []);
  const leaves = signals
    .flatMap(({ routes }) => routes.flatMap(({ conditions }) => conditions))
    .filter(({ facing: met }) => !met)
    .map((one) => ({ motor: one.motor, position: one.position }));
  return {
    position,
    signals,
    blocks: [...new Set(signals.map(({ rear }) => rear))],
    marks: [...new Set(marks)],
    leaves,
  };
}
