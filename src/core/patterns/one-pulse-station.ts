import { and, type Expr, name, not, or, previous } from '../logic';
import type { Sensor } from '../survey';
import { spotsOn } from './arrival-locking';
import { byScheme } from './by-scheme';
import * as names from './names';
import type { Scheme } from './scheme';
import { hasLeft, isTaken, pulseAt, twoRoadPattern } from './two-road-pattern';
import { other, POSITIONS, type TwoRoads } from './two-roads';

/**
 * The station in which one pulse is one departure. A pulse of any spot on the way to it, or by hand, lets go a train that waits, of two the one in the
 * straight road; the points lie for an empty road; a train that has left has reset its signal behind it. Common practice, no source.
 */
export const onePulseStation = twoRoadPattern({
  id: 'one-pulse station',
  says: 'A pulse of a spot on the way to it lets go one train that waits, and the points lie for the empty road',
  remembers(scheme, roads, book) {
    const { motor } = roads;
    const spots = spotsBefore(scheme, roads).map(
      (spot): Expr => ({ op: 'R_TRIG', in: name(names.detect(spot)), starts: true }),
    );
    const pulse = or(and(not(name(names.off(motor))), or(...spots)), pulseAt(motor));
    for (const position of POSITIONS) {
      const rest = roads[other(position)];
      /** Of two that wait the one in the straight road goes; while one is let go nobody else is. */
      const first = position === 'straight' ? [] : [not(isTaken(scheme, rest))];
      book.flag(
        ['departure', motor.index, position],
        names.departure(motor, position),
        'bool',
        {
          op: 'RS',
          set: and(
            pulse,
            isTaken(scheme, roads[position]),
            ...first,
            not(previous(names.departure(motor, other(position)))),
          ),
          reset: and(previous(names.departure(motor, position)), or(...hasLeft(scheme, roads[position]))),
          starts: false,
        },
        {
          about: motor.id,
          fact: 'always',
          yes: `A train in the ${position} road of ${motor.name} was let go, and has not left`,
          no: `No train in the ${position} road of ${motor.name} was let go`,
        },
      );
    }
  },
  enters: (scheme, roads, position) =>
    and(not(isTaken(scheme, roads[position])), isTaken(scheme, roads[other(position)])),
  leaves: (_, { motor }, position) => name(names.departure(motor, position)),
  sayLeaves: ({ motor }, position) => `a pulse has let go the train in the ${position} road of ${motor.name}`,
});

/** Spots that trains come over on their way to the roads, outside of these. */
export const spotsBefore = (scheme: Scheme, { motor }: Pick<TwoRoads, 'motor'>): readonly Sensor[] =>
  allBefore(scheme)[motor.index]!;

const allBefore = byScheme((scheme): Sensor[][] =>
  scheme.partition.graph.motors.map(({ index }) => {
    const over = scheme.routesOver[index]!.filter(({ route }) =>
      route.conditions.some(({ motor, facing }) => motor === index && facing),
    );
    const readings = [...new Set(over.map(({ reading }) => reading))];
    const leading = readings.flatMap(({ index: signal }) => scheme.routesTo[signal]!);
    const ends = new Set(
      over.map(({ route: { ending } }) => (ending.kind === 'signal' ? scheme.readings[ending.signal]!.rear : -1)),
    );
    return [...new Set([...over, ...leading].flatMap((route) => spotsOn(scheme, route, (block) => !ends.has(block))))];
  }),
);
