import { and, type Expr, name, not, or, previous } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { aheadOf, rises } from './ahead';
import { byScheme } from './by-scheme';
import * as names from './names';
import type { Pattern } from './pattern';
import { pointsOf } from './points-of';
import type { RuleBook } from './rule-book';
import type { NamedRoute, Scheme } from './scheme';
import { allRoads, isTwoRoads, POSITIONS, type Road, type TwoRoads } from './two-roads';

/** Whoever works points one by one goes before what trains ask for. */
const AFTER_HAND = -1;

/** A way in which trains in two roads beyond a turnout follow each other by themselves. */
interface TwoRoadKind {
  id: string;
  says: string;
  /** What is remembered there: its own rules. */
  remembers(scheme: Scheme, roads: TwoRoads, book: RuleBook): void;
  /** While this is so the points lie for who comes in by a road, those at its other end for who leaves it, and its signals may let a train go. */
  enters(scheme: Scheme, roads: TwoRoads, position: TurnoutPosition): Expr;
  leaves(scheme: Scheme, roads: TwoRoads, position: TurnoutPosition): Expr;
  /** What `leaves` says, of a road. */
  sayLeaves(roads: TwoRoads, position: TurnoutPosition): string;
  /** Its signals are held as well while the block ahead is occupied, whatever else looks at that. */
  clearAhead?: boolean;
}

/** The patterns made so: of several at one turnout the one that was chosen first works. */
const MADE: string[] = [];
export const TWO_ROAD_PATTERNS: readonly string[] = MADE;

/** A pattern for two roads with a switch and a pulse by hand. While it is off the road that lies open runs. Common practice, no source. */
export function twoRoadPattern(kind: TwoRoadKind): Pattern {
  const { id } = kind;
  MADE.push(id);
  const all = byScheme((scheme): TwoRoads[] =>
    scheme.partition.graph.motors.flatMap((motor) => {
      const { patterns = [] } = pointsOf(scheme, motor) ?? {};
      const roads = patterns.find((one) => MADE.includes(one)) === id ? allRoads(scheme)[motor.index]! : undefined;
      return roads && isTwoRoads(roads) ? [roads] : [];
    }),
  );
  const isOn = ({ motor }: TwoRoads): Expr => not(name(names.off(motor)));
  return {
    id,
    chosen: { at: 'points', says: kind.says, makes: 'drive' },
    releases: true,
    off: 'only the road that lies open runs, straight through, and a train in the other stays there',
    motor(scheme, motor, book) {
      const roads = all(scheme).find((one) => one.motor === motor);
      if (!roads) return;
      writeInputs(scheme, roads, book);
      kind.remembers(scheme, roads, book);
    },
    asked: (scheme, { motor, position }) =>
      all(scheme).flatMap((roads) =>
        POSITIONS.flatMap((road) => {
          const enters = roads.motor === motor && road === position ? kind.enters(scheme, roads, road) : undefined;
          const isExit = roads[road].leaves.some((one) => one.motor === motor.index && one.position === position);
          const asked = [enters, isExit ? kind.leaves(scheme, roads, road) : undefined];
          const says = [`a train that comes is to take the ${road} road`, kind.sayLeaves(roads, road)];
          return asked.flatMap((expr, nth) =>
            expr ? [{ expr: and(isOn(roads), expr), says: says[nth]!, priority: AFTER_HAND }] : [],
          );
        }),
      ),
    proceed: (scheme, { reading }: NamedRoute) =>
      all(scheme).flatMap((roads) =>
        POSITIONS.filter((road) => roads[road].signals.includes(reading)).flatMap((road) => [
          { expr: or(not(isOn(roads)), kind.leaves(scheme, roads, road)), says: kind.sayLeaves(roads, road) },
          ...(kind.clearAhead ? aheadOf([reading]) : []).map((block) => {
            const ahead = scheme.partition.blocks[block]!;
            return { expr: not(name(names.occupied(ahead))), says: `${ahead.name}, the block ahead, is clear` };
          }),
        ]),
      ),
  };
}

/** Neither the switch nor a pulse takes a signal back that a train in rear of it may have seen clear: they wait, or are refused, until it has left. */
function writeInputs(scheme: Scheme, roads: TwoRoads, book: RuleBook): void {
  const { motor } = roads;
  const { id: about, name: called, index } = motor;
  const leaving = [roads.straight, roads.diverging].flatMap(({ signals }) =>
    signals.map(({ signal, rear }) =>
      and(previous(names.proceed(signal)), name(names.occupied(scheme.partition.blocks[rear]!))),
    ),
  );
  book.input(['points switched off', index, 'turns'], names.switchedOff(motor, 'turns'), 'bool', {
    about,
    yes: `Automatic working of ${called} is switched off`,
    no: `Automatic working of ${called} is on`,
  });
  book.input(['swap button', index, 'turns'], names.swap(motor), 'bool', {
    about,
    yes: `${called} is given a pulse by hand`,
    no: `Nobody gives ${called} a pulse`,
  });
  book.flag(['leaving', index], names.leaving(motor), 'bool', or(...leaving), {
    about,
    yes: `A train is cleared to leave a road of ${called}`,
    no: `No train is cleared to leave a road of ${called}`,
  });
  const off = name(names.switchedOff(motor, 'turns'));
  book.rule(names.off(motor), 'bool', or(off, and(previous(names.off(motor)), name(names.leaving(motor)))), {
    about,
    yes: `${called} does not work by itself`,
    no: `${called} works by itself`,
  });
}

/** A pulse by hand that counts. */
export const pulseAt = (motor: Motor): Expr => and(name(names.swap(motor)), not(name(names.leaving(motor))));

/** A train comes to the end of a road: to a spot there, or else into its last block. */
export const arrives = (scheme: Scheme, { marks, blocks }: Road): Expr[] =>
  marks.length > 0
    ? marks.map((mark) => rises(names.detect(mark)))
    : blocks.map((block) => rises(names.occupied(scheme.partition.blocks[block]!)));

/** A train has come into the block beyond a road. */
export const hasLeft = (scheme: Scheme, { signals }: Road): Expr[] =>
  aheadOf(signals).map((block) => rises(names.occupied(scheme.partition.blocks[block]!)));

/** Something stands in a road. */
export const isTaken = (scheme: Scheme, { blocks }: Road): Expr =>
  or(...blocks.map((block) => name(names.occupied(scheme.partition.blocks[block]!))));
