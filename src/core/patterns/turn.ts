import { and, type Expr, name, not, or, previous } from '../logic';
import type { TurnoutPosition } from '../survey';
import * as names from './names';
import type { RuleBook } from './rule-book';
import { pulseAt } from './two-road-pattern';
import type { TwoRoads } from './two-roads';

/** It is the turn of a road. */
export const isTurnOf = ({ motor }: TwoRoads, position: TurnoutPosition): Expr =>
  position === 'diverging' ? name(names.turn(motor)) : not(name(names.turn(motor)));

/** It was, before this scan. */
export const wasTurnOf = ({ motor }: TwoRoads, position: TurnoutPosition): Expr =>
  position === 'diverging' ? previous(names.turn(motor)) : not(previous(names.turn(motor)));

/** Whose turn it is, remembered; a pulse by hand gives it to the other. `to`: what makes it the turn of a road while automatic working is on. */
export function writeTurn(roads: TwoRoads, book: RuleBook, to: (position: TurnoutPosition) => Expr): void {
  const { motor } = roads;
  const { id: about, name: called, index } = motor;
  const turns = (position: TurnoutPosition, from: TurnoutPosition): Expr =>
    or(and(not(name(names.off(motor))), to(position)), and(pulseAt(motor), wasTurnOf(roads, from)));
  book.flag(
    ['turn', index],
    names.turn(motor),
    'bool',
    {
      op: 'RS',
      set: turns('diverging', 'straight'),
      reset: turns('straight', 'diverging'),
      starts: motor.lies === 'diverging',
    },
    {
      about,
      fact: 'always',
      yes: `It is the turn of the diverging road of ${called}`,
      no: `It is the turn of the straight road of ${called}`,
    },
  );
}
