import { blockOf } from '../detection';
import { FULL_POWER, OUTPUTS, type OutputKind, type OutputKindId, POWER_LEVELS } from '../kinds';
import { and, type Declaration, type Expr, is, name, not, or, type Program, value, when } from '../logic';
import type { SignalReading } from '../signals';
import { type LayoutDocument, signalsOf, systemOf, type TurnoutPosition } from '../survey';
import { mostRestrictive } from './announced';
import { approachLit } from './approach-lit';
import { assumed } from './assumed';
import { authority } from './authority';
import { automaticBlock } from './automatic-block';
import { byHand } from './by-hand';
import { cautionAtFirst } from './caution-at-first';
import { contactArms } from './contact-arms';
import { detectorLocking } from './detector-locking';
import { divergingHeld } from './diverging-held';
import * as names from './names';
import { occupancy } from './occupancy';
import { type OwnRuleFault, withOwnRules } from './own-rules';
import { panelLamp } from './panel-lamp';
import type { Expected, Grant, Pattern, ShownTerm, Term } from './pattern';
import { permission } from './permission';
import { pointsIndicator } from './points-indicator';
import { post } from './posts';
import { powerLamp } from './power-lamp';
import { powerUp } from './power-up';
import { routeLocking } from './route-locking';
import { RuleBook } from './rule-book';
import type { NamedRoute, Scheme } from './scheme';
import { spotCount } from './spot-count';
import { spotMemory } from './spot-memory';
import { stopSection } from './stop-section';
import { timedCaution } from './timed-caution';
import { trafficDirection } from './traffic-direction';

/** Every pattern, in the order in which their terms stand in a rule. */
export const PATTERNS: readonly Pattern[] = [
  automaticBlock,
  byHand,
  powerUp,
  occupancy,
  spotMemory,
  spotCount,
  assumed,
  divergingHeld,
  timedCaution,
  contactArms,
  post,
  authority,
  permission,
  cautionAtFirst,
  approachLit,
  detectorLocking,
  routeLocking,
  trafficDirection,
  stopSection,
  panelLamp,
  powerLamp,
  pointsIndicator,
];

/** What can be chosen for things, beside what works everywhere. */
export const CHOOSABLE = PATTERNS.flatMap(({ id, chosen }) => (chosen ? [{ id, ...chosen }] : []));

/** Whether a signal cuts off the section before it. */
export const cutsOff = ({ patterns = [] }: { patterns?: string[] }): boolean =>
  CHOOSABLE.some(({ id, makes }) => makes === 'power' && patterns.includes(id));

/** The kinds of output that are worked because somebody chose what works them. */
export function chosenOutputs(document: LayoutDocument): ReadonlySet<OutputKindId> {
  const things = [...signalsOf(document), ...document.turnouts, ...document.crossings, ...document.sensors];
  const chosen = new Set(things.flatMap(({ patterns }) => patterns ?? []));
  return new Set(CHOOSABLE.filter(({ id }) => chosen.has(id)).map(({ makes }) => makes));
}

/** A term with the pattern that put it there. */
export interface PutTerm extends Term {
  pattern: string;
}

/** A slot that patterns can fill. */
type Slot = Exclude<keyof Pattern, 'id' | 'chosen' | 'always'>;
const filling = new Map<Slot, readonly Pattern[]>();
/** The patterns that fill a slot: most fill few. */
function fillers(slot: Slot): readonly Pattern[] {
  const known = filling.get(slot) ?? PATTERNS.filter((pattern) => pattern[slot]);
  filling.set(slot, known);
  return known;
}

const grantTerms = (grant: Grant | undefined): Term[] | undefined => grant && [...grant.needs, ...grant.before];

/** Gathers what patterns put into one slot. */
function gather(
  slot: Slot,
  of: (pattern: Pattern, book: RuleBook) => Term[] | undefined,
  into: Declaration[] = [],
): PutTerm[] {
  const found: PutTerm[] = [];
  for (const pattern of fillers(slot))
    for (const term of of(pattern, new RuleBook(into, pattern.id)) ?? []) found.push({ ...term, pattern: pattern.id });
  return found;
}
const exprs = (terms: Term[]): Expr[] => terms.map(({ expr }) => expr);

/** Everything that must be so before a signal is cleared for a way, each with its reason. */
export function needsOf(scheme: Scheme, route: NamedRoute): PutTerm[] {
  const instead = gather('instead', (pattern, book) => pattern.instead?.(scheme, route, book));
  return [
    ...asksOf(scheme, route, instead),
    ...(instead.length > 0 ? instead : gather('grant', (pattern) => grantTerms(pattern.grant?.(scheme, route)))),
  ];
}

/** What alone clears a signal for a way, whatever else is asked for. */
export const besidesOf = (scheme: Scheme, route: NamedRoute): PutTerm[] =>
  gather('besides', (pattern) => pattern.besides?.(scheme, route));

/** What makes a signal show more restrictive an aspect than it would. */
export const expectedOf = (scheme: Scheme, reading: SignalReading, into: Declaration[] = []): Expected[] =>
  fillers('expects').flatMap((pattern) => pattern.expects?.(scheme, reading, new RuleBook(into, pattern.id)) ?? []);

