import type { InferType } from 'yup';
import { TURNOUT_KIND_IDS, TURNOUTS } from '../../kinds';
import { refuse } from '../refused';
import type { LayoutDocument } from '../schema';
import {
  amount,
  certainty,
  choice,
  count,
  fixedOn,
  id,
  LONGEST_NAME,
  lengthSchema,
  lie,
  lineEndSchema,
  patterns,
  record,
  text,
} from '../schema-parts';
import type { ListKind } from './kind';

export const turnoutSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  line: id(),
  /** The blade tips. */
  at: lengthSchema,
  kind: choice(...TURNOUT_KIND_IDS),
  /** The legs spread towards increasing distance (up) or decreasing distance (down). */
  facing: choice('up', 'down'),
  hand: choice('left', 'right'),
  /** The end of the line that is the diverging leg; that line's own end is at the blade tips. */
  diverging: lineEndSchema,
  /** Only where the turnout ends its line: the line that goes on as the straight leg. */
  straight: lineEndSchema.optional().default(undefined),
  /** Only of a three-way turnout: the end of the line that is its other leg, and how its second motor lies at the start. */
  second: lineEndSchema.optional().default(undefined),
  secondLies: lie().optional().default(undefined),
  /** Its crossing number: one in so many. */
  number: amount(2, 40).optional().default(undefined),
  /** From the blade tips to the clearance (fouling) point, along either leg. */
  clearance: lengthSchema,
  motor: choice('hand', 'snap', 'slow'),
  throwMs: count(0, 60_000),
  spareContacts: count(0, 8),
  lies: lie(),
  throwsWith: id().optional().default(undefined),
  patterns: patterns(),
  certainty: certainty(),
  fixedOn: fixedOn(),
});
export type Turnout = InferType<typeof turnoutSchema>;

export const turnouts: ListKind<Turnout> = {
  title: 'Turnout',
  titleOf: ({ kind }) => TURNOUTS[kind].title,
  prefix: 't',
  most: 4000,
  schema: turnoutSchema,
  chosen: true,
  refers: [
    { at: 'line', to: 'lines', whenGone: 'goes too', distances: ['at'] },
    { at: 'diverging.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'second.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'straight.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'throwsWith', to: 'turnouts', whenGone: { without: 'throwsWith' } },
  ],
  longestName: LONGEST_NAME.thing,
  faults({ name, kind, line, at, facing, straight, second }, tell, { lengthOf, takeEnd }) {
    const legs = TURNOUTS[kind].ports.length - 1;
    if ((legs === 3) !== (second !== undefined))
      tell(
        'second',
        legs === 3
          ? `${name} has three legs, and only two lead somewhere.`
          : `${name} has two legs, and three lead somewhere.`,
        legs === 3 ? 'Say which line is its second leg.' : 'Leave “second” out, or make it a three-way turnout.',
      );
    const length = lengthOf(line);
    const legLess = facing === 'up' ? at.tenthUm === length : at.tenthUm === 0;
    if (straight) {
      takeEnd('at', { line, end: facing === 'up' ? 'end' : 'start' });
      if (length !== undefined && !legLess)
        tell(
          'straight',
          `${name} stands in the middle of its line, which is its straight leg already.`,
          'Leave “straight” out, or end the line at the blade tips.',
        );
    } else if (length !== undefined && legLess)
      tell(
        'at',
        `${name} has no straight leg: its line ends at the blade tips.`,
        'Move it, lengthen the line, or say which line is the straight leg.',
      );
  },
  /** The track that it leads to, and the turnout by which that track comes back. */
  takesAlong({ name, diverging, second }, document) {
    const legs = [diverging, ...(second ? [second] : [])].map(({ line }) => line);
    return legs.flatMap((line) => trackAlong(name, line, document));
  },
  andAll: ' and its track',
};

/** A track that leads from points, and the points by which it comes back; not while anything stands on it. */
function trackAlong(name: string, line: string, document: LayoutDocument): string[] {
  const standing = [...document.features, ...document.turnouts].some((thing) => thing.line === line);
  const track = document.lines.find(({ id: of }) => of === line)!.name;
  if (standing)
    refuse(
      `Track ${track} leads from ${name} and still has things on it. Delete those first, or that line with all that is on it.`,
    );
  return [
    line,
    ...document.turnouts
      .filter((other) => [other.diverging, other.second].some((leg) => leg?.line === line))
      .map(({ id: of }) => of),
  ];
}
