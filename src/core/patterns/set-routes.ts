import { and, type Expr, is, name, not, or, previous } from '../logic';
import type { SignalReading } from '../signals';
import { BY_PEOPLE, commandedOf, commandedOver, isCommanded, rivalRoutes } from './commanded';
import { groupOf } from './groups';
import * as names from './names';
import type { Pattern } from './pattern';
import type { NamedRoute, Scheme } from './scheme';
import { setByTrain } from './trains-set-routes';

/** A route that somebody has set goes before whoever throws points one by one. */
const BEFORE_HAND = 1;

/**
 * Routes by entry and exit: a person sets a route of the signal, its points are thrown and stay locked so, and only then the signal is cleared for
 * it. It is set until a train has come into its first block, or until it is cancelled. Of routes that conflict one is set at a time; what is
 * asked for while another is set is refused.
 */
export const setRoutes: Pattern = {
  ...BY_PEOPLE,
  chosen: {
    at: 'signal',
    says: 'Cleared only for a route that somebody sets, by entry and exit; its points are thrown for it',
    makes: 'aspect',
  },
  signal(scheme, reading, book) {
    const routes = commandedOf(scheme).filter((route) => route.reading === reading);
    if (routes.length === 0) return;
    const { signal, index } = reading;
    const about = signal.id;
    book.input(['cancel button', index], names.cancel(signal), 'bool', {
      about,
      yes: `Somebody cancels what is set from ${signal.name}`,
      no: `Nobody cancels what is set from ${signal.name}`,
    });
    for (const route of routes) {
      const to = `${signal.name} to ${route.to}`;
      book.input(['route button', index, route.id], names.routeButton(route), 'bool', {
        about,
        yes: `Somebody presses ${to}`,
        no: `Nobody presses ${to}`,
      });
      book.flag(['route set', index, route.id], names.routeSet(route), 'bool', setRule(scheme, route), {
        about,
        fact: 'always',
        yes: `${to} is set`,
        no: `${to} is not set`,
      });
    }
  },
  proceed(scheme, route) {
    if (!isCommanded(route.reading.signal)) return [];
    const expr: Expr = commandedOf(scheme).includes(route) ? name(names.routeSet(route)) : { op: 'false' };
    return [{ expr, says: 'this route is set' }];
  },
  asked: (scheme, { motor, position }) =>
    groupOf(scheme, motor)
      .flatMap((one) => commandedOver(scheme, one, position))
      .map((route) => ({
        expr: and(name(names.routeSet(route)), not(is(name(names.points(motor)), position))),
        says: `${route.reading.signal.name} to ${route.to} is set`,
        priority: BEFORE_HAND,
      })),
  lock: (scheme, motor) =>
    (['straight', 'diverging'] as const).flatMap((position) =>
      commandedOver(scheme, motor, position).map((route) => ({
        expr: and(
          name(names.routeSet(route)),
          ...groupOf(scheme, motor).map((one) => is(name(names.points(one)), position)),
        ),
        says: `${route.reading.signal.name} to ${route.to} is set over it`,
      })),
    ),
};

function setRule(scheme: Scheme, route: NamedRoute): Expr {
  const all = commandedOf(scheme);
  const rivals = rivalRoutes(scheme, route);
  /** Of several asked for at once the first goes first, and what is pressed before what a train asks for. */
  const first = rivals.filter((rival) => all.indexOf(rival) < all.indexOf(route));
  const pressed = and(name(names.routeButton(route)), ...first.map((rival) => not(name(names.routeButton(rival)))));
  const byTrain = setByTrain(scheme, route);
  const nobodyPresses = [route, ...rivals].map((one) => not(name(names.routeButton(one))));
  return {
    op: 'RS',
    set: and(
      byTrain ? or(pressed, and(byTrain, ...nobodyPresses)) : pressed,
      ...rivals.map((rival) => not(previous(names.routeSet(rival)))),
    ),
    reset: or(name(names.cancel(route.reading.signal)), ...cameIn(scheme, route)),
    starts: false,
  };
}

/** A train has come into the first block of a route. */
function cameIn(
  { partition }: Scheme,
  { route, reading }: { route: NamedRoute['route']; reading: SignalReading },
): Expr[] {
  const first = route.blocks.find(({ block }) => block !== reading.rear);
  if (!first) return [];
  return [{ op: 'R_TRIG', in: name(names.occupied(partition.blocks[first.block]!)), starts: true }];
}
