import {
  ASPECT_SYSTEM_IDS,
  CROSSING_KIND_IDS,
  LEGS,
  legsOf,
  MOTOR_KIND_IDS,
  TURNOUT_KIND_IDS,
  TURNOUTS,
  type TurnoutKindId,
} from '../kinds';
import type { TypedLength } from '../measure';
import { asTyped, FEATURES, type Feature, type FeatureKind, type Turnout } from '../survey';
import { usualClearance } from './clearance';
import { directions } from './directions';
import * as part from './parts';
import { certainty, fixedOn, optional, type Phrase, parts, works } from './phrase';
import { area, block, detector } from './phrases-of-blocks';
import type { Addition, Values, Walk } from './walk';

/** A feature, whose fields are the parts; a stretch has its two ends in one. */
function feature(head: string, kind: FeatureKind, means: string, ...own: part.Part<never>[]): Phrase {
  return {
    head,
    means,
    parts: parts(...own, certainty, fixedOn),
    adds({ span, ...values }, { line }, fresh) {
      const id = fresh.id('features', FEATURES[kind].prefix);
      return [{ list: 'features', thing: { id, kind, line, ...values, ...(span as Values | undefined) } }];
    },
    says: ({ features }) =>
      features
        .filter((one) => one.kind === kind)
        .map((one: Feature) => {
          const { line, at } = one;
          return { line, at: at.tenthUm, values: 'to' in one ? { ...one, span: { at, to: one.to } } : { ...one } };
        }),
  };
}
// biome-ignore lint/suspicious/noExplicitAny: each part knows its own value
const of = (...own: part.Part<any>[]) => own as part.Part<never>[];

const join = (end: 'start' | 'end'): Phrase => ({
  head: end === 'end' ? 'joins' : 'start joins',
  means: `The ${end} of the line meets an end of another line, or its own other end.`,
  parts: parts(part.lineEnd('other')),
  adds: ({ other }, { line }, fresh) => [
    { list: 'joins', thing: { id: fresh.id('joins'), a: { line, end }, b: other } },
  ],
  says: ({ joins }) =>
    joins.filter(({ a }) => a.end === end).map(({ a, b }) => ({ line: a.line, at: 0, values: { other: b } })),
});

/** A track that a turnout leads to and that nobody has taped yet. */
const untaped = (unit: Walk['document']['shownUnit']): TypedLength =>
  asTyped(unit === 'cm' ? 60 * 100_000 : 24 * 254_000, unit);

