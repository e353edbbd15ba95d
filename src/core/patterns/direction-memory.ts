import { and, type Expr, name, not, or, previous } from '../logic';
import type { SignalReading, Way } from '../signals';
import * as names from './names';
import { type Direction, RuleBook, type Scheme } from './scheme';

/** No other side holds the stretch. Reads the last scan's memory, so that a grant and its memory do not wait for each other. */
export function opposing(direction: Direction): Expr[] {
  return direction.stretch.sides
    .filter((side) => side !== direction.side)
    .map((side) => not(previous(names.held(direction.stretch.name, side))));
}

/** A train in rear asks unless the direction held there is away from the signal; where nobody knows, it may ask. */
export function rearAgrees(scheme: Scheme, reading: SignalReading): Expr[] {
  const { stretches } = scheme;
  const stretch = stretches.all[stretches.ofBlock[reading.rear]!]!;
  if (!stretch.bothWays) return [];
  const out = stretches.sideOf(reading.rear, reading.piece, reading.exit);
  const away = stretch.sides
    .filter((side) => side === out)
    .map((side) => not(previous(names.held(stretch.name, side))));
  const towards = stretch.sides.filter((side) => side !== out).map((side) => previous(names.held(stretch.name, side)));
  return away.length === 0 ? [] : [or(...away, ...towards)];
}

/** A train is on the way, in a block before its last: one line a block, with the direction held there where there is one. */
export function trainOnWay(scheme: Scheme, way: Way, rear: number): Expr[] {
  const { stretches, partition } = scheme;
  return way.blocks
    .filter((step) => step.block !== rear)
    .map((step) => {
      const stretch = stretches.all[stretches.ofBlock[step.block]!]!;
      const here = name(names.occupied(partition.blocks[step.block]!.name));
      return stretch.bothWays
        ? and(here, previous(names.held(stretch.name, stretches.sideOf(step.block, step.piece, step.enters))))
        : here;
    });
}

/**
 * The memory of direction of each stretch worked both ways: one latch a side, all held at power-up. A side is taken by a
 * grant or by a person's word, and given up when the stretch and the way to it have been empty for the release time.
 */
export function directionMemoryRules(scheme: Scheme): RuleBook {
  const book = new RuleBook('direction memory');
  const { partition, stretches } = scheme;
  for (const stretch of stretches.all.filter((s) => s.bothWays)) {
    const grants = new Map(stretch.sides.map((side) => [side, { go: [] as Expr[], before: new Set<number>() }]));
    for (const { reading, to, directions } of scheme.waysInto[stretch.index]!) {
      const direction = directions.find((d) => d.stretch === stretch)!;
      const entry = grants.get(direction.side)!;
      entry.go.push(name(names.go(reading.signal.name, to)));
      for (const block of direction.before) entry.before.add(block);
    }
    const about = partition.blocks[stretch.blocks[0]!]!.id;
    for (const side of stretch.sides) {
      const { go, before } = grants.get(side)!;
      const held = names.held(stretch.name, side);
      const empty = [...stretch.blocks, ...before].map((block) =>
        not(name(names.occupied(partition.blocks[block]!.name))),
      );
      book.input(names.tell(stretch.name, side), 'bool', {
        about,
        yes: `A person says that the train in ${stretch.name} came in ${saySide(side)}`,
        no: `Nobody has said how a train came into ${stretch.name}`,
      });
      book.rule(
        names.quiet(stretch.name, side),
        'bool',
        {
          op: 'TON',
          in: and(name('settled'), previous(held), ...empty, ...go.map(not)),
          ms: scheme.releaseMs,
          starts: false,
        },
        {
          about,
          yes: `${stretch.name}, held for trains ${saySide(side)}, and the way to it have been empty long enough`,
          no: `${stretch.name} is not held for trains ${saySide(side)}, or it or the way to it is in use, or was a moment ago`,
        },
      );
      const others = stretch.sides.filter((s) => s !== side).map((s) => name(names.tell(stretch.name, s)));
      book.rule(
        held,
        'bool',
        {
          op: 'RS',
          set: or(...go, name(names.tell(stretch.name, side))),
          reset: or(name(names.quiet(stretch.name, side)), ...others),
          starts: true,
        },
        {
          about,
          yes: `${stretch.name} is held for trains ${saySide(side)}`,
          no: `${stretch.name} is not held for trains ${saySide(side)}`,
        },
      );
    }
  }
  return book;
}

function saySide(side: string): string {
  return side === 'onward' ? 'along it' : side === 'back' ? 'the other way along it' : side;
}
