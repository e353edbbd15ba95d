import { sensorKind } from '../kinds';
import { name } from '../logic';
import * as names from './names';
import type { Pattern } from './pattern';
import type { Scheme } from './scheme';

/** How long inputs may take to settle; common practice, no source. */
const SETTLE_MS = 200;

/** Every detector of a section begins as if it had just noticed something: until its hold time is over nobody knows what it says. */
function settleMs({ document }: Scheme): number {
  const holds = document.sensors.flatMap(({ kind, holdMs }) =>
    sensorKind(kind).reachMm === 'section' ? [holdMs] : [],
  );
  return SETTLE_MS + Math.max(0, ...holds);
}

/**
 * Nothing is cleared before the inputs have settled, hold times included. A block would else read occupied that nobody is in, and a signal
 * be cleared for nobody, or be kept at stop, by what was never noticed.
 */
export const powerUp: Pattern = {
  id: 'power-up',
  always: true,
  general(scheme, _place, book) {
    book.rule(
      names.SETTLED,
      'bool',
      { op: 'TON', in: { op: 'true' }, ms: settleMs(scheme), starts: false },
      {
        about: 'power-up',
        yes: 'The inputs have settled since power-up',
        no: 'The inputs have not settled since power-up',
      },
    );
  },
  proceed: () => [{ expr: name(names.SETTLED), says: 'the inputs have settled since power-up' }],
};
