import { and, type Expr, is, name, not, or, value, when } from '../logic';
import type { SignalReading } from '../signals';
import { systemOf } from '../survey';
import { mostRestrictive } from './announced';
import { asksOf, besidesOf, combine, gather, lay } from './gather';
import * as names from './names';
import type { RuleBook } from './rule-book';
import type { NamedRoute, Scheme } from './scheme';

/** Whether signals, all or some, may let trains past, and by which aspect. */
export function writeSignals(
  scheme: Scheme,
  book: RuleBook,
  readings: readonly SignalReading[] = scheme.readings,
): void {
  for (const reading of readings) {
    const { signal } = reading;
    const about = signal.id;
    lay('signal', scheme, reading, book.declarations);
    const routes = scheme.routesOf[reading.index]!;
    for (const route of routes) writeRoute(scheme, route, book);
    book.flag(
      ['proceed', reading.index],
      names.proceed(signal),
      'bool',
      or(...routes.map((route) => name(names.go(route)))),
      {
        about,
        fact: 'when not',
        yes: `${signal.name} may show proceed`,
        no: `${signal.name} must show stop`,
      },
    );
    const stop = systemOf(scheme.document, signal.system).aspects[0];
    book.output(
      ['aspect', reading.index],
      names.shows(signal),
      'aspect',
      when(not(name(names.proceed(signal))), value(stop.id), proceedingAspect(scheme, reading, book)),
      { about, yes: `${signal.name} shows {}`, no: '' },
    );
  }
}

/** What a signal shows that lets trains past: on sight before the most restrictive, and that before what is announced. */
function proceedingAspect(scheme: Scheme, reading: SignalReading, book: RuleBook): Expr {
  const announced = combine('aspect', gather('aspect', scheme, reading, book.declarations));
  const expected = gather('expects', scheme, reading, book.declarations);
  return [false, true].reduce<Expr>((otherwise, sight) => {
    const asked = expected.filter(({ onSight = false }) => onSight === sight);
    if (asked.length === 0) return otherwise;
    return when(combine('expects', asked), mostRestrictive(scheme, reading, sight), otherwise);
  }, announced);
}

/** A route is cleared when all that patterns ask for is so; where one of several has to be chosen, when it is the first that may be. */
function writeRoute(scheme: Scheme, route: NamedRoute, book: RuleBook): void {
  const { reading, to } = route;
  const { signal } = reading;
  const about = signal.id;
  const { asks, alone } = asksOf(scheme, route, book.declarations);
  const contested = gather('grant', scheme, route);
  let granted = combine('proceed', asks);
  if (contested.length > 0) {
    const own = alone ? [] : contested;
    /** Rivals ask whether it may be granted, whoever decides it. */
    const may = combine('proceed', [...asks, ...own.filter(({ rival = false }) => !rival)]);
    book.rule(names.may(route), 'bool', may, {
      about,
      yes: `${signal.name} to ${to} may be granted`,
      no: `${signal.name} to ${to} may not be granted`,
    });
    const rivals = own.filter(({ rival = false }) => rival);
    granted = and(name(names.may(route)), ...rivals.map(({ expr }) => expr));
  }
  const besides = besidesOf(scheme, route);
  book.rule(names.go(route), 'bool', besides.length > 0 ? or(granted, ...besides.map(({ expr }) => expr)) : granted, {
    about,
    yes: `${signal.name} is cleared to ${to}`,
    no: `${signal.name} is not cleared to ${to}`,
  });
}

/** Signals whose lamps are not always lit. A train takes a dark one for its most restrictive aspect; common practice, no source. */
export function writeLighting(scheme: Scheme, book: RuleBook): void {
  for (const reading of scheme.readings) {
    const terms = gather('lighting', scheme, reading);
    if (terms.length === 0) continue;
    const { signal } = reading;
    const lit = when(combine('lighting', terms), value('lit'), value('dark'));
    book.output(['lighting', reading.index], names.lighting(signal), 'lighting', lit, {
      about: signal.id,
      yes: `The lamps of ${signal.name} are {}`,
      no: '',
    });
    const stop = systemOf(scheme.document, signal.system).aspects[0];
    const read = when(is(name(names.lighting(signal)), 'lit'), name(names.shows(signal)), value(stop.id));
    book.flag(['read', reading.index], names.reads(signal), 'aspect', read, {
      about: signal.id,
      yes: `${signal.name} is read as {}`,
      no: '',
    });
  }
}
