import { type Aspect, type AspectSystem, promisesFree } from '../kinds';
import { and, type Expr, name, not, or, value, when } from '../logic';
import type { SignalReading } from '../signals';
import { systemOf } from '../survey';
import * as names from './names';
import type { Scheme } from './scheme';
import type { Shown } from './slots';

/** Conditions of which any one forbids an aspect, each under a name by which it is the same wherever it forbids. */
type Forbidding = ReadonlyMap<string, Expr>;

/**
 * What decides between the aspects of a system, the more restrictive first: each is shown when all that are less restrictive are
 * forbidden. An aspect is forbidden where a stop is nearer than it says; where it belongs to routes that lead aside and none such
 * is cleared, or the other way round; and where the next signal wants to be passed more slowly and it does not say so.
 */
export function announcedAspects(scheme: Scheme, reading: SignalReading): Shown[] {
  const system = systemOf(scheme.document, reading.signal.system);
  const proceeding = proceedingOf(system);
  const forbidden = proceeding.map((aspect) => forbidding(scheme, reading, system, aspect));
  const terms = proceeding.slice(0, -1).flatMap((aspect, i): Shown[] => {
    const when = allOf(forbidden.slice(i + 1));
    return when ? [{ shows: aspect.id, when }] : [];
  });
  return [...terms, { shows: proceeding.at(-1)!.id }];
}

/** The aspects that let trains go, without those on sight: only somebody who allows that shows them. Of a system that has no others, all. */
function proceedingOf({ aspects }: AspectSystem): Aspect[] {
  const sure = aspects.filter(promisesFree);
  return sure.length > 0 ? sure : aspects.slice(1);
}

/** The most restrictive aspect with which a signal lets trains take the route that is cleared; one on sight, where that is asked for and there is any. */
export function mostRestrictive(scheme: Scheme, reading: SignalReading, onSight = false): Expr {
  const system = systemOf(scheme.document, reading.signal.system);
  const sight = system.aspects.find((aspect) => aspect.onSight);
  if (onSight && sight) return value(sight.id);
  const proceeding = proceedingOf(system);
  const aside = proceeding.find(({ leads }) => leads === 'aside');
  const straight = proceeding.find(({ leads }) => leads !== 'aside') ?? aside!;
  const routes = scheme.routesOf[reading.index]!.filter(({ route }) => route.aside).map((route) =>
    name(names.go(route)),
  );
  return aside && routes.length > 0 ? when(or(...routes), value(aside.id), value(straight.id)) : value(straight.id);
}

/** Each of several is forbidden; undefined where one never is. Of sets that lie in one another the smallest says it all. */
function allOf(sets: readonly Forbidding[]): Expr | undefined {
  if (sets.some(({ size }) => size === 0)) return undefined;
  const least = sets.reduce((a, b) => (b.size < a.size ? b : a));
  const rest = sets.filter((set) => ![...least.keys()].every((key) => set.has(key)));
  return and(
    or(...least.values()),
    ...new Map(rest.map((set) => [[...set.keys()].join(), or(...set.values())])).values(),
  );
}

function forbidding(scheme: Scheme, reading: SignalReading, system: AspectSystem, aspect: Aspect): Forbidding {
  const found = new Map<string, Expr>();
  const put = (key: string, exprs: Expr[]) => {
    if (exprs.length > 0) found.set(key, or(...exprs));
  };
  const farthest = Math.max(0, ...system.aspects.map(({ stopsIn }) => (Number.isFinite(stopsIn) ? stopsIn : 0)));
  for (let signals = 1; signals < aspect.stopsIn && signals <= farthest; signals++)
    put(`stop ${signals}`, mustStopIn(scheme, reading, signals));
  const own = scheme.routesOf[reading.index]!;
  if (aspect.leads) {
    const others = own.filter(({ route }) => route.aside !== (aspect.leads === 'aside'));
    put(
      `leads ${aspect.leads}`,
      others.map((route) => name(names.go(route))),
    );
  }
  const announces = system.aspects.some(({ speedAtNext }) => speedAtNext);
  if (announces && !aspect.speedAtNext && aspect.stopsIn !== 1) put('slow at the next', slowAtNext(scheme, reading));
  if (aspect.speedAtNext) put('not slow at the next', [not(or(...slowAtNext(scheme, reading)))]);
  return found;
}

/** The route leads to a signal that is cleared for a route of its own with a limit of speed. */
function slowAtNext(scheme: Scheme, { index }: SignalReading): Expr[] {
  return scheme.routesOf[index]!.flatMap((named) => {
    const { ending } = named.route;
    if (ending.kind !== 'signal') return [];
    const next = scheme.readings[ending.signal]!;
    const limits = systemOf(scheme.document, next.signal.system).aspects.some(
      ({ speed, leads }) => speed && leads === 'aside',
    );
    const aside = limits ? scheme.routesOf[ending.signal]!.filter(({ route }) => route.aside) : [];
    return aside.length > 0 ? [and(name(names.go(named)), or(...aside.map((route) => name(names.go(route)))))] : [];
  });
}

/**
 * A train that is let past must stop before a signal so many on from here, or before the end of the track. Coming round to the same signal
 * it must, whatever that will show by then: the train itself is in the way of it.
 */
export function mustStopIn(scheme: Scheme, { index }: SignalReading, signals: number): Expr[] {
  return scheme.routesOf[index]!.flatMap((named) => {
    const { ending } = named.route;
    const cleared = name(names.go(named));
    if (ending.kind === 'end of track') return signals === 1 ? [cleared] : [];
    if (ending.kind !== 'signal') return [];
    if (ending.signal === index) return signals === 1 ? [cleared] : [];
    const next = scheme.readings[ending.signal]!.signal;
    return [and(cleared, signals === 1 ? not(name(names.proceed(next))) : name(names.stopsIn(next, signals - 1)))];
  });
}