/** What patterns ask for a way; where one decides instead of the others, what is asked always. */
const asksOf = (scheme: Scheme, route: NamedRoute, instead: PutTerm[], into?: Declaration[]): PutTerm[] =>
  gather(
    'proceed',
    (pattern, book) => (instead.length === 0 || pattern.always ? pattern.proceed?.(scheme, route, book) : undefined),
    into,
  );

/**
 * The rule program of a layout, with the rules of somebody's own in it: the single truth of what its signals and turnouts do; and what is
 * wrong with those rules.
 */
export function writeRules(scheme: Scheme): { program: Program; faults: OwnRuleFault[] } {
  const { rules } = scheme.document;
  const program = generate(scheme);
  return rules.length === 0 ? { program, faults: [] } : withOwnRules(program, rules, (name) => today(scheme, name));
}

/** A name of a rule that was written while blocks were known by where they begin. */
const today = ({ partition }: Scheme, name: string): string =>
  name.includes('@')
    ? name
        .split('.')
        .map((part) => blockOf(partition, part)?.id ?? part)
        .join('.')
    : name;

/** Here alone the slots that patterns fill become rules. */
function generate(scheme: Scheme): Program {
  const declarations: Declaration[] = [];
  const book = new RuleBook(declarations, 'composed');
  const each: Each = (slot, of) => {
    for (const pattern of fillers(slot)) of(pattern, new RuleBook(declarations, pattern.id));
  };
  each('general', (pattern, own) => pattern.general?.(scheme, own));
  composeBlocks(scheme, book);
  composePoints(scheme, book, each);
  composeSignals(scheme, book, each);
  composePower(scheme, book);
  composeLighting(scheme, book);
  composeLamps(scheme, book);
  composeIndicators(scheme, book);
  for (const trafficSection of scheme.trafficSections.all)
    each('memory', (pattern, own) => pattern.memory?.(scheme, trafficSection, own));
  return {
    scanMs: 20,
    enums: {
      aspect: scheme.aspects.map(({ id }) => id),
      position: ['straight', 'diverging', 'between'],
      ...enumerationsOf(declarations),
    },
    declarations,
    called: names.calledIn(scheme),
  };
}

/** The values of outputs that are in use. */
function enumerationsOf(declarations: Declaration[]): Program['enums'] {
  const kinds: [string, OutputKind][] = Object.entries(OUTPUTS);
  return Object.fromEntries(
    kinds.flatMap(([kind, { values }]) =>
      values && declarations.some(({ terminal }) => terminal?.kind === kind) ? [[kind, [...values]]] : [],
    ),
  );
}

/** Sections whose power rules decide. */
function composePower(scheme: Scheme, book: RuleBook): void {
  for (const section of scheme.partition.sections) {
    const terms = fillers('power').flatMap(
      (pattern) => pattern.power?.(scheme, section, new RuleBook(book.declarations, pattern.id)) ?? [],
    );
    if (terms.length === 0) continue;
    const head = names.headOf(scheme.partition, section);
    const full = value(POWER_LEVELS[FULL_POWER]!.id);
    const expr = terms.reduceRight<Expr>((otherwise, { when: so, level }) => when(so, value(level), otherwise), full);
    book.output(['power', section.index], names.power(head), 'power', expr, {
      about: head.id,
      yes: `The power of ${head.name} is {}`,
      no: '',
    });
  }
}

