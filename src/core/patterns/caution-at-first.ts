import type { Told } from '../detection';
import { and, name, not, or } from '../logic';
import type { Sensor } from '../survey';
import { byScheme } from './by-scheme';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { AUTHORITY } from './posts';
import { type NamedWay, pointsLie, type Scheme } from './scheme';

const spotsOf = (told: Told): readonly Sensor[] => {
  if ('pairs' in told) return told.pairs.flatMap(({ inner, outer }) => [inner, outer]);
  return [...told.setOff, ...('out' in told ? told.out.flatMap(({ next }) => next) : [])];
};

/** The blocks on a way, parted into those that spots, timers or people tell of, and the rest. */
function blocksOn({ partition }: Scheme, { way }: NamedWay) {
  const all = way.blocks.map(({ block }) => partition.blocks[block]!);
  const isTold = ({ index }: { index: number }) => partition.told.has(index);
  return { told: all.filter(isTold), watched: all.filter((block) => !isTold(block)) };
}

/**
 * Boards in a chain know nothing after power-up, and show caution rather than stop until the first train tells them something. Common practice, no
 * source. A train that stands there already is not known: it has to be caution on sight. Not for a way that has to hold a direction.
 */
export const cautionAtFirst: Pattern = {
  id: 'caution at first',
  chosen: {
    at: 'signal',
    says: 'Show caution, not stop, from power-up until something is known of a way ahead that nothing watches',
    makes: 'aspect',
    onSight: true,
  },
  signal(scheme, reading, book) {
    const { signal } = reading;
    if (!isChosen(cautionAtFirst, signal)) return;
    const told = [...new Set(scheme.waysOf[reading.index]!.flatMap((way) => blocksOn(scheme, way).told))];
    const spots = told.flatMap(({ index }) => spotsOf(scheme.partition.told.get(index)!));
    const known = [
      ...told.flatMap((block) => [not(name(names.occupied(block))), name(names.taken(block))]),
      ...[...new Set(spots)].map((spot) => name(names.detect(spot))),
    ];
    book.rule(
      names.unheard(signal),
      'bool',
      { op: 'RS', set: { op: 'false' }, reset: or(...known), starts: told.length > 0 },
      {
        about: signal.id,
        yes: `Nothing has been told of the way ahead of ${signal.name} since power-up`,
        no: `Something has been told of the way ahead of ${signal.name} since power-up`,
      },
    );
  },
  besides(scheme, named) {
    const { signal } = named.reading;
    const { told, watched } = blocksOn(scheme, named);
    const applies = isChosen(cautionAtFirst, signal) && !signal.patterns!.includes(AUTHORITY);
    if (!applies || told.length === 0 || named.directions.length > 0) return [];
    const fouled = named.way.fouled.map((block) => scheme.partition.blocks[block]!);
    const seenFree = [...watched, ...fouled].map((block) => not(name(names.occupied(block))));
    return [
      {
        expr: and(...pointsLie(scheme, named.way), ...seenFree, name(names.SETTLED), name(names.unheard(signal))),
        says: 'nothing has been told of the way ahead since power-up',
      },
    ];
  },
  expects: (_scheme, { signal }) =>
    isChosen(cautionAtFirst, signal)
      ? [
          {
            expr: name(names.unheard(signal)),
            says: 'nothing has been told of the way ahead since power-up',
            onSight: true,
          },
        ]
      : [],
};

/** Blocks of which nobody says anything at power-up: signals that lead into them show caution instead. */
export const unspokenAtFirst = byScheme(
  (scheme): ReadonlySet<number> =>
    new Set(
      scheme.readings
        .filter(({ signal }) => isChosen(cautionAtFirst, signal))
        .flatMap(({ index }) => scheme.waysOf[index]!.flatMap((way) => blocksOn(scheme, way).told))
        .map(({ index }) => index),
    ),
);
