import { and, type Expr, is, name, not, or, previous } from '../logic';
import type { SignalReading } from '../signals';
import { type Signal, signalsOf, type TurnoutPosition } from '../survey';
import { byScheme } from './by-scheme';
import { blockOfPoints } from './detector-locking';
import * as names from './names';
import { isChosen, type Pattern, type PatternOption } from './pattern';
import type { NamedRoute, Scheme } from './scheme';
import { optionOf } from './setting-of';

const ID = 'overlap';
/** From when it passed the signal before; long enough for most trains to come to a stand, common practice, no source. */
const STANDS: PatternOption = {
  pattern: ID,
  option: 'standsMs',
  at: 'signal',
  says: 'A train that has passed the signal before counts as standing here after, in seconds',
  least: 0,
  most: 600_000,
  does: ({ document }, id) =>
    isChosen(
      overlap,
      signalsOf(document).find((one) => one.id === id),
    ),
  usual: () => 30_000,
};

/**
 * The overlap of a signal: the block beyond it, into which a train that comes up to it would run if it stopped too late. It is free before a
 * train is cleared up to the signal, nobody else is let into it, and its points stay, until that train has had time to come to a stand.
 */
export const overlap: Pattern = {
  id: ID,
  chosen: {
    at: 'signal',
    says: 'Keep the block beyond it free while a train comes up to it, which could stop too late (overlap)',
    makes: 'aspect',
  },
  options: [STANDS],
  signal(scheme, reading, book) {
    const { signal } = reading;
    if (overlapOf(scheme, reading).length === 0) return;
    const coming = scheme.routesTo[reading.index]!.map((route) =>
      and(name(names.go(route)), name(names.occupied(scheme.partition.blocks[route.reading.rear]!))),
    );
    book.rule(
      names.overlapHeld(signal),
      'bool',
      { op: 'TOF', in: or(...coming), ms: optionOf(scheme, STANDS, signal), starts: false },
      {
        about: signal.id,
        yes: `A train comes up to ${signal.name}, or came a moment ago`,
        no: `No train comes up to ${signal.name}`,
      },
    );
  },
  proceed(scheme, route) {
    const asked = askedOf(scheme, route);
    const { ending } = route.route;
    const beyond = ending.kind === 'signal' ? overlapOf(scheme, scheme.readings[ending.signal]!) : [];
    const { blocks } = scheme.partition;
    const free = asked.map(({ block, lies }) => and(...lies, not(name(names.occupied(blocks[block]!)))));
    const called = [...new Set(asked.map(({ block }) => blocks[block]!.name))].join(' or ');
    return [
      ...(free.length > 0
        ? [{ expr: or(...free, ...ownLies(beyond, route)), says: `${called}, beyond ${route.to}, is free` }]
        : []),
    ];
  },
  /** Who would run into the overlap and who comes up to the signal keep each other out; each is cleared only once a train is there to be let go. */
  grant(scheme, route) {
    const [into, crossed] = [rivalsIn(scheme).get(route) ?? [], crossedBy(scheme).get(route) ?? []];
    if (into.length + crossed.length === 0) return [];
    const { reading } = route;
    const rear = scheme.partition.blocks[reading.rear]!;
    const rivals = new Set([...into, ...crossed.flatMap(({ coming }) => coming)]);
    return [
      { expr: name(names.occupied(rear)), says: `a train stands before ${reading.signal.name}` },
      ...into.map((other) => ({
        expr: not(previous(names.go(other))),
        says: `${other.reading.signal.name} is not cleared to ${other.to}, into the overlap of ${route.to}`,
      })),
      ...crossed.map(({ signal, lies }) => ({
        expr: not(and(...lies, previous(names.overlapHeld(signal)))),
        says: `no train comes up to ${signal.name}, whose overlap this route runs through`,
      })),
      ...[...rivals]
        .filter((other) => other.reading.index < reading.index)
        .map((other) => ({
          expr: not(name(names.may(other))),
          says: `${other.reading.signal.name}, which goes first, is not about to be cleared to ${other.to}`,
          rival: true,
        })),
    ];
  },
  lock: (scheme, motor) =>
    scheme.readings
      .filter((reading) => overlapOf(scheme, reading).some(({ motors }) => motors.includes(motor.index)))
      .map(({ signal }) => ({
        expr: name(names.overlapHeld(signal)),
        says: `a train comes up to ${signal.name}, and it lies in the overlap of that`,
      })),
};