const turnout: Phrase = {
  head: 'turnout',
  means:
    'A track leaves this one: left or right, facing or trailing, and where it leads. Without “to” it leads to a new track.',
  parts: parts(
    part.at(),
    part.oneOf('kind', TURNOUT_KIND_IDS, TURNOUT_KIND_IDS[0]),
    part.oneOf('hand', ['left', 'right'] as const, 'right'),
    part.oneOf<Turnout['facing']>('facing', () => ({ facing: 'up', trailing: 'down' }), 'up'),
    part.name(),
    part.labelled('straight', part.lineEnd('straight', true), 'Say where it goes straight on: straight Yard start.'),
    ...LEGS.map((leg, i) =>
      part.labelled(
        i === 0 ? 'to' : leg,
        part.lineEnd(leg, true),
        i === 0 ? 'Say where it leads: to Loop start.' : `Say where its ${leg} leg leads: ${leg} Siding start.`,
      ),
    ),
    part.labelled('no', optional(part.number('number', '')), 'Say its crossing number: no 6.'),
    part.labelled(
      'clear',
      optional(part.length('clearance')),
      'Say after how long its legs are clear of each other: clear 20.',
    ),
    part.labelled(
      'lies',
      part.severalOf('lies', ['straight', 'diverging']),
      'Say how each of its motors lies: lies straight.',
    ),
    part.labelled(
      'motor',
      part.oneOf('motor', MOTOR_KIND_IDS, 'snap'),
      `Say which: motor ${MOTOR_KIND_IDS.join(', ')}.`,
    ),
    part.labelled('throws', optional(part.number('throwMs', 'ms')), 'Say how long it takes: throws 500 ms.'),
    part.labelled('contacts', part.number('spareContacts', '', 0), 'Say how many contacts are free: contacts 1.'),
    part.labelled('with', part.turnout('throwsWith'), 'Say with which turnout it is thrown: with T2.'),
    works,
    certainty,
    fixedOn,
  ),
  adds({ name, ...values }, { document, line }, fresh) {
    const id = fresh.id('turnouts');
    const called = (name as string | undefined) ?? fresh.name('T');
    const end = values.facing === 'up' ? 'start' : 'end';
    const tracks: Addition[] = [];
    const kind = values.kind as TurnoutKindId;
    const legs = legsOf(kind).map((leg, i) => {
      if (values[leg] !== undefined) return values[leg];
      const track = fresh.id('lines');
      const length = untaped(document.shownUnit);
      tracks.push({ list: 'lines', thing: { id: track, name: `From ${called}${i === 0 ? '' : `, ${leg}`}`, length } });
      return { line: track, end };
    });
    const others = LEGS.filter((leg) => !legsOf(kind).includes(leg) && values[leg] !== undefined);
    const own = Object.fromEntries(Object.entries(values).filter(([key]) => !LEGS.includes(key)));
    const lies = values.lies ?? TURNOUTS[kind].motors.map(() => 'straight');
    const clearance = values.clearance ?? usualClearance(document, values.number as number | undefined);
    const thing = {
      ...own,
      id,
      name: called,
      line,
      legs: [...legs, ...others.map((leg) => values[leg])],
      lies,
      clearance,
    };
    return [...tracks, { list: 'turnouts', thing }];
  },
  says: (document) =>
    document.turnouts.map((one) => {
      const usual = same(one.clearance, usualClearance(document, one.number));
      const values = {
        ...one,
        ...Object.fromEntries(legsOf(one.kind).map((leg, i) => [leg, one.legs[i]])),
        clearance: usual ? undefined : one.clearance,
        lies: one.lies.some((lie) => lie !== 'straight') ? one.lies : undefined,
      };
      return { line: one.line, at: one.at.tenthUm, values };
    }),
};

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Which lines of a slip are counted the other way, in words: the one gone along is its own. */
const TURNED: Record<string, 'a' | 'b' | 'both'> = { own: 'a', other: 'b', both: 'both' };

const crossing: Phrase = {
  head: 'crossing',
  means: 'Another line crosses here: a diamond, or a slip.',
  parts: parts(
    part.at(),
    part.oneOf('kind', CROSSING_KIND_IDS, CROSSING_KIND_IDS[0]),
    part.labelled('with', part.place('b'), 'Say which line it crosses, and where: with Branch 40.'),
    part.labelled('angle', part.number('angleDegrees', '', 15), 'Say at how many degrees: angle 15.'),
    part.labelled(
      'clear',
      part.length('clearance', ({ document }) => usualClearance(document, undefined)),
      'Say after how long the tracks are clear of each other: clear 20.',
    ),
    part.labelled(
      'lies',
      part.severalOf('lies', ['straight', 'diverging']),
      'Say how each of its motors lies: lies straight diverging.',
    ),
    part.labelled('throws', optional(part.number('throwMs', 'ms')), 'Say how long it takes: throws 500 ms.'),
    part.labelled(
      'turned',
      optional(part.oneOf('turned', () => TURNED)),
      'Say which line is counted the other way: turned own, other or both.',
    ),
    part.name(),
    works,
    certainty,
    fixedOn,
  ),
  adds({ at, name, ...values }, { line }, fresh) {
    const called = name ?? fresh.name('X');
    return [{ list: 'crossings', thing: { ...values, id: fresh.id('crossings'), name: called, a: { line, at } } }];
  },
  says: ({ crossings }) =>
    crossings.map((one) => ({ line: one.a.line, at: one.a.at.tenthUm, values: { ...one, at: one.a.at } })),
};

/** How wide a road is that is said to cross at one place. */
const ROAD = { cm: asTyped(800_000, 'cm'), inch: asTyped(762_000, 'inch') };

const named = (prefix: string) => part.name('name', () => prefix);

