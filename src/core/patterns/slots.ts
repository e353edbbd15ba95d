import type { Block, Section } from '../detection';
import { OUTPUTS, type OutputKind, type OutputKindId } from '../kinds';
import { and, type Expr, or, value, when } from '../logic';
import type { SignalReading, TrafficSection } from '../signals';
import type { Sensor, TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import type { RuleBook } from './rule-book';
import type { NamedRoute, Scheme } from './scheme';

/** A condition that a pattern puts into a slot, with its reason, for people. */
export interface Term {
  expr: Expr;
  says: string;
}

/** A term that makes a signal show more restrictive an aspect than nothing else asks for; one on sight, if its system has any. */
export interface Expected extends Term {
  onSight?: boolean;
}

/** What asks for a motor to lie so. Opposite requests in one scan: the one of higher priority is met, and neither of two of the same; 0 where nothing is said. */
export interface Request extends Term {
  priority?: number;
}

/** What is asked where only one of several routes can be granted; of a rival, that it does not go first, which is asked last of all. */
export interface Contested extends Term {
  rival?: boolean;
}

/** What is shown or given while something is so; one without a condition is shown whenever no earlier one is. */
export interface Shown {
  shows: string;
  when?: Expr;
}

/** What patterns are asked about a place, and how that which all of them put there comes together. */
interface Slot<Place, Put> {
  combine(put: readonly Put[]): Expr;
  /** How a pattern fills it. What it rests on it writes into the book. */
  readonly fill?: (scheme: Scheme, place: Place, book: RuleBook) => Put[];
}
/** A place where a pattern only writes rules, which other terms rest on. */
interface Ground<Place> {
  readonly fill?: (scheme: Scheme, place: Place, book: RuleBook) => void;
}

const anyOf = (terms: readonly Term[]): Expr => or(...terms.map(({ expr }) => expr));
const allOf = (terms: readonly Term[]): Expr => and(...terms.map(({ expr }) => expr));
const firstOf =
  (otherwise: string) =>
  (terms: readonly Shown[]): Expr =>
    terms.reduceRight<Expr>(
      (rest, { shows, when: so }) => (so ? when(so, value(shows), rest) : value(shows)),
      value(otherwise),
    );

const any = <Place, Put extends Term = Term>(): Slot<Place, Put> => ({ combine: anyOf });
const all = <Place, Put extends Term = Term>(): Slot<Place, Put> => ({ combine: allOf });
const first = <Place>(otherwise: string): Slot<Place, Shown> => ({ combine: firstOf(otherwise) });
const ground = <Place>(): Ground<Place> => ({});

/** What outputs belong to. */
interface OutputPlace {
  signal: SignalReading;
  motor: Motor;
  section: Section;
  sensor: Sensor;
}
type Outputs = typeof OUTPUTS;
/** The outputs that patterns alone work. */
export type WorkedOutput = { [K in OutputKindId]: Outputs[K] extends { otherwise: string } ? K : never }[OutputKindId];
type OutputSlots = { [K in WorkedOutput]: Slot<OutputPlace[Outputs[K]['of']], Shown> };
/** A slot for each of these: the first that is so, or what the output is otherwise. */
const outputSlots = Object.fromEntries(
  Object.entries<OutputKind>(OUTPUTS).flatMap(([id, { otherwise }]) => (otherwise ? [[id, first(otherwise)]] : [])),
) as unknown as OutputSlots;

/** Every slot that patterns can fill, with its rule of combining. */
export const SLOTS = {
  ...outputSlots,
  /** Rules that belong to no place. */
  general: ground<undefined>(),
  /** Any of these says that a block is occupied; where nobody says anything, it always counts as occupied. */
  occupied: { combine: (terms) => (terms.length === 0 ? { op: 'true' } : anyOf(terms)) } as Slot<Block, Term>,
  /** What a motor is worked with, before it is told what asks for it. */
  motor: ground<Motor>(),
  /** Any of these asks for a motor of points to lie so. */
  asked: any<{ motor: Motor; position: TurnoutPosition }, Request>(),
  /** Or any of these, whatever locks it. */
  forced: any<{ motor: Motor; position: TurnoutPosition }>(),
  /** Any of these holds a motor locked. */
  lock: any<Motor>(),
  /** What a signal is worked with. */
  signal: ground<SignalReading>(),
  /** All of these must be so before a signal is cleared for a route. */
  proceed: all<NamedRoute>(),
  /** Only these, in place of all that other patterns ask for that route, where there are any. */
  instead: all<NamedRoute>(),
  /** Or any of these alone, whatever is asked for by all patterns. */
  besides: any<NamedRoute>(),
  /** And these, where it is one of several that would each be right, but not together. */
  grant: all<NamedRoute, Contested>(),
  /** Which aspect a signal shows when it may proceed, the first that is so. One always is. */
  aspect: first<SignalReading>('stop'),
  /** While any of these is so, a signal that may proceed shows the most restrictive aspect with which it can. */
  expects: any<SignalReading, Expected>(),
  /** The lamps of a signal are lit while any of these is so; always, where nobody says anything. */
  lighting: any<SignalReading>(),
  /** What is remembered of a traffic section. */
  memory: ground<TrafficSection>(),
};

type Slots = typeof SLOTS;
/** What a pattern may say, a slot each. */
export type Fills = { [S in keyof Slots]?: NonNullable<Slots[S]['fill']> };
/** A slot at which patterns only write rules, and one that is filled with terms. */
export type GroundId = { [S in keyof Slots]: Slots[S] extends { combine: unknown } ? never : S }[keyof Slots];
export type SlotId = Exclude<keyof Slots, GroundId>;
export type PlaceOf<S extends keyof Slots> = Parameters<NonNullable<Slots[S]['fill']>>[1];
export type PutIn<S extends SlotId> = ReturnType<NonNullable<Slots[S]['fill']>>[number];
