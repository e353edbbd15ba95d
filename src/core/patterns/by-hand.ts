import { name, not } from '../logic';
import { groupOf } from './groups';
import * as names from './names';
import type { Pattern } from './pattern';

/** People throw turnouts, all that throw together at once, and hold signals at stop. */
export const byHand: Pattern = {
  id: 'by hand',
  always: true,
  motor(_, motor, book) {
    const { id: about, name: called } = motor;
    for (const position of ['straight', 'diverging'] as const)
      book.input(['request', motor.index, position], names.ask(motor, position), 'bool', {
        about,
        yes: `${called} is asked to lie ${position}`,
        no: `${called} is not asked to lie ${position}`,
      });
  },
  asked: (scheme, { motor, position }) =>
    groupOf(scheme, motor).map((one) => ({
      expr: name(names.ask(one, position)),
      says: `somebody asks for ${one.name} to lie ${position}`,
    })),
  signal(_, { signal, index }, book) {
    book.input(['hold', index], names.hold(signal), 'bool', {
      about: signal.id,
      yes: `${signal.name} is held at stop by hand`,
      no: `${signal.name} is not held by hand`,
    });
  },
  proceed: (_, { reading: { signal } }) => [
    { expr: not(name(names.hold(signal))), says: 'nobody holds it at stop by hand' },
  ],
};
