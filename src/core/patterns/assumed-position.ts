import { name, not, previous, value, when } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { pointsOf } from './points-of';
import type { Scheme } from './scheme';

/** After so many times what a motor usually takes its points count as lying where they were sent; common practice, no source. */
const LONGER = 1.5;

/**
 * Points of which no contact tells how they lie: they count as lying as they were driven once that has taken its time, and as between the two until
 * then. A motor that sticks is not noticed.
 */
export const assumedPosition: Pattern = {
  id: 'position assumed',
  chosen: {
    at: 'points',
    says: 'No contact tells how they lie: they count as lying where they were sent, once that has taken its time',
    makes: 'drive',
  },
  motor(scheme, motor, book) {
    if (!isPositionAssumed(scheme, motor)) return;
    const { id: about, name: called, throwMs } = motor;
    const driven = previous(names.drive(motor));
    for (const position of ['straight', 'diverging'] as const)
      book.flag(
        ['sent', motor.index, position],
        names.sent(motor, position),
        'bool',
        {
          op: 'TON',
          in: position === 'diverging' ? driven : not(driven),
          ms: Math.ceil(throwMs * LONGER),
          starts: motor.lies === position,
        },
        {
          about,
          yes: `${called} was sent to ${position} long enough ago`,
          no: `${called} was not sent to ${position}, or a moment ago`,
        },
      );
    const sent = (position: TurnoutPosition) => name(names.sent(motor, position));
    book.rule(
      names.points(motor),
      'position',
      when(sent('straight'), value('straight'), when(sent('diverging'), value('diverging'), value('between'))),
      { about, yes: `${called} counts as lying {}`, no: '' },
    );
  },
};

/** Whether nothing tells how the points of a motor lie. */
export const isPositionAssumed = (scheme: Scheme, motor: Motor): boolean =>
  isChosen(assumedPosition, pointsOf(scheme, motor));
