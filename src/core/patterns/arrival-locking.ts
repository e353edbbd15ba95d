import { sensorKind } from '../kinds';
import { and, type Expr, name, not, or } from '../logic';
import type { Sensor } from '../survey';
import type { Motor } from '../track';
import { byScheme } from './by-scheme';
import { holdingBlocks, isWatchedBlock } from './detector-locking';
import { groupOf } from './groups';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import type { NamedRoute, Scheme } from './scheme';

/**
 * A long train of which no detector sees the middle: points stay locked from the moment in which it is cleared over them until its nose is on the
 * stop mark, where a spot stands in the last block of its route. The lock is a latch; the spot resets it, and so does a person, who is refused
 * while a train is detected near the points. Reset goes before set. Common practice, no source.
 */
export const arrivalLocking: Pattern = {
  id: 'arrival locking',
  chosen: {
    at: 'points',
    says: 'Stay locked until the train that was cleared over them has arrived at a spot in the last block of its route',
    makes: 'drive',
  },
  signal(scheme, reading, book) {
    const { signal, rear } = reading;
    for (const { route, mark, blocks } of arrivalsOf(scheme)) {
      if (route.reading !== reading || !mark) continue;
      const about = signal.id;
      book.input(['release', reading.index, route.id], names.release(route), 'bool', {
        about,
        yes: `Somebody gives up the run from ${signal.name} to ${route.to}`,
        no: `Nobody gives up the run from ${signal.name} to ${route.to}`,
      });
      const nobodySeen = blocks.map((block): Expr => not(name(names.occupied(scheme.partition.blocks[block]!))));
      book.flag(
        ['under way', reading.index, route.id],
        names.underWay(route),
        'bool',
        {
          op: 'RS',
          set: and(name(names.go(route)), name(names.occupied(scheme.partition.blocks[rear]!))),
          reset: or(name(names.detect(mark)), and(name(names.release(route)), ...nobodySeen)),
          starts: false,
        },
        {
          about,
          fact: 'always',
          yes: `A train that was cleared from ${signal.name} to ${route.to} has not come to ${mark.name} yet`,
          no: `No train is under way from ${signal.name} to ${route.to}`,
        },
      );
    }
  },
  lock: (scheme, motor) =>
    arrivalsOf(scheme)
      .filter(({ mark, motors }) => mark && groupOf(scheme, motor).some((one) => motors.includes(one)))
      .map(({ route, mark }) => ({
        expr: name(names.underWay(route)),
        says: `a train cleared from ${route.reading.signal.name} to ${route.to} has not come to ${mark!.name} yet`,
      })),
};

/** A route over points that are held until arrival. */
export interface Arrival {
  route: NamedRoute;
  /** Motors on it that it holds. */
  motors: Motor[];
  /** The spot that tells of the arrival; without one nothing holds them so. */
  mark: Sensor | undefined;
  /** While any of these blocks is occupied nobody can release them by hand. */
  blocks: number[];
}

export const arrivalsOf = byScheme((scheme): Arrival[] => {
  const { motors, points } = scheme.partition.graph;
  const { turnouts, crossings } = scheme.document;
  const chosen = new Set(
    [...turnouts, ...crossings].filter((one) => isChosen(arrivalLocking, one)).map(({ id }) => id),
  );
  if (chosen.size === 0) return [];
  return scheme.routesOf.flat().flatMap((route): Arrival[] => {
    const held = route.route.conditions
      .map(({ motor }) => motors[motor]!)
      .filter((motor) => chosen.has(points[motor.points]!.id));
    if (held.length === 0) return [];
    const blocks = new Set(held.flatMap((motor) => holdingBlocks(scheme, motor)));
    const watched = [...blocks].filter((block) => isWatchedBlock(scheme, block));
    return [{ route, motors: held, mark: markOf(scheme, route), blocks: watched }];
  });
});

/** The last spot that a train comes to in the last block of a route. */
export function markOf(scheme: Scheme, route: NamedRoute): Sensor | undefined {
  const last = route.route.blocks.at(-1)?.block;
  return spotsOn(scheme, route, (block) => block === last).at(-1);
}

/** The spots that a train comes to on a route, in order, in some of its blocks. */
export function spotsOn(
  { document, partition }: Scheme,
  { route }: NamedRoute,
  isIn: (block: number) => boolean,
): Sensor[] {
  const spots = document.sensors.filter(
    ({ kind }) => sensorKind(kind).reachMm !== 'section' && !sensorKind(kind).tells,
  );
  return route.track
    .map(({ piece, enters }) => ({ piece: partition.pieces[piece]!, enters }))
    .filter(({ piece }) => isIn(piece.block))
    .flatMap(({ piece, enters }) =>
      spots
        .filter(({ anchor: { line, at } }) => line === piece.line && at.tenthUm >= piece.from && at.tenthUm <= piece.to)
        .sort((one, two) => (one.anchor.at.tenthUm - two.anchor.at.tenthUm) * (enters === 0 ? 1 : -1)),
    );
}
