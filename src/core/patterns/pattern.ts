import type { Block, Section } from '../detection';
import type { OutputKindId, PowerId } from '../kinds';
import type { Expr } from '../logic';
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

/** What decides between routes that would each be right, but not together. */
export interface Grant {
  needs: Term[];
  /** Of each that goes before it, that it is not asked for at once. */
  before: Term[];
}

/** An aspect of a signal that may proceed, and when it is the one to show. */
export interface AspectTerm {
  aspect: string;
  /** Shown where no earlier one is, if it has none. */
  when?: Expr;
}

/** A level of power of a section, and when it has it, for people and for rules. */
export interface PowerTerm {
  level: PowerId;
  when: Expr;
  says: string;
}

/** What a lamp or an indicator shows, and when. */
export interface ShownTerm {
  shows: string;
  when: Expr;
}

/** Of a pattern that works only where somebody chose it: for which things it can be chosen, and what it does, for people. */
export interface Choosable {
  at: 'signal' | 'points' | 'sensor';
  says: string;
  /** The output that it works. */
  makes: OutputKindId;
  /** It takes wiring. */
  wired?: boolean;
  /** It goes by a timer whose time can be chosen. */
  timed?: boolean;
  /** People at a post work it. */
  byPost?: boolean;
  /** It makes a lamp red that does not mean stop. */
  redForPower?: boolean;
  /** A signal with it shows proceed whatever stands beyond. */
  holdsNothing?: boolean;
  /** It shows proceed where a train may stand, by an aspect on sight if there is one. */
  onSight?: boolean;
}

/**
 * One way of working, in one file. It says what it asks for at each place, in named slots; rules of its own that those rest on it writes
 * into the book it is given. `rule-program.ts` alone makes rules of the slots, in the order in which the patterns are listed there.
 */
export interface Pattern {
  /** What its rules are said to come from. */
  id: string;
  /** It works at the things whose document names it; a pattern without this works everywhere. */
  chosen?: Choosable;
  /** What it asks for a way holds even where another pattern decides instead of all others. */
  always?: boolean;
  /** Rules that belong to no place. */
  general?(scheme: Scheme, book: RuleBook): void;
  /** Each of these says that a block is occupied; where none does, it always counts as occupied. */
  occupied?(scheme: Scheme, block: Block): Term[];
  /** Each of these asks for a motor of points to lie so. */
  asked?(scheme: Scheme, motor: Motor, position: TurnoutPosition): Term[];
  /** What a motor is worked with, before it is told what asks for it. */
  motor?(scheme: Scheme, motor: Motor, book: RuleBook): void;
  /** Each of these holds a motor locked. */
  lock?(scheme: Scheme, motor: Motor, book: RuleBook): Term[];
  /** What a signal is worked with. */
  signal?(scheme: Scheme, reading: SignalReading, book: RuleBook): void;
  /** All of these must be so before a signal is cleared for a way. */
  proceed?(scheme: Scheme, route: NamedRoute, book: RuleBook): Term[];
  /** Only these, in place of all that other patterns ask for that way; undefined where it leaves that to them. */
  instead?(scheme: Scheme, route: NamedRoute, book: RuleBook): Term[] | undefined;
  /** Or any of these alone, whatever is asked for by all patterns. */
  besides?(scheme: Scheme, route: NamedRoute): Term[];
  /** And this, where it is one of several that would be right. */
  grant?(scheme: Scheme, route: NamedRoute): Grant | undefined;
  /** Which aspect a signal shows when it may proceed, the first that is so; the pattern listed last decides. */
  aspect?(scheme: Scheme, reading: SignalReading, book: RuleBook): AspectTerm[];
  /** While any of these is so, a signal that may proceed shows the most restrictive aspect with which it can. */
  expects?(scheme: Scheme, reading: SignalReading, book: RuleBook): Expected[];
  /** The lamps of a signal are lit while any of these is so; always, where nobody says anything. */
  lighting?(scheme: Scheme, reading: SignalReading): Term[];
  /** How much power a section has, the first that is so; full power where none is. Sections of which nobody says anything are fed. */
  power?(scheme: Scheme, section: Section, book: RuleBook): PowerTerm[];
  /** What a lamp that belongs to a sensor shows, the first that is so; dark where none is, and where nobody says anything there is none. */
  lamp?(scheme: Scheme, sensor: Sensor): ShownTerm[];
  /** What shows beside points how a motor lies, the first that is so; dark where none is. */
  indicator?(scheme: Scheme, motor: Motor): ShownTerm[];
  /** What is remembered of a stretch of track. */
  memory?(scheme: Scheme, trafficSection: TrafficSection, book: RuleBook): void;
}

/** Whether a thing of the document uses a pattern that is chosen. */
export const isChosen = ({ id }: Pattern, thing: { patterns?: string[] } | undefined): boolean =>
  thing?.patterns?.includes(id) ?? false;
