import { and, type Expr, name, not, or, previous } from '../logic';
import { canBothBeSet, type Route, type SignalReading, saySide } from '../signals';
import * as names from './names';
import type { Pattern, PatternOption } from './pattern';
import type { RuleBook } from './rule-book';
import { type Direction, type NamedRoute, pointsLie, type Scheme } from './scheme';
import { optionOf } from './setting-of';
import type { Contested, Term } from './slots';

const ID = 'traffic direction';
const RELEASE: PatternOption = {
  pattern: ID,
  option: 'releaseMs',
  at: 'signal',
  says: 'Holds its single-line section after its route was put back for, in seconds',
  does: ({ readings, routesOf }, id) =>
    readings.some(
      ({ signal, index }) => signal.id === id && routesOf[index]!.some(({ directions }) => directions.length > 0),
    ),
  least: 0,
  most: 600_000,
  usual: ({ releaseMs }) => releaseMs,
};

/** No other side holds the traffic section. Reads the last scan's memory, so that a grant and its memory do not wait for each other. */
export function opposingOf({ trafficSections }: Scheme, direction: Direction): Term[] {
  return direction.trafficSection.sides
    .filter((side) => side !== direction.side)
    .map((side) => ({
      expr: not(previous(names.held(direction.trafficSection, side))),
      says: `${direction.trafficSection.name} is not held for trains ${saySide(trafficSections, side)}`,
    }));
}

/** A train in rear asks unless the direction held there is away from the signal; where nobody knows, it may ask. */
export function rearAgrees(scheme: Scheme, reading: SignalReading): Expr[] {
  const { trafficSections } = scheme;
  const trafficSection = trafficSections.all[trafficSections.ofBlock[reading.rear]!]!;
  if (!trafficSection.bothWays) return [];
  const out = trafficSections.sideCameInBy(reading.piece, reading.exit === 1 ? 0 : 1);
  const away = trafficSection.sides
    .filter((side) => side === out)
    .map((side) => not(previous(names.held(trafficSection, side))));
  const towards = trafficSection.sides
    .filter((side) => side !== out)
    .map((side) => previous(names.held(trafficSection, side)));
  return away.length === 0 ? [] : [or(...away, ...towards)];
}

/** A train is on the route, in a block before its last: one line a block, with the direction held there where there is one. */
function trainOnWay(scheme: Scheme, route: Route, rear: number): Expr[] {
  const { trafficSections, partition } = scheme;
  const sideOf = ({ block, piece, enters }: Route['blocks'][number]) => trafficSections.sideOf(block, piece, enters);
  return route.blocks
    .filter((step) => step.block !== rear)
    .map((step) => {
      const trafficSection = trafficSections.all[trafficSections.ofBlock[step.block]!]!;
      const here = name(names.occupied(partition.blocks[step.block]!));
      if (!trafficSection.bothWays) return here;
      /** One that comes round into a section once more holds it as it first came in. */
      const first = route.blocks.find(({ block }) => trafficSections.ofBlock[block] === trafficSection.index)!;
      const side = [step, first].map(sideOf).find((one) => trafficSection.sides.includes(one));
      return side === undefined ? here : and(here, previous(names.held(trafficSection, side)));
    });
}

/**
 * The memory of direction of each traffic section worked both ways: one latch a side, all held at power-up. A side is taken by a
 * grant or by a person's word, and given up when the section and the route to it have been empty for the release time. A route into such a
 * section is granted to one side at a time: requests are ranked by the order in which signals were placed.
 */
