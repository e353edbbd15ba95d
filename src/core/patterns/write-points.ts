import { and, type Expr, name, not, or } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { isPositionAssumed } from './assumed-position';
import { byHand } from './by-hand';
import { combine, gather, lay } from './gather';
import * as names from './names';
import { isDriven } from './points-of';
import type { RuleBook } from './rule-book';
import type { Scheme } from './scheme';
import type { Request } from './slots';

/** A request is remembered, so that a turnout is driven to where it was last sent; it is refused while anything locks it, and while it is asked both ways. */
export function writePoints(scheme: Scheme, book: RuleBook): void {
  for (const motor of scheme.partition.graph.motors) {
    const { id: about, name: called, lies } = motor;
    const lie = isPositionAssumed(scheme, motor) ? names.contact(motor) : names.points(motor);
    book.input(['contact', motor.index], lie, 'position', { about, yes: `${called} lies {}`, no: '' });
    lay('motor', scheme, motor, book.declarations);
    const locks = gather('lock', scheme, motor, book.declarations);
    book.flag(['locked', motor.index], names.locked(motor), 'bool', combine('lock', locks), {
      about,
      yes: `${called} is locked`,
      no: `${called} may be thrown`,
    });
    const asked = (position: TurnoutPosition): Expr => {
      const forced = gather('forced', scheme, { motor, position });
      const lockable = and(requested(scheme, motor, position), not(name(names.locked(motor))));
      return forced.length === 0 ? lockable : or(lockable, combine('forced', forced));
    };
    book.output(
      ['drive', motor.index],
      names.drive(motor),
      'bool',
      { op: 'RS', set: asked('diverging'), reset: asked('straight'), starts: lies === 'diverging' },
      { about, yes: `${called} is driven to diverging`, no: `${called} is driven to straight` },
    );
  }
}

/** A motor is asked to lie so, and not with as high a priority to lie the other way in the same scan. Points that people throw follow nobody else. */
function requested(scheme: Scheme, motor: Motor, position: TurnoutPosition): Expr {
  const asks = isDriven(scheme, motor) ? undefined : ({ id }: { id: string }) => id === byHand.id;
  const opposite = position === 'straight' ? 'diverging' : 'straight';
  const [mine, theirs] = [position, opposite].map((to) =>
    gather('asked', scheme, { motor, position: to as TurnoutPosition }, [], asks),
  );
  const priorities = [...new Set(mine!.map(priorityOf))].sort((a, b) => b - a);
  return or(
    ...priorities.map((priority) => {
      const against = theirs!.filter((one) => priorityOf(one) >= priority);
      const so = combine(
        'asked',
        mine!.filter((one) => priorityOf(one) === priority),
      );
      return against.length === 0 ? so : and(so, not(combine('asked', against)));
    }),
  );
}
const priorityOf = ({ priority = 0 }: Request): number => priority;
