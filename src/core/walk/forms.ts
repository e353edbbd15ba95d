import { crossingAngle, type TenthUm, type TypedLength } from '../measure';
import { asTyped, type Facing, type LineEnd, type Turnout } from '../survey';
import { usualClearance } from './clearance';
import * as part from './parts';
import type { Fresh, Phrase } from './phrase';
import type { Addition, Values, Walk } from './walk';

/** A form of track that is several things at once. It is written out as what it consists of. */
interface Form extends Phrase {
  says: () => [];
}

// biome-ignore lint/suspicious/noExplicitAny: each part knows its own value
const parts = (...own: part.Part<any>[]): readonly part.Part[] => own;
const hand = part.oneOf('hand', ['left', 'right'] as const, 'right');
const facing = part.oneOf<Facing>('facing', () => ({ facing: 'up', trailing: 'down' }), 'up');
const number = part.labelled('no', part.number('number', '', 6), 'Say its crossing number: no 6.');
const long = (key: string, asks: string, otherwise?: (values: Walk) => TypedLength | undefined) =>
  part.labelled('long', part.length(key, otherwise), asks);

/** What a form builds with. */
class Builder {
  readonly things: Addition[] = [];

  constructor(
    private readonly walk: Walk,
    private readonly fresh: Fresh,
    private readonly values: Values,
  ) {}

  private get number(): number {
    return this.values.number as number;
  }
  typed = (tenthUm: TenthUm): TypedLength => asTyped(Math.round(tenthUm), this.walk.document.shownUnit);
  /** A turnout of the crossing number that was said; returns its id. */
  turnout(
    line: string,
    at: TypedLength,
    facing: Facing,
    hand: Turnout['hand'],
    leads: LineEnd,
    more: Values = {},
  ): string {
    const id = this.fresh.id('turnouts');
    const thing: Addition['thing'] = {
      id,
      name: this.fresh.name('T'),
      kind: 'turnout',
      line,
      at,
      facing,
      hand,
      legs: [leads],
      number: this.number,
      clearance: usualClearance(this.walk.document, this.number),
      motor: 'snap',
      throwMs: 500,
      spareContacts: 0,
      lies: ['straight'],
      certainty: 'tentative',
      ...more,
    };
    this.things.push({ list: 'turnouts', thing });
    return id;
  }
  line(name: string | undefined, length: TypedLength): string {
    const id = this.fresh.id('lines');
    this.things.push({ list: 'lines', thing: { id, name: name ?? `Track ${id.slice(1)}`, length } });
    return id;
  }
  join(a: LineEnd, b: LineEnd): void {
    this.things.push({ list: 'joins', thing: { id: this.fresh.id('joins'), a, b } });
  }
  /** Two tracks that cross in their middles. */
  crossing(one: string, two: string, at: TypedLength): void {
    const thing: Addition['thing'] = {
      id: this.fresh.id('crossings'),
      name: this.fresh.name('X'),
      kind: 'diamond',
      a: { line: one, at },
      b: { line: two, at },
      angleDegrees: Math.min(90, Math.round(2 * crossingAngle(this.number))),
      clearance: this.typed(Math.min(at.tenthUm / 2, usualClearance(this.walk.document, this.number).tenthUm)),
      certainty: 'tentative',
    };
    this.things.push({ list: 'crossings', thing });
  }
  buffer(line: string, at: TypedLength): void {
    const id = this.fresh.id('features', 'x');
    this.things.push({ list: 'features', thing: { id, kind: 'buffer', line, at, certainty: 'tentative' } });
  }
  /** A track from one line to another that runs beside it the same way, with turnouts that throw together; of a pair. */
  link(
    from: string,
    at: TypedLength,
    to: string,
    end: TypedLength,
    side: Turnout['hand'],
    length: TypedLength,
    first?: string,
  ) {
    const track = this.line(undefined, length);
    const throwsWith = first === undefined ? {} : { throwsWith: first };
    const one = this.turnout(from, at, 'up', side, { line: track, end: 'start' }, throwsWith);
    this.turnout(to, end, 'down', side, { line: track, end: 'end' }, { throwsWith: first ?? one });
    return { track, first: first ?? one };
  }
}

const form = (
  head: string,
  means: string,
  own: readonly part.Part[],
  build: (b: Builder, values: Values, walk: Walk) => void,
): Form => ({
  head,
  means,
  parts: [...own, number as part.Part],
  adds(values, walk, fresh) {
    const builder = new Builder(walk, fresh, values);
    build(builder, values, walk);
    return builder.things;
  },
  says: () => [],
});

const opposite = (side: Turnout['hand']): Turnout['hand'] => (side === 'left' ? 'right' : 'left');