/** Signals whose lamps are not always lit. A train takes a dark one for its most restrictive aspect; common practice, no source. */
function composeLighting(scheme: Scheme, book: RuleBook): void {
  for (const reading of scheme.readings) {
    const terms = exprs(gather('lighting', (pattern) => pattern.lighting?.(scheme, reading)));
    if (terms.length === 0) continue;
    const { signal } = reading;
    const lit = when(or(...terms), value('lit'), value('dark'));
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

/** What is shown by the first term that is so; dark where none is. */
const firstOf = (terms: readonly ShownTerm[]): Expr =>
  terms.reduceRight<Expr>((otherwise, { shows, when: so }) => when(so, value(shows), otherwise), value('dark'));

/** Lamps that belong to sensors. */
function composeLamps(scheme: Scheme, book: RuleBook): void {
  for (const [index, sensor] of scheme.document.sensors.entries()) {
    const terms = fillers('lamp').flatMap((pattern) => pattern.lamp?.(scheme, sensor) ?? []);
    if (terms.length === 0) continue;
    book.output(['lamp', index], names.lamp(sensor), 'lamp', firstOf(terms), {
      about: sensor.id,
      yes: `The lamp of ${sensor.name} is {}`,
      no: '',
    });
  }
}

/** What shows beside points how their motors lie. */
function composeIndicators(scheme: Scheme, book: RuleBook): void {
  for (const motor of scheme.partition.graph.motors) {
    const terms = fillers('indicator').flatMap((pattern) => pattern.indicator?.(scheme, motor) ?? []);
    if (terms.length === 0) continue;
    book.output(['indicator', motor.index], names.indicator(motor), 'indicator', firstOf(terms), {
      about: motor.id,
      yes: `The indicator of ${motor.name} shows {}`,
      no: '',
    });
  }
}

type Each = (slot: Slot, of: (pattern: Pattern, own: RuleBook) => void) => void;

function composeBlocks(scheme: Scheme, book: RuleBook): void {
  for (const block of scheme.partition.blocks) {
    const terms = gather('occupied', (pattern) => pattern.occupied?.(scheme, block));
    const blind = terms.length === 0;
    book.flag(['occupied', block.index], names.occupied(block), 'bool', blind ? { op: 'true' } : or(...exprs(terms)), {
      about: block.id,
      fact: 'always',
      yes: blind ? `${block.name} has no detector, so it counts as occupied` : `${block.name} is occupied`,
      no: `${block.name} is free`,
    });
  }
}

/** A command is remembered, so that a turnout is driven to where it was last sent; it is refused while anything locks it. */
function composePoints(scheme: Scheme, book: RuleBook, each: Each): void {
  for (const motor of scheme.partition.graph.motors) {
    const { id: about, name: called, lies } = motor;
    book.input(['contact', motor.index], names.points(motor), 'position', { about, yes: `${called} lies {}`, no: '' });
    each('motor', (pattern, own) => pattern.motor?.(scheme, motor, own));
    const locks = gather('lock', (pattern, own) => pattern.lock?.(scheme, motor, own), book.declarations);
    book.flag(['locked', motor.index], names.locked(motor), 'bool', or(...exprs(locks)), {
      about,
      yes: `${called} is locked`,
      no: `${called} may be thrown`,
    });
    const asked = (position: TurnoutPosition): Expr =>
      and(
        or(...exprs(gather('asked', (pattern) => pattern.asked?.(scheme, motor, position)))),
        not(name(names.locked(motor))),
      );
    book.output(
      ['drive', motor.index],
      names.drive(motor),
      'bool',
      { op: 'RS', set: asked('diverging'), reset: asked('straight'), starts: lies === 'diverging' },
      { about, yes: `${called} is driven to diverging`, no: `${called} is driven to straight` },
    );
  }
}

function composeSignals(scheme: Scheme, book: RuleBook, each: Each): void {
  for (const reading of scheme.readings) {
    const { signal } = reading;
    const about = signal.id;
    each('signal', (pattern, own) => pattern.signal?.(scheme, reading, own));
    const routes = scheme.routesOf[reading.index]!;
    for (const route of routes) composeWay(scheme, route, book);
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
    const aspects = fillers('aspect').flatMap(
      (pattern) => pattern.aspect?.(scheme, reading, new RuleBook(book.declarations, pattern.id)) ?? [],
    );
    const shown = aspects
      .slice(0, -1)
      .reduceRight<Expr>(
        (otherwise, { aspect, when: so }) => (so ? when(so, value(aspect), otherwise) : value(aspect)),
        value(aspects.at(-1)!.aspect),
      );
    const expected = expectedOf(scheme, reading, book.declarations);
    const proceeding = [false, true].reduce<Expr>((otherwise, sight) => {
      const asked = exprs(expected.filter(({ onSight = false }) => onSight === sight));
      return asked.length > 0 ? when(or(...asked), mostRestrictive(scheme, reading, sight), otherwise) : otherwise;
    }, shown);
    const stop = systemOf(scheme.document, signal.system).aspects[0];
    book.output(
      ['aspect', reading.index],
      names.shows(signal),
      'aspect',
      when(not(name(names.proceed(signal))), value(stop.id), proceeding),
      { about, yes: `${signal.name} shows {}`, no: '' },
    );
  }
}

/** A way is cleared when all that patterns ask for is so; where one of several has to be chosen, when it is the first that may be. */
function composeWay(scheme: Scheme, route: NamedRoute, book: RuleBook): void {
  const { reading, to } = route;
  const { signal } = reading;
  const about = signal.id;
  const instead = gather('instead', (pattern, own) => pattern.instead?.(scheme, route, own), book.declarations);
  const ready = exprs([...asksOf(scheme, route, instead, book.declarations), ...instead]);
  const grants = fillers('grant').flatMap((pattern) => pattern.grant?.(scheme, route) ?? []);
  const granted = grants.length === 0 ? ready : [name(names.may(route))];
  if (grants.length > 0) {
    /** Rivals ask whether it may be granted, whoever decides it. */
    const needs = instead.length > 0 ? [] : grants.flatMap((grant) => exprs(grant.needs));
    book.rule(names.may(route), 'bool', and(...ready, ...needs), {
      about,
      yes: `${signal.name} to ${to} may be granted`,
      no: `${signal.name} to ${to} may not be granted`,
    });
    if (instead.length === 0) granted.push(...grants.flatMap(({ before }) => exprs(before)));
  }
  const besides = exprs(besidesOf(scheme, route));
  book.rule(names.go(route), 'bool', besides.length > 0 ? or(and(...granted), ...besides) : and(...granted), {
    about,
    yes: `${signal.name} is cleared to ${to}`,
    no: `${signal.name} is not cleared to ${to}`,
  });
}
