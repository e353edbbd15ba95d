import { name } from '../logic';
import * as names from './names';
import type { Pattern } from './pattern';

/** How long inputs may take to settle; common practice, no source. */
const SETTLE_MS = 200;

/** Nothing is cleared before the inputs have settled. */
export const powerUp: Pattern = {
  id: 'power-up',
  always: true,
  general(_scheme, _place, book) {
    book.rule(
      names.SETTLED,
      'bool',
      { op: 'TON', in: { op: 'true' }, ms: SETTLE_MS, starts: false },
      {
        about: 'power-up',
        yes: 'The inputs have settled since power-up',
        no: 'The inputs have not settled since power-up',
      },
    );
  },
  proceed: () => [{ expr: name(names.SETTLED), says: 'the inputs have settled since power-up' }],
};
