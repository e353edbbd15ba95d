import { and, type Expr, name, not, or, previous } from '../logic';
import type { SignalReading } from '../signals';
import { byScheme } from './by-scheme';
import { BY_TRAINS, commandedOf, rivalRoutes, tracksFree } from './commanded';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import type { NamedRoute, Scheme } from './scheme';
import { opposingOf, rearAgrees } from './traffic-direction';

/**
 * Free running, and whoever comes first at a junction: a train that stands in rear of the signal has the first of its routes set that is free,
 * and keeps it as if somebody had set it. Of signals whose routes conflict the one goes first before which a train has come first. While it is
 * switched off people set its routes. Common practice, no source.
 */
export const trainsSetRoutes: Pattern = {
  ...BY_TRAINS,
  chosen: {
    at: 'signal',
    says: 'A train that comes sets the first of its routes that is free, with its points; who came first goes first',
    makes: 'aspect',
  },
  off: 'its routes are set by hand, and no train is sent on without that',
  signal(scheme, reading, book) {
    const { signal, index } = reading;
    const own = automaticOf(scheme).filter((route) => route.reading === reading);
    if (own.length === 0) return;
    const about = signal.id;
    book.input(['switched off', index, 'routes'], names.switchedOff(signal, 'routes'), 'bool', {
      about,
      yes: `Automatic working of ${signal.name} is switched off`,
      no: `Automatic working of ${signal.name} is on`,
    });
    const rear = scheme.partition.blocks[reading.rear]!;
    book.rule(
      names.comes(signal),
      'bool',
      and(
        name(names.SETTLED),
        not(name(names.switchedOff(signal, 'routes'))),
        name(names.occupied(rear)),
        ...rearAgrees(scheme, reading),
      ),
      {
        about,
        yes: `A train that sets its route has come to ${signal.name}`,
        no: `No train that sets its route has come to ${signal.name}`,
      },
    );
    for (const route of own)
      book.rule(names.open(route), 'bool', isOpen(scheme, route), {
        about,
        yes: `${signal.name} to ${route.to} is free, and nothing is set that conflicts`,
        no: `${signal.name} to ${route.to} is not free, or something is set that conflicts`,
      });
    for (const other of rivalSignals(scheme, reading)) {
      if (other.index < index) continue;
      const [mine, theirs] = [name(names.comes(signal)), name(names.comes(other.signal))];
      book.rule(
        names.before(signal, other.signal),
        'bool',
        { op: 'RS', set: and(mine, not(theirs)), reset: not(mine), starts: false },
        {
          about,
          yes: `The train at ${signal.name} has come before any to ${other.signal.name}`,
          no: `No train at ${signal.name} has come before any to ${other.signal.name}`,
        },
      );
    }
  },
};

/** Routes that trains set, in order. */
const automaticOf = byScheme((scheme): NamedRoute[] =>
  commandedOf(scheme).filter(
    (route) => isChosen(BY_TRAINS, route.reading.signal) && (leadsOn(route) || !route.reading.routes.some(isOnward)),
  ),
);

/** It leads to a signal; where the track ends a train goes only if somebody sends it, or if it has no other way. */
const isOnward = ({ ending }: NamedRoute['route']): boolean => ending.kind === 'signal';
const leadsOn = ({ route }: NamedRoute): boolean => isOnward(route);

/** Its track is free, no other direction is held there, and no route of another signal is set that conflicts. */
const isOpen = (scheme: Scheme, route: NamedRoute): Expr =>
  and(
    ...tracksFree(scheme, route),
    ...route.directions.flatMap((direction) => opposingOf(scheme, direction)).map(({ expr }) => expr),
    ...rivalRoutes(scheme, route).map((rival) => not(previous(names.routeSet(rival)))),
  );

/** Signals of which trains set a route that conflicts with one of this. */
function rivalSignals(scheme: Scheme, reading: SignalReading): SignalReading[] {
  const automatic = new Set(automaticOf(scheme));
  const own = [...automatic].filter((route) => route.reading === reading);
  const found = own.flatMap((route) => rivalRoutes(scheme, route).filter((rival) => automatic.has(rival)));
  return [...new Set(found.map((rival) => rival.reading))].filter((one) => one !== reading);
}

/** A train has its route set: the first of its signal that is free, while none has come before it to where a route would conflict. Undefined where people set it. */
export function setByTrain(scheme: Scheme, route: NamedRoute): Expr | undefined {
  const automatic = automaticOf(scheme);
  if (!automatic.includes(route)) return undefined;
  const { reading } = route;
  const earlier = automatic.filter(
    (one) => one.reading === reading && automatic.indexOf(one) < automatic.indexOf(route),
  );
  const others = rivalRoutes(scheme, route).filter((one) => one.reading !== reading && automatic.includes(one));
  return and(
    name(names.comes(reading.signal)),
    name(names.open(route)),
    ...earlier.map((one) => not(name(names.open(one)))),
    ...others.map((one) =>
      or(not(and(name(names.comes(one.reading.signal)), name(names.open(one)))), cameBefore(reading, one.reading)),
    ),
  );
}

/** Of two signals, that a train has come to the one before any came to the other; one of the two has. */
const cameBefore = (one: SignalReading, two: SignalReading): Expr =>
  one.index < two.index ? name(names.before(one.signal, two.signal)) : not(name(names.before(two.signal, one.signal)));