/** Forms of track that can be said in one phrase. */
export const FORMS: readonly Phrase[] = [
  form(
    'passing loop',
    'A second track that leaves and comes back, with its two turnouts; as long as the stretch if nothing else is said.',
    parts(part.span(), hand, part.name(), {
      ...long('length', 'Say how long it is: long 230.'),
      otherwise: () => undefined,
    }),
    (b, { span, hand: side, name, length }, { line }) => {
      const { at, to } = span as { at: TypedLength; to: TypedLength };
      const track = b.line(name as string | undefined, (length as TypedLength) ?? b.typed(to.tenthUm - at.tenthUm));
      b.turnout(line, at, 'up', side as Turnout['hand'], { line: track, end: 'start' });
      b.turnout(line, to, 'down', opposite(side as Turnout['hand']), { line: track, end: 'end' });
    },
  ),
  form(
    'siding',
    'A track that leaves and ends at a buffer.',
    parts(part.at(), hand, facing, part.name(), long('length', 'Say how long it is: long 90.')),
    (b, { at, hand: side, facing: way, name, length }, { line }) => {
      const track = b.line(name as string | undefined, length as TypedLength);
      const up = way === 'up';
      b.turnout(line, at as TypedLength, way as Facing, side as Turnout['hand'], {
        line: track,
        end: up ? 'start' : 'end',
      });
      b.buffer(track, up ? (length as TypedLength) : b.typed(0));
    },
  ),
  form(
    'ladder',
    'Several roads beside each other, each with its turnout and a buffer.',
    parts(
      part.at(),
      part.labelled('roads', part.number('roads', ''), 'Say how many: roads 5.'),
      part.labelled('every', part.length('every'), 'Say how far one turnout is from the next: every 25.'),
      hand,
      part.name(),
      long('length', 'Say how long each road is: long 120.'),
    ),
    (b, { at, roads, every, hand: side, name, length }, { line }) => {
      const first = (at as TypedLength).tenthUm;
      const count = Math.min(30, Math.max(1, Math.round(roads as number)));
      for (let i = 0; i < count; i++) {
        const track = b.line(name === undefined ? undefined : `${name} ${i + 1}`, length as TypedLength);
        const there = i === 0 ? (at as TypedLength) : b.typed(first + i * (every as TypedLength).tenthUm);
        b.turnout(line, there, 'up', side as Turnout['hand'], { line: track, end: 'start' });
        b.buffer(track, length as TypedLength);
      }
    },
  ),
  form(
    'crossover',
    'A track to the line beside, with two turnouts that throw together.',
    parts(
      part.at(),
      part.labelled('to', part.place('other'), 'Say to which line and where: to Down 230.'),
      hand,
      long('length', 'Say how long the track between is: long 30.'),
    ),
    (b, { at, other, hand: side, length }, { line }) => {
      const { line: to, at: end } = other as { line: string; at: TypedLength };
      b.link(line, at as TypedLength, to, end, side as Turnout['hand'], length as TypedLength);
    },
  ),
  form(
    'double crossover',
    'Two crossovers that cross each other, all four turnouts thrown together.',
    parts(
      part.span(),
      part.labelled('with', part.place('other'), 'Say with which line, and where it begins there: with Down 170.'),
      hand,
      long('length', 'Say how long each track between is: long 60.'),
    ),
    (b, { span, other, hand: side, length }, { line }) => {
      const { at, to } = span as { at: TypedLength; to: TypedLength };
      const there = other as { line: string; at: TypedLength };
      const far = b.typed(there.at.tenthUm + to.tenthUm - at.tenthUm);
      const own = side as Turnout['hand'];
      const one = b.link(line, at, there.line, far, own, length as TypedLength);
      const two = b.link(there.line, there.at, line, to, opposite(own), length as TypedLength, one.first);
      const middle = b.typed((length as TypedLength).tenthUm / 2);
      b.crossing(one.track, two.track, middle);
    },
  ),
  form(
    'reverse loop',
    'The end of the line comes round to a turnout and goes back the way it came.',
    parts(part.at(), hand, part.name(), long('length', 'Say how long the track round is: long 230.')),
    (b, { at, hand: side, name, length }, { line }) => {
      const track = b.line(name as string | undefined, length as TypedLength);
      b.turnout(line, at as TypedLength, 'up', side as Turnout['hand'], { line: track, end: 'start' });
      b.join({ line, end: 'end' }, { line: track, end: 'end' });
    },
  ),
  form(
    'triangle',
    'Two legs leave in either direction and meet on a track of their own.',
    parts(
      part.span(),
      hand,
      part.name(),
      part.labelled('legs', part.length('legs'), 'Say how long each leg is: legs 120.'),
      long('length', 'Say how long the track is that they lead to: long 150.'),
    ),
    (b, { span, hand: side, name, legs, length }, { line }) => {
      const { at, to } = span as { at: TypedLength; to: TypedLength };
      const own = side as Turnout['hand'];
      const [one, two] = [b.line(undefined, legs as TypedLength), b.line(undefined, legs as TypedLength)];
      const stem = b.line(name as string | undefined, length as TypedLength);
      b.turnout(line, at, 'up', own, { line: one, end: 'start' });
      b.turnout(line, to, 'down', opposite(own), { line: two, end: 'start' });
      b.turnout(stem, b.typed(0), 'down', own, { line: two, end: 'end' }, { straight: { line: one, end: 'end' } });
    },
  ),
];