export const trafficDirection: Pattern = {
  id: ID,
  options: [RELEASE],
  signal(scheme, reading, book) {
    if (approachIsKnown(scheme, reading)) approachRules(book, scheme, reading);
  },
  grant(scheme, route) {
    if (route.directions.length === 0) return [];
    const wants = names.wants(route.reading.signal);
    return [
      { expr: name(wants), says: 'a train asks for it' },
      ...route.directions.flatMap((direction) => opposingOf(scheme, direction)),
      ...rivalsBefore(scheme, route),
    ];
  },
  memory(scheme, trafficSection, book) {
    if (!trafficSection.bothWays) return;
    const { partition, trafficSections } = scheme;
    const grants = new Map(
      trafficSection.sides.map((side) => [
        side,
        { go: [] as Expr[], before: new Set<number>(), entering: [] as number[] },
      ]),
    );
    for (const route of scheme.routesInto[trafficSection.index]!) {
      const direction = route.directions.find((d) => d.trafficSection === trafficSection)!;
      const entry = grants.get(direction.side)!;
      entry.go.push(name(names.go(route)));
      entry.entering.push(optionOf(scheme, RELEASE, route.reading.signal));
      for (const block of direction.before) entry.before.add(block);
    }
    const about = partition.blocks[trafficSection.blocks[0]!]!.id;
    for (const side of trafficSection.sides) {
      const { go, before, entering } = grants.get(side)!;
      const held = names.held(trafficSection, side);
      const empty = [...trafficSection.blocks, ...before].map((block) =>
        not(name(names.occupied(partition.blocks[block]!))),
      );
      book.input(['direction', trafficSection.index, side], names.tell(trafficSection, side), 'bool', {
        about,
        yes: `A person says that the train in ${trafficSection.name} came in ${saySide(trafficSections, side)}`,
        no: `Nobody has said how a train came into ${trafficSection.name}`,
      });
      book.rule(
        names.quiet(trafficSection, side),
        'bool',
        {
          op: 'TON',
          in: and(name('settled'), previous(held), ...empty, ...go.map(not)),
          ms: entering.length > 0 ? Math.max(...entering) : scheme.releaseMs,
          starts: false,
        },
        {
          about,
          yes: `${trafficSection.name}, held for trains ${saySide(trafficSections, side)}, and the way to it have been empty long enough`,
          no: `${trafficSection.name} is not held for trains ${saySide(trafficSections, side)}, or it or the way to it is in use, or was a moment ago`,
        },
      );
      const others = trafficSection.sides.filter((s) => s !== side).map((s) => name(names.tell(trafficSection, s)));
      book.rule(
        held,
        'bool',
        {
          op: 'RS',
          set: or(...go, name(names.tell(trafficSection, side))),
          reset: or(name(names.quiet(trafficSection, side)), ...others),
          starts: true,
        },
        {
          about,
          yes: `${trafficSection.name} is held for trains ${saySide(trafficSections, side)}`,
          no: `${trafficSection.name} is not held for trains ${saySide(trafficSections, side)}`,
        },
      );
    }
  },
};

/**
 * Who asks: a train that has only this signal before it, and one that has been cleared up to this signal by the one
 * before, so that it may run on without braking. No train asks further ahead than that.
 */
function approachRules(book: RuleBook, scheme: Scheme, reading: SignalReading): void {
  const { signal } = reading;
  const about = signal.id;
  const leading = scheme.routesTo[reading.index]!;
  const rear = scheme.partition.blocks[reading.rear]!;
  const onItsWay = leading.flatMap(({ route }) => {
    const before = trainOnWay(scheme, route, reading.rear);
    return before.length > 0 ? [and(...pointsLie(scheme, route), or(...before))] : [];
  });
  book.rule(
    names.near(signal),
    'bool',
    or(and(name(names.occupied(rear)), ...rearAgrees(scheme, reading)), ...onItsWay),
    {
      about,
      yes: `A train has ${signal.name} next before it`,
      no: `No train has ${signal.name} next before it`,
    },
  );
  const clearedHere = leading.map((route) => {
    const from = route.reading;
    const asking = approachIsKnown(scheme, from)
      ? names.near(from.signal)
      : names.occupied(scheme.partition.blocks[from.rear]!);
    return and(name(asking), previous(names.go(route)));
  });
  book.rule(names.wants(signal), 'bool', or(name(names.near(signal)), ...clearedHere), {
    about,
    fact: 'always',
    yes: `A train asks for ${signal.name}`,
    no: `No train asks for ${signal.name}`,
  });
}

const approachIsKnown = (scheme: Scheme, reading: SignalReading) =>
  scheme.routesOf[reading.index]!.some((route) => route.directions.length > 0);

/** Requests of signals placed earlier that would enter the same traffic section from another side while this route is set. */
function rivalsBefore(scheme: Scheme, mine: NamedRoute): Contested[] {
  const rivals = new Map<string, Contested>();
  for (const { trafficSection, side } of mine.directions) {
    for (const theirs of scheme.routesInto[trafficSection.index]!) {
      if (theirs.reading.index >= mine.reading.index || !canBothBeSet(mine.route, theirs.route)) continue;
      const other = theirs.directions.find((d) => d.trafficSection === trafficSection)!;
      if (other.side === side) continue;
      const may = names.may(theirs);
      const { signal } = theirs.reading;
      rivals.set(may, {
        expr: not(name(may)),
        says: `${signal.name}, which goes first, is not about to be cleared to ${theirs.to}`,
        rival: true,
      });
    }
  }
  return [...rivals.values()];
}
