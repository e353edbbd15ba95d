import { and, type Expr, name, not, or, previous } from '../logic';
import { canBothBeSet, type SignalReading, type Stretches, type Way } from '../signals';
import * as names from './names';
import type { Pattern, Term } from './pattern';
import type { RuleBook } from './rule-book';
import { type Direction, type NamedWay, pointsLie, type Scheme } from './scheme';

/** No other side holds the stretch. Reads the last scan's memory, so that a grant and its memory do not wait for each other. */
function opposing({ stretches }: Scheme, direction: Direction): Term[] {
  return direction.stretch.sides
    .filter((side) => side !== direction.side)
    .map((side) => ({
      expr: not(previous(names.held(direction.stretch, side))),
      says: `${direction.stretch.name} is not held for trains ${saySide(stretches, side)}`,
    }));
}

/** A train in rear asks unless the direction held there is away from the signal; where nobody knows, it may ask. */
function rearAgrees(scheme: Scheme, reading: SignalReading): Expr[] {
  const { stretches } = scheme;
  const stretch = stretches.all[stretches.ofBlock[reading.rear]!]!;
  if (!stretch.bothWays) return [];
  const out = stretches.sideOf(reading.rear, reading.piece, reading.exit);
  const away = stretch.sides.filter((side) => side === out).map((side) => not(previous(names.held(stretch, side))));
  const towards = stretch.sides.filter((side) => side !== out).map((side) => previous(names.held(stretch, side)));
  return away.length === 0 ? [] : [or(...away, ...towards)];
}

/** A train is on the way, in a block before its last: one line a block, with the direction held there where there is one. */
function trainOnWay(scheme: Scheme, way: Way, rear: number): Expr[] {
  const { stretches, partition } = scheme;
  return way.blocks
    .filter((step) => step.block !== rear)
    .map((step) => {
      const stretch = stretches.all[stretches.ofBlock[step.block]!]!;
      const here = name(names.occupied(partition.blocks[step.block]!));
      return stretch.bothWays
        ? and(here, previous(names.held(stretch, stretches.sideOf(step.block, step.piece, step.enters))))
        : here;
    });
}

/**
 * The memory of direction of each stretch worked both ways: one latch a side, all held at power-up. A side is taken by a
 * grant or by a person's word, and given up when the stretch and the way to it have been empty for the release time. A way into such a
 * stretch is granted to one side at a time: requests are ranked by the order in which signals were placed.
 */
export const directionMemory: Pattern = {
  id: 'direction memory',
  signal(scheme, reading, book) {
    if (approachIsKnown(scheme, reading)) approachRules(book, scheme, reading);
  },
  grant(scheme, way) {
    if (way.directions.length === 0) return undefined;
    const wants = names.wants(way.reading.signal);
    return {
      needs: [
        { expr: name(wants), says: 'a train asks for it' },
        ...way.directions.flatMap((direction) => opposing(scheme, direction)),
      ],
      before: rivalsBefore(scheme, way),
    };
  },
  memory(scheme, stretch, book) {
    if (!stretch.bothWays) return;
    const { partition, stretches } = scheme;
    const grants = new Map(stretch.sides.map((side) => [side, { go: [] as Expr[], before: new Set<number>() }]));
    for (const way of scheme.waysInto[stretch.index]!) {
      const direction = way.directions.find((d) => d.stretch === stretch)!;
      const entry = grants.get(direction.side)!;
      entry.go.push(name(names.go(way)));
      for (const block of direction.before) entry.before.add(block);
    }
    const about = partition.blocks[stretch.blocks[0]!]!.id;
    for (const side of stretch.sides) {
      const { go, before } = grants.get(side)!;
      const held = names.held(stretch, side);
      const empty = [...stretch.blocks, ...before].map((block) => not(name(names.occupied(partition.blocks[block]!))));
      book.input(['direction', stretch.index, side], names.tell(stretch, side), 'bool', {
        about,
        yes: `A person says that the train in ${stretch.name} came in ${saySide(stretches, side)}`,
        no: `Nobody has said how a train came into ${stretch.name}`,
      });
      book.rule(
        names.quiet(stretch, side),
        'bool',
        {
          op: 'TON',
          in: and(name('settled'), previous(held), ...empty, ...go.map(not)),
          ms: scheme.releaseMs,
          starts: false,
        },
        {
          about,
          yes: `${stretch.name}, held for trains ${saySide(stretches, side)}, and the way to it have been empty long enough`,
          no: `${stretch.name} is not held for trains ${saySide(stretches, side)}, or it or the way to it is in use, or was a moment ago`,
        },
      );
      const others = stretch.sides.filter((s) => s !== side).map((s) => name(names.tell(stretch, s)));
      book.rule(
        held,
        'bool',
        {
          op: 'RS',
          set: or(...go, name(names.tell(stretch, side))),
          reset: or(name(names.quiet(stretch, side)), ...others),
          starts: true,
        },
        {
          about,
          yes: `${stretch.name} is held for trains ${saySide(stretches, side)}`,
          no: `${stretch.name} is not held for trains ${saySide(stretches, side)}`,
        },
      );
    }
  },
};

function saySide({ sideNames }: Stretches, side: string): string {
  return side === 'onward' ? 'along it' : side === 'back' ? 'the other way along it' : sideNames.get(side)!;
}

/**
 * Who asks: a train that has only this signal before it, and one that has been cleared up to this signal by the one
 * before, so that it may run on without braking. No train asks further ahead than that.
 */
function approachRules(book: RuleBook, scheme: Scheme, reading: SignalReading): void {
  const { signal } = reading;
  const about = signal.id;
  const leading = scheme.waysTo[reading.index]!;
  const rear = scheme.partition.blocks[reading.rear]!;
  const onItsWay = leading.flatMap(({ way }) => {
    const before = trainOnWay(scheme, way, reading.rear);
    return before.length > 0 ? [and(...pointsLie(scheme, way), or(...before))] : [];
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
  const clearedHere = leading.map((way) => {
    const from = way.reading;
    const asking = approachIsKnown(scheme, from)
      ? names.near(from.signal)
      : names.occupied(scheme.partition.blocks[from.rear]!);
    return and(name(asking), previous(names.go(way)));
  });
  book.rule(names.wants(signal), 'bool', or(name(names.near(signal)), ...clearedHere), {
    about,
    fact: 'always',
    yes: `A train asks for ${signal.name}`,
    no: `No train asks for ${signal.name}`,
  });
}

const approachIsKnown = (scheme: Scheme, reading: SignalReading) =>
  scheme.waysOf[reading.index]!.some((way) => way.directions.length > 0);

/** Requests of signals placed earlier that would enter the same stretch from another side while this way is set. */
function rivalsBefore(scheme: Scheme, mine: NamedWay): string[] {
  const rivals = new Set<string>();
  for (const { stretch, side } of mine.directions) {
    for (const theirs of scheme.waysInto[stretch.index]!) {
      if (theirs.reading.index >= mine.reading.index || !canBothBeSet(mine.way, theirs.way)) continue;
      const other = theirs.directions.find((d) => d.stretch === stretch)!;
      if (other.side !== side) rivals.add(names.may(theirs));
    }
  }
  return [...rivals];
}