const feederAlone = feature(
  'feeder',
  'feeder',
  'Where power comes to the track, and from which booster.',
  ...of(
    part.at(),
    named('Feeder'),
    part.labelled('booster', optional(part.word('booster')), 'Say its name: booster East.'),
    part.flag('reverses'),
  ),
);
/** A booster is known by its name; one that is spoken of for the first time is added. */
const feeder: Phrase = {
  ...feederAlone,
  adds({ booster: name, ...values }, walk, fresh) {
    if (name === undefined) return feederAlone.adds(values, walk, fresh);
    const known = walk.document.boosters.find((one) => one.name === name);
    const booster = known?.id ?? fresh.id('boosters');
    const additions = feederAlone.adds({ ...values, booster }, walk, fresh);
    return known ? additions : [{ list: 'boosters', thing: { id: booster, name } }, ...additions];
  },
  says: (document) =>
    feederAlone.says(document).map((said) => ({
      ...said,
      values: { ...said.values, booster: document.boosters.find(({ id }) => id === said.values.booster)?.name },
    })),
};

/** Everything that can be said of a line, in the order in which it is offered. */
export const PHRASES: readonly Phrase[] = [
  feature(
    'gap',
    'gap',
    'A rail is cut here.',
    ...of(part.at(), part.oneOf('rail', ['left', 'right', 'both'], 'right')),
  ),
  feature('mark', 'mark', 'A block ends here with no cut.', ...of(part.at())),
  {
    ...feature(
      'signal',
      'signal',
      'A signal, read by trains in one direction.',
      ...of(
        part.at(),
        part.oneOf('governs', directions, 'up'),
        part.name(),
        part.oneOf('system', ASPECT_SYSTEM_IDS, ASPECT_SYSTEM_IDS[0]),
        works,
      ),
    ),
    adds: ({ name, ...values }, { line }, fresh) => [
      {
        list: 'features',
        thing: {
          ...values,
          id: fresh.id('features', FEATURES.signal.prefix),
          kind: 'signal',
          line,
          name: name ?? fresh.name('S'),
        },
      },
    ],
  },
  turnout,
  crossing,
  join('end'),
  join('start'),
  detector,
  block,
  area,
  feature('platform', 'platform', 'A platform along this stretch.', ...of(part.span(), named('Platform'))),
  feature(
    'curve',
    'curve',
    'The track curves along this stretch.',
    ...of(
      part.span(),
      part.oneOf('hand', ['left', 'right'], 'right'),
      part.labelled('r', part.length('radius'), 'Say its radius: r 60.'),
    ),
  ),
  feature(
    'grade',
    'gradient',
    'The track climbs along this stretch; below zero it falls.',
    ...of(part.span(), part.number('percent', '%')),
  ),
  feature(
    'level crossing',
    'levelCrossing',
    'A road crosses along this stretch.',
    ...of(part.span(ROAD), named('Road')),
  ),
  feature('hidden', 'hidden', 'Nobody sees this stretch.', ...of(part.span())),
  feature('landmark', 'landmark', 'Something by which a place is known.', ...of(part.at(), named('Landmark'))),
  feature('limit', 'limit', 'A limit of authority, with its name.', ...of(part.at(), named('Limit'))),
  feeder,
  feature(
    'stop mark',
    'stopMark',
    'Where trains in one direction stop.',
    ...of(part.at(), part.oneOf('facing', directions, 'up')),
  ),
  feature(
    'buffer',
    'buffer',
    'The end of the track; at the end of the line if nothing else is said.',
    ...of(part.at('at', true)),
  ),
  feature('edge', 'edge', 'The track leaves the layout here.', ...of(part.at('at', true))),
  feature(
    'taped across',
    'tapedAcross',
    'From here to a place on another line was taped again, and is so long.',
    ...of(
      part.at(),
      part.labelled('to', part.place('far'), 'Say to which line and where: to Loop 40.'),
      part.labelled('is', part.length('taped'), 'Say how long it is: taped across 120 to Loop 40 is 98 cm.'),
    ),
  ),
  feature(
    'taped',
    'taped',
    'This stretch was taped again, and is so long.',
    ...of(part.span(), part.labelled('is', part.length('taped'), 'Say how long it is: taped 120 to 480 is 359 cm.')),
  ),
  feature('lift-out', 'liftOut', 'A joint of a part that can be lifted out.', ...of(part.at(), part.flag('guarded'))),
];
