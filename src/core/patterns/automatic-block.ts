import { NOWHERE } from '../kinds';
import { and, type Expr, name, not, or } from '../logic';
import type { Route, SignalReading } from '../signals';
import { announcedAspects, mustStopIn } from './announced';
import * as names from './names';
import type { Pattern } from './pattern';
import type { RuleBook } from './rule-book';
import { pointsLie, type Scheme } from './scheme';

/**
 * The automatic block. A signal shows stop unless one of its routes is set and free; else the aspect of its system that announces
 * the nearest stop ahead on that route, a signal at stop or the end of the track.
 */
export const automaticBlock: Pattern = {
  id: 'automatic block',
  proceed(scheme, named, book) {
    const { reading, route, to } = named;
    const { signal } = reading;
    book.rule(names.free(named), 'bool', routeIsFree(scheme, route), {
      about: signal.id,
      fact: 'when so',
      yes: `The route from ${signal.name} to ${to} is set and free`,
      no:
        route.blocks.length === 0
          ? `There is no track beyond ${signal.name}`
          : `The route from ${signal.name} to ${to} is not set, or not free`,
    });
    const says = 'the points are set for the route, and all of it and what fouls it is free';
    return [{ expr: name(names.free(named)), says }];
  },
  /** The least restrictive of its system that nothing forbids. */
  aspect(scheme, reading, book) {
    announceRules(book, scheme, reading);
    return announcedAspects(scheme, reading);
  },
};

/** The route is set and free: every turnout lies for it, every block on it and every block that fouls it reads free. */
function routeIsFree(scheme: Scheme, route: Route): Expr {
  if (route.ending.kind === 'circle' || route.blocks.length === 0) return { op: 'false' };
  const { partition } = scheme;
  const clear = [...route.blocks.map((b) => b.block), ...route.fouled].map((block) =>
    not(name(names.occupied(partition.blocks[block]!))),
  );
  return and(...pointsLie(scheme, route), ...clear);
}

/** What later signals must know of a signal, beside whether it lets trains past, so that they can announce it from afar. */
function announceRules(book: RuleBook, scheme: Scheme, reading: SignalReading): void {
  const { signal } = reading;
  const farthest = Math.max(0, ...scheme.aspects.map(({ stopsIn }) => (stopsIn === NOWHERE ? 0 : stopsIn)));
  for (let signals = 1; signals < farthest; signals++)
    book.rule(names.stopsIn(signal, signals), 'bool', or(...mustStopIn(scheme, reading, signals)), {
      about: signal.id,
      yes: `A train let past ${signal.name} must stop ${signals === 1 ? 'at the next signal' : `${signals} signals on`}`,
      no: `A train let past ${signal.name} need not stop ${signals === 1 ? 'at the next signal' : `${signals} signals on`}`,
    });
}
