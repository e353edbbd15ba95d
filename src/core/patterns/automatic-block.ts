import { ASPECT_SYSTEMS, NOWHERE } from '../kinds';
import { and, type Expr, name, not, or, previous, value, when } from '../logic';
import { canBothBeSet, type SignalReading } from '../signals';
import { opposing, rearAgrees, trainOnWay } from './direction-memory';
import * as names from './names';
import { type NamedWay, pointsLie, RuleBook, type Scheme, wayIsFree } from './scheme';

/**
 * The automatic block. A signal shows stop unless one of its ways is set and free; else the aspect of its system that announces
 * the nearest stop ahead of that way, a signal at stop or the end of the track. Where a way leads into a stretch worked both ways, the
 * signal must also hold the direction: requests are ranked by the order in which signals were placed.
 */
export function automaticBlockRules(scheme: Scheme): RuleBook {
  const book = new RuleBook('automatic block');
  for (const reading of scheme.readings) {
    const { signal } = reading;
    const about = signal.id;
    book.input(names.hold(signal.name), 'bool', {
      about,
      yes: `${signal.name} is held at stop by hand`,
      no: `${signal.name} is not held by hand`,
    });
    if (approachIsKnown(scheme, reading)) approachRules(book, scheme, reading);
    for (const way of scheme.waysOf[reading.index]!) wayRules(book, scheme, way);
    const ways = scheme.waysOf[reading.index]!.map(({ to }) => name(names.go(signal.name, to)));
    book.rule(names.proceed(signal.name), 'bool', or(...ways), {
      about,
      fact: 'when not',
      yes: `${signal.name} may show proceed`,
      no: `${signal.name} must show stop`,
    });
    announceRules(book, scheme, reading);
    book.output(names.shows(signal.name), 'aspect', aspectOf(scheme, reading), {
      about,
      yes: `${signal.name} shows {}`,
      no: '',
    });
  }
  return book;
}

/**
 * Who asks: a train that has only this signal before it, and one that has been cleared up to this signal by the one
 * before, so that it may run on without braking. No train asks further ahead than that.
 */
function approachRules(book: RuleBook, scheme: Scheme, reading: SignalReading): void {
  const { signal } = reading;
  const about = signal.id;
  const leading = scheme.waysTo[reading.index]!;
  const rear = scheme.partition.blocks[reading.rear]!.name;
  const onItsWay = leading.flatMap(({ way }) => {
    const before = trainOnWay(scheme, way, reading.rear);
    return before.length > 0 ? [and(...pointsLie(scheme, way), or(...before))] : [];
  });
  book.rule(
    names.near(signal.name),
    'bool',
    or(and(name(names.occupied(rear)), ...rearAgrees(scheme, reading)), ...onItsWay),
    {
      about,
      yes: `A train has ${signal.name} next before it`,
      no: `No train has ${signal.name} next before it`,
    },
  );
  const clearedHere = leading.map(({ reading: from, to }) => {
    const asking = approachIsKnown(scheme, from)
      ? names.near(from.signal.name)
      : names.occupied(scheme.partition.blocks[from.rear]!.name);
    return and(name(asking), previous(names.go(from.signal.name, to)));
  });
  book.rule(names.wants(signal.name), 'bool', or(name(names.near(signal.name)), ...clearedHere), {
    about,
    fact: 'always',
    yes: `A train asks for ${signal.name}`,
    no: `No train asks for ${signal.name}`,
  });
}

const approachIsKnown = (scheme: Scheme, reading: SignalReading) =>
  scheme.waysOf[reading.index]!.some((way) => way.directions.length > 0);

