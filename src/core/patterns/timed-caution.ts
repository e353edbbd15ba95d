import { name, or } from '../logic';
import * as names from './names';
import { isChosen, type Pattern, type PatternOption } from './pattern';
import { optionOf } from './setting-of';

const ID = 'timed caution';
/** From stop by caution to clear in steps of 7 to 14 s; common practice, no source. */
const STEP: PatternOption = {
  pattern: ID,
  option: 'stepMs',
  at: 'signal',
  says: 'Steps on after, in seconds',
  least: 1000,
  most: 60_000,
  usual: () => 10_000,
};

/** The timed block: behind a train a signal steps from stop to its most restrictive aspect that lets trains go, and by a timer on from that. */
export const timedCaution: Pattern = {
  id: ID,
  chosen: {
    at: 'signal',
    says: 'Show caution for a time after the route ahead has become free',
    makes: 'aspect',
  },
  options: [STEP],
  expects(scheme, reading, book) {
    const { signal, routes, index } = reading;
    if (!isChosen(timedCaution, signal) || routes.length === 0) return [];
    const ahead = scheme.routesOf[index]!.flatMap(({ route }) => route.blocks.slice(0, 1).map(({ block }) => block));
    const occupied = [...new Set(ahead)].map((block) => name(names.occupied(scheme.partition.blocks[block]!)));
    book.rule(
      names.stepping(signal),
      'bool',
      { op: 'TOF', in: or(...occupied), ms: optionOf(scheme, STEP, signal), starts: true },
      {
        about: signal.id,
        fact: 'when so',
        yes: `The route ahead of ${signal.name} has not been free for long`,
        no: `The route ahead of ${signal.name} has been free for long enough`,
      },
    );
    return [
      { expr: name(names.stepping(signal)), says: 'its timer has not stepped on since the route ahead became free' },
    ];
  },
};