/** A block that is the overlap of a signal while facing points lie so. */
interface Overlap {
  block: number;
  lies: Expr[];
  /** All motors in it, and those that choose it. */
  motors: number[];
}

/** The overlap of a signal by how the points beyond it lie; none where nobody chose one, or nothing lies beyond. */
export const overlapOf = (scheme: Scheme, { index }: Pick<SignalReading, 'index'>): readonly Overlap[] =>
  allOverlaps(scheme)[index]!;

const allOverlaps = byScheme((scheme): Overlap[][] =>
  scheme.readings.map((reading) => (isChosen(overlap, reading.signal) ? overlapsOf(scheme, reading) : [])),
);

function overlapsOf(scheme: Scheme, { routes, rear }: SignalReading): Overlap[] {
  const { motors } = scheme.partition.graph;
  const bladesIn = blockOfPoints(scheme);
  const found = new Map<string, Overlap>();
  for (const { blocks, conditions } of routes) {
    const block = blocks[0]?.block;
    if (block === undefined) continue;
    const near = conditions.filter(({ motor }) => [block, rear].includes(bladesIn[motors[motor]!.points]!));
    const facing = near.filter((one) => one.facing);
    const key = [block, ...facing.map(({ motor, position }) => `${motor} ${position}`)].join();
    const lies = facing.map(({ motor, position }) => lie(scheme, motor, position));
    const known = found.get(key) ?? { block, lies, motors: [] };
    for (const { motor } of near) if (!known.motors.includes(motor)) known.motors.push(motor);
    found.set(key, known);
  }
  const all = [...found.values()];
  /** Where all lead into one block, how its points lie makes no difference. */
  return all.every(({ block }) => block === all[0]!.block) && all[0]
    ? [{ block: all[0].block, lies: [], motors: [...new Set(all.flatMap(({ motors: own }) => own))] }]
    : all;
}

const lie = ({ partition }: Scheme, motor: number, position: TurnoutPosition): Expr =>
  is(name(names.points(partition.graph.motors[motor]!)), position);

/** Of an overlap that is the block from which the train comes, only that the points lie into it. */
const ownLies = (all: readonly Overlap[], { reading }: NamedRoute): Expr[] =>
  all.filter(({ block }) => block === reading.rear).map(({ lies }) => and(...lies));

/** Blocks of an overlap that are asked to be free: on a small ring it is the one from which the train comes. */
const askedOf = (scheme: Scheme, { route, reading }: NamedRoute): readonly Overlap[] =>
  route.ending.kind === 'signal'
    ? overlapOf(scheme, scheme.readings[route.ending.signal]!).filter(({ block }) => block !== reading.rear)
    : [];

/** By route, those of others that lead into the overlap at its end. */
export const rivalsIn = byScheme((scheme): ReadonlyMap<NamedRoute, readonly NamedRoute[]> => {
  const all = scheme.routesOf.flat();
  return new Map(
    all.flatMap((route): [NamedRoute, NamedRoute[]][] => {
      const kept = new Set(askedOf(scheme, route).map(({ block }) => block));
      const { ending } = route.route;
      if (kept.size === 0 || ending.kind !== 'signal') return [];
      const others = all
        .filter(({ reading, route: { ending: to } }) => {
          const own = reading.index === ending.signal || reading === route.reading;
          return !own && !(to.kind === 'signal' && to.signal === ending.signal);
        })
        .filter((other) => other.route.blocks.some(({ block }) => kept.has(block)));
      return [[route, others]];
    }),
  );
});

/** A signal through whose overlap a route runs, while the points lie so, and the routes that come up to it. */
interface Crossed {
  signal: Signal;
  lies: Expr[];
  coming: NamedRoute[];
}

const crossedBy = byScheme((scheme): ReadonlyMap<NamedRoute, readonly Crossed[]> => {
  const found = new Map<NamedRoute, Crossed[]>();
  for (const { signal, index } of scheme.readings) {
    const overlaps = overlapOf(scheme, { index });
    const coming = overlaps.length === 0 ? [] : scheme.routesTo[index]!;
    for (const into of new Set(coming.flatMap((route) => rivalsIn(scheme).get(route) ?? []))) {
      const own = coming.filter((route) => rivalsIn(scheme).get(route)?.includes(into));
      const through = overlaps.filter(({ block }) => into.route.blocks.some((one) => one.block === block));
      const crossed = through.map(({ lies }) => ({ signal, lies, coming: own }));
      found.set(into, [...(found.get(into) ?? []), ...crossed]);
    }
  }
  return found;
});