function wayRules(book: RuleBook, scheme: Scheme, named: NamedWay): void {
  const { reading, way, to, directions } = named;
  const { signal } = reading;
  const about = signal.id;
  book.rule(names.free(signal.name, to), 'bool', wayIsFree(scheme, way), {
    about,
    fact: 'when so',
    yes: `The way from ${signal.name} to ${to} is set and free`,
    no:
      way.blocks.length === 0
        ? `There is no track beyond ${signal.name}`
        : `The way from ${signal.name} to ${to} is not set, or not free`,
  });
  const ready = [name(names.free(signal.name, to)), not(name(names.hold(signal.name))), name(names.SETTLED)];
  const granted: Expr[] = [];
  if (directions.length > 0) {
    book.rule(
      names.may(signal.name, to),
      'bool',
      and(...ready, name(names.wants(signal.name)), ...directions.flatMap(opposing)),
      {
        about,
        yes: `${signal.name} to ${to} may be granted`,
        no: `${signal.name} to ${to} may not be granted`,
      },
    );
    granted.push(name(names.may(signal.name, to)), ...rivalsBefore(scheme, named).map((rival) => not(name(rival))));
  } else granted.push(...ready);
  book.rule(names.go(signal.name, to), 'bool', and(...granted), {
    about,
    yes: `${signal.name} is cleared to ${to}`,
    no: `${signal.name} is not cleared to ${to}`,
  });
}

/** Requests of signals placed earlier that would enter the same stretch from another side while this way is set. */
function rivalsBefore(scheme: Scheme, mine: NamedWay): string[] {
  const rivals = new Set<string>();
  for (const { stretch, side } of mine.directions) {
    for (const theirs of scheme.waysInto[stretch.index]!) {
      if (theirs.reading.index >= mine.reading.index || !canBothBeSet(mine.way, theirs.way)) continue;
      const other = theirs.directions.find((d) => d.stretch === stretch)!;
      if (other.side !== side) rivals.add(names.may(theirs.reading.signal.name, theirs.to));
    }
  }
  return [...rivals];
}

/** A train that is let past must stop before a signal so many on from here, or before the end of the track. */
function mustStopIn(scheme: Scheme, { signal, index }: SignalReading, signals: number): Expr[] {
  return scheme.waysOf[index]!.flatMap(({ way: { ending }, to }) => {
    const cleared = name(names.go(signal.name, to));
    if (ending.kind === 'end of track') return signals === 1 ? [cleared] : [];
    if (ending.kind !== 'signal') return [];
    const next = scheme.readings[ending.signal]!.signal.name;
    return [and(cleared, signals === 1 ? not(name(names.proceed(next))) : name(names.stopsIn(next, signals - 1)))];
  });
}

/** What later signals must know of a signal, beside whether it lets trains past, so that they can announce it from afar. */
function announceRules(book: RuleBook, scheme: Scheme, reading: SignalReading): void {
  const { signal } = reading;
  const farthest = Math.max(0, ...scheme.aspects.map(({ stopsIn }) => (stopsIn === NOWHERE ? 0 : stopsIn)));
  for (let signals = 1; signals < farthest; signals++)
    book.rule(names.stopsIn(signal.name, signals), 'bool', or(...mustStopIn(scheme, reading, signals)), {
      about: signal.id,
      yes: `A train let past ${signal.name} must stop ${signals === 1 ? 'at the next signal' : `${signals} signals on`}`,
      no: `A train let past ${signal.name} need not stop ${signals === 1 ? 'at the next signal' : `${signals} signals on`}`,
    });
}

/** The first aspect of its system, the one for stop, unless it may proceed; else the one that announces the nearest stop. */
function aspectOf(scheme: Scheme, reading: SignalReading): Expr {
  const { signal } = reading;
  const [stop, ...proceeding] = ASPECT_SYSTEMS[signal.system].aspects;
  const announced = proceeding.slice(0, -1).reduceRight(
    (otherwise, { id, stopsIn }) => {
      const stops = mustStopIn(scheme, reading, stopsIn);
      return stops.length > 0 ? when(or(...stops), value(id), otherwise) : otherwise;
    },
    value(proceeding.at(-1)!.id),
  );
  return when(not(name(names.proceed(signal.name))), value(stop.id), announced);
}
