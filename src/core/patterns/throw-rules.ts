import { and, type Expr, is, name, not, or } from '../logic';
import type { ThrowRule, TurnoutPosition } from '../survey';
import type { Motor } from '../track';
import { rises } from './ahead';
import { byScheme } from './by-scheme';
import { groupOf } from './groups';
import * as names from './names';
import type { Pattern } from './pattern';
import type { Scheme } from './scheme';

/** Whoever works points one by one goes before what trains ask for. */
const AFTER_HAND = -1;

/**
 * Rules of somebody's own by which trains throw turnouts, put together in words: when a train comes into a block, from another if that is said, while
 * some blocks are free, the points are to lie so. That is remembered until they do, or until another rule asks for the opposite.
 */
export const throwRules: Pattern = {
  id: 'throw rules',
  off: 'no train throws them by such a rule',
  motor(scheme, motor, book) {
    const own = rulesOf(scheme, motor);
    if (own.length === 0) return;
    const { id: about, name: called, index } = motor;
    book.input(['points switched off', index, 'rules'], names.switchedOff(motor, 'rules'), 'bool', {
      about,
      yes: `Throw rules of ${called} are switched off`,
      no: `Throw rules of ${called} are on`,
    });
    for (const rule of own)
      book.rule(names.comesAbout(rule), 'bool', happens(motor, rule), {
        about,
        yes: `Just now ${sayWhen(scheme, rule, true)}`,
        no: `Not just now ${sayWhen(scheme, rule, true)}`,
      });
    for (const rule of own) {
      const against = own
        .filter(({ position }) => position !== rule.position)
        .map((one) => name(names.comesAbout(one)));
      book.rule(
        names.wanted(rule),
        'bool',
        {
          op: 'RS',
          set: name(names.comesAbout(rule)),
          reset: or(is(name(names.points(motor)), rule.position), ...against),
          starts: false,
        },
        {
          about,
          yes: `${called} is to lie ${rule.position}, since ${sayWhen(scheme, rule, true)}`,
          no: `${called} is not to lie ${rule.position} since ${sayWhen(scheme, rule, true)}`,
        },
      );
    }
  },
  asked: (scheme, { motor, position }) =>
    groupOf(scheme, motor).flatMap((one) =>
      rulesOf(scheme, one)
        .filter((rule) => rule.position === position)
        .map((rule) => ({
          expr: name(names.wanted(rule)),
          says: sayWhen(scheme, rule, true),
          priority: AFTER_HAND,
        })),
    ),
  forced: (scheme, { motor, position }) =>
    rulesOf(scheme, motor)
      .filter((rule) => rule.unlocked && rule.position === position)
      .map((rule) => ({ expr: name(names.wanted(rule)), says: sayWhen(scheme, rule, true) })),
};

const byMotor = byScheme((scheme): ReadonlyMap<string, readonly ThrowRule[]> => {
  const blocks = new Set<string>(scheme.partition.blocks.map(({ id }) => id));
  const found = new Map<string, ThrowRule[]>();
  for (const rule of scheme.document.throwRules) {
    const { motor, comesInto, from, free } = rule;
    if (![comesInto, ...(from ? [from] : []), ...free].every((id) => blocks.has(id))) continue;
    found.set(motor, [...(found.get(motor) ?? []), rule]);
  }
  return found;
});

/** The throw rules of a motor that name only what is there. */
export const rulesOf = (scheme: Scheme, { id }: Pick<Motor, 'id'>): readonly ThrowRule[] =>
  byMotor(scheme).get(id) ?? [];

/** The moment in which it comes about. */
const happens = (motor: Motor, { comesInto, from, free }: ThrowRule): Expr =>
  and(
    not(name(names.switchedOff(motor, 'rules'))),
    rises(names.occupied({ id: comesInto })),
    ...(from ? [name(names.occupied({ id: from }))] : []),
    ...free.map((id) => not(name(names.occupied({ id })))),
  );

const AND = new Intl.ListFormat('en');

/** When it comes about, in words: “a train comes into B3 from B2 and Yard is free”; `came`, of what has come about. */
export function sayWhen({ partition }: Pick<Scheme, 'partition'>, rule: ThrowRule, came = false): string {
  const called = (id: string) => partition.blocks.find((block) => block.id === id)?.name ?? 'a block that is gone';
  const from = rule.from === undefined ? '' : ` from ${called(rule.from)}`;
  const free = AND.format(rule.free.map(called));
  const verb = rule.free.length === 1 ? ['is', 'was'] : ['are', 'were'];
  const whileFree =
    rule.free.length === 0 ? '' : came ? ` while ${free} ${verb[1]} free` : ` and ${free} ${verb[0]} free`;
  return `a train ${came ? 'came' : 'comes'} into ${called(rule.comesInto)}${from}${whileFree}`;
}

/** What it does, in words. */
export const sayThrow = (scheme: Pick<Scheme, 'partition'>, rule: ThrowRule): string => {
  const motor = scheme.partition.graph.motors.find(({ id }) => id === rule.motor)?.name ?? 'points that are gone';
  const locks = rule.unlocked ? ', whatever locks it' : '';
  return `When ${sayWhen(scheme, rule)}, set ${motor} ${rule.position satisfies TurnoutPosition}${locks}.`;
};
