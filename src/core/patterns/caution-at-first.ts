import { type Block, type Inferred, isSaid } from '../detection';
import { and, name, not, or, previous } from '../logic';
import type { SignalReading } from '../signals';
import type { Sensor } from '../survey';
import { byScheme } from './by-scheme';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { AUTHORITY } from './posts';
import { type NamedRoute, pointsLie, type Scheme } from './scheme';

const spotsOf = (inferred: Inferred): readonly Sensor[] => {
  if ('pairs' in inferred) return inferred.pairs.flatMap(({ inner, outer }) => [inner, outer]);
  return [...inferred.setOff, ...('out' in inferred ? inferred.out.flatMap(({ next }) => next) : [])];
};

/** The blocks on a route, parted into those that spots, timers or people tell of, and the rest. */
function blocksOn({ partition }: Scheme, { route }: NamedRoute) {
  const all = route.blocks.map(({ block }) => partition.blocks[block]!);
  const isInferred = ({ index }: { index: number }) => partition.inferred.has(index);
  return { inferred: all.filter(isInferred), watched: all.filter((block) => !isInferred(block)) };
}

/** What is told of by spots, timers or people on any route of a signal of which somebody chose this. */
const inferredAhead = (scheme: Scheme, { signal, index }: SignalReading): Block[] =>
  isChosen(cautionAtFirst, signal)
    ? [...new Set(scheme.routesOf[index]!.flatMap((route) => blocksOn(scheme, route).inferred))]
    : [];

/**
 * Boards in a chain know nothing after power-up, and show caution rather than stop until the first train tells them something. Common practice, no
 * source. A train that stands there already is not known: it has to be caution on sight. Not for a route that has to hold a direction.
 */
export const cautionAtFirst: Pattern = {
  id: 'caution at first',
  chosen: {
    at: 'signal',
    says: 'Show caution, not stop, from power-up until something is known of a route ahead that no detector watches',
    makes: 'aspect',
    onSight: true,
  },
  signal(scheme, reading, book) {
    const { signal } = reading;
    const inferred = inferredAhead(scheme, reading);
    if (inferred.length === 0) return;
    const spots = inferred.flatMap(({ index }) => spotsOf(scheme.partition.inferred.get(index)!));
    const known = [
      ...inferred.map((block) => not(name(names.occupied(block)))),
      ...inferred.filter(({ index }) => isSaid(scheme.partition, index)).map((block) => name(names.taken(block))),
      ...[...new Set(spots)].map((spot) => name(names.detect(spot))),
    ];
    const says = (what: string) => `${what} has been told of the route ahead of ${signal.name} since power-up`;
    const why = { about: signal.id, yes: says('Something'), no: says('Nothing') };
    book.rule(names.heard(signal), 'bool', or(...known, previous(names.heard(signal))), why);
    book.rule(names.unheard(signal), 'bool', not(name(names.heard(signal))), { ...why, yes: why.no, no: why.yes });
  },
  besides(scheme, named) {
    const { signal } = named.reading;
    const applies = isChosen(cautionAtFirst, signal) && !signal.patterns!.includes(AUTHORITY);
    if (!applies || named.directions.length > 0) return [];
    const { inferred, watched } = blocksOn(scheme, named);
    if (inferred.length === 0) return [];
    const fouled = named.route.fouled.map((block) => scheme.partition.blocks[block]!);
    const seenFree = [...watched, ...fouled].map((block) => not(name(names.occupied(block))));
    const expr = and(...pointsLie(scheme, named.route), ...seenFree, name(names.SETTLED), name(names.unheard(signal)));
    return [{ expr, says: NOTHING_TOLD }];
  },
  expects: (scheme, reading) =>
    inferredAhead(scheme, reading).length > 0
      ? [{ expr: name(names.unheard(reading.signal)), says: NOTHING_TOLD, onSight: true }]
      : [],
};
const NOTHING_TOLD = 'nothing has been told of the route ahead since power-up';

/** Blocks of which nobody says anything at power-up: signals that lead into them show caution instead. */
export const unspokenAtFirst = byScheme(
  (scheme): ReadonlySet<number> =>
    new Set(scheme.readings.flatMap((reading) => inferredAhead(scheme, reading).map(({ index }) => index))),
);
