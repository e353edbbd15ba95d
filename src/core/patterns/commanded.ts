import { type Expr, name, not } from '../logic';
import type { Signal } from '../survey';
import type { Motor } from '../track';
import { byScheme } from './by-scheme';
import { liesFor } from './flank-protection';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import type { NamedRoute, Scheme } from './scheme';

/** A signal whose routes trains set by themselves; people may set them, too. The pattern is in `trains-set-routes.ts`. */
export const BY_TRAINS = { id: 'trains set routes' } as Pattern;
/** One whose routes people set; the pattern is in `set-routes.ts`. */
export const BY_PEOPLE = { id: 'set routes' } as Pattern;

/** Whether a signal is cleared only for a route that was set. */
export const isCommanded = (signal: Signal): boolean => isChosen(BY_PEOPLE, signal) || isChosen(BY_TRAINS, signal);

/** Every route that is set before its signal is cleared for it, in order. */
export const commandedOf = byScheme((scheme): NamedRoute[] =>
  scheme.routesOf.flat().filter(({ reading, route }) => isCommanded(reading.signal) && route.blocks.length > 0),
);

/** Those that need a motor of points to lie so. */
export const commandedOver = (scheme: Scheme, { index }: Motor, position: string): NamedRoute[] =>
  commandedOf(scheme).filter((route) =>
    liesFor(scheme, route).some((over) => over.motor === index && over.position === position),
  );

/** Routes that cannot be set beside one: of the same signal, or that need its points otherwise, its track, or track that fouls it. */
export const rivalRoutes = (scheme: Scheme, route: NamedRoute): readonly NamedRoute[] =>
  rivals(scheme).get(route) ?? [];

const rivals = byScheme((scheme): ReadonlyMap<NamedRoute, readonly NamedRoute[]> => {
  const all = commandedOf(scheme);
  return new Map(all.map((route) => [route, all.filter((other) => other !== route && isRival(scheme, route, other))]));
});

function isRival(scheme: Scheme, one: NamedRoute, two: NamedRoute): boolean {
  if (one.reading === two.reading) return true;
  const lies = new Map(liesFor(scheme, one).map(({ motor, position }) => [motor, position]));
  if (liesFor(scheme, two).some(({ motor, position }) => (lies.get(motor) ?? position) !== position)) return true;
  const [mine, theirs] = [one, two].map(({ route }) => new Set(route.blocks.map(({ block }) => block)));
  return (
    [...mine!, ...one.route.fouled].some((block) => theirs!.has(block)) ||
    two.route.fouled.some((block) => mine!.has(block))
  );
}

/** All track of a route, and all that fouls it, is free. */
export const tracksFree = ({ partition }: Scheme, { route }: NamedRoute): Expr[] =>
  [...new Set([...route.blocks.map(({ block }) => block), ...route.fouled])].map((block) =>
    not(name(names.occupied(partition.blocks[block]!))),
  );
