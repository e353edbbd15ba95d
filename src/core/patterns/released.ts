import { and, type Expr, name, not, or } from '../logic';
import type { SignalReading } from '../signals';
import type { Sensor } from '../survey';
import { aheadOf, rises } from './ahead';
import { spotsOn } from './arrival-locking';
import { byScheme } from './by-scheme';
import * as names from './names';
import { isChosen, type Pattern, type PatternOption } from './pattern';
import type { Scheme } from './scheme';
import { optionOf } from './setting-of';

/**
 * Who releases a train that waits, and how that is remembered: the train that comes up behind (push) or the one gone ahead (pull), by a pulse that
 * lasts a time or by a memory that the train itself resets as it leaves. Which numbers of trains can run follows from both. Common practice, no source.
 */
export const RELEASED_BY = [
  { id: 'push by pulse', who: 'push', how: 'pulse', says: 'Released by the train that comes up behind, for a time' },
  {
    id: 'push by memory',
    who: 'push',
    how: 'memory',
    says: 'Released by the train that comes up behind, until a train has left',
  },
  { id: 'pull by pulse', who: 'pull', how: 'pulse', says: 'Released by the train gone ahead, for a time' },
  {
    id: 'pull by memory',
    who: 'pull',
    how: 'memory',
    says: 'Released by the train gone ahead, until a train has left',
  },
] as const;
type Way = (typeof RELEASED_BY)[number];

/** Long enough for most trains to clear the section in which they waited; common practice, no source. */
const HOLD_MS = 10_000;

/** The place at which a train releases another: spots, where there are any there; else a block that it comes into. */
export interface ReleasePoint {
  spots: Sensor[];
  blocks: number[];
}

/** The four ways of releasing, a pattern each. */
export const RELEASES: readonly Pattern[] = RELEASED_BY.map(releasedBy);

function releasedBy(way: Way): Pattern {
  const HOLD: PatternOption = {
    pattern: way.id,
    option: 'holdMs',
    at: 'signal',
    says: 'A release lasts, in seconds',
    least: 100,
    most: 600_000,
    usual: () => HOLD_MS,
  };
  const pattern: Pattern = {
    id: way.id,
    chosen: { at: 'signal', says: way.says, makes: 'aspect' },
    ...(way.how === 'pulse' && { options: [HOLD] }),
    off: 'no train releases it: each is started by its button',
    signal(scheme, reading, book) {
      const { signal, index } = reading;
      if (!isChosen(pattern, signal)) return;
      const about = signal.id;
      if (RELEASED_BY.find(({ id }) => signal.patterns?.includes(id)) === way) {
        book.input(['switched off', index, 'release'], names.switchedOff(signal, 'release'), 'bool', {
          about,
          yes: `Releases of ${signal.name} are switched off`,
          no: `Releases of ${signal.name} are on`,
        });
        book.input(['start button', index, 'release'], names.start(signal), 'bool', {
          about,
          yes: `${signal.name} is given a pulse by hand`,
          no: `Nobody gives ${signal.name} a pulse`,
        });
      }
      const point = releasePoint(scheme, reading, way.who);
      const event = and(not(name(names.switchedOff(signal, 'release'))), or(...eventsAt(scheme, point, way.how)));
      const released = or(event, name(names.start(signal)));
      const left = aheadOf([reading]).map((block): Expr => rises(names.occupied(scheme.partition.blocks[block]!)));
      book.flag(
        ['released', index, way.id],
        names.released(signal, way.who, way.how),
        'bool',
        way.how === 'pulse'
          ? { op: 'TOF', in: released, ms: optionOf(scheme, HOLD, signal), starts: false }
          : { op: 'RS', set: released, reset: or(...left), starts: false },
        { about, fact: 'always', yes: `${signal.name} is released`, no: `${signal.name} is not released` },
      );
    },
    proceed: (scheme, route) => terms(scheme, route.reading),
    releases: true,
  };
  const terms = (scheme: Scheme, reading: SignalReading) =>
    isChosen(pattern, reading.signal)
      ? [
          {
            expr: name(names.released(reading.signal, way.who, way.how)),
            says: `${sayRelease(scheme, reading, way)} has released it`,
          },
        ]
      : [];
  return pattern;
}

/** A pulse lasts as long as a spot sees the train; a block is entered once. */
const eventsAt = ({ partition }: Scheme, { spots, blocks }: ReleasePoint, how: Way['how']): Expr[] =>
  spots.length > 0
    ? spots.map((spot) => (how === 'pulse' ? name(names.detect(spot)) : rises(names.detect(spot))))
    : blocks.map((block) => rises(names.occupied(partition.blocks[block]!)));

/** Where the train stands that releases a signal. */
export function releasePoint(scheme: Scheme, reading: SignalReading, who: 'push' | 'pull'): ReleasePoint {
  return who === 'push' ? pushedFrom(scheme)[reading.index]! : pulledFrom(scheme)[reading.index]!;
}

/** Before the block in which the train waits: the last spots on the way to it, or the block before it. */
const pushedFrom = byScheme((scheme): ReleasePoint[] =>
  scheme.readings.map((reading) => {
    const leading = scheme.routesTo[reading.index]!;
    const spots = leading.flatMap((route) => spotsOn(scheme, route, (block) => block !== reading.rear).at(-1) ?? []);
    const blocks = leading.map(({ route, reading: from }) => {
      const before = route.blocks.map(({ block }) => block).filter((block) => block !== reading.rear);
      return before.at(-1) ?? from.rear;
    });
    return { spots: [...new Set(spots)], blocks: [...new Set(blocks)].filter((block) => block !== reading.rear) };
  }),
);

/**
 * Where the train gone ahead no longer stands in the way: the first spots beyond the block ahead; else the block beyond the next signal, before which it may
 * wait; on a round with no other signal the second block ahead.
 */
const pulledFrom = byScheme((scheme): ReleasePoint[] =>
  scheme.readings.map((reading) => {
    const own = scheme.routesOf[reading.index]!;
    const first = new Set(aheadOf([reading]));
    const spots = own.flatMap(
      (route) => spotsOn(scheme, route, (block) => block !== reading.rear && !first.has(block))[0] ?? [],
    );
    const blocks = own.flatMap(({ route }) => {
      const next = route.ending.kind === 'signal' ? scheme.readings[route.ending.signal]! : reading;
      if (next !== reading) return aheadOf([next]);
      return route.blocks
        .filter(({ block }) => block !== reading.rear)
        .slice(1, 2)
        .map(({ block }) => block);
    });
    return { spots: [...new Set(spots)], blocks: [...new Set(blocks)] };
  }),
);

function sayRelease(scheme: Scheme, reading: SignalReading, { who }: Way): string {
  const { spots, blocks } = releasePoint(scheme, reading, who);
  const at =
    spots.length > 0
      ? spots.map(({ name: called }) => called)
      : blocks.map((block) => scheme.partition.blocks[block]!.name);
  const where = at.length === 0 ? 'nowhere' : at.join(' or ');
  return who === 'push' ? `the train behind, at ${where},` : `the train ahead, at ${where},`;
}
