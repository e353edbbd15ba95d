import type { InferType } from 'yup';
import { legsOf, MOTOR_KIND_IDS, TURNOUT_KIND_IDS, TURNOUTS } from '../../kinds';
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
  list,
  patterns,
  record,
  settings,
  text,
} from '../schema-parts';
import type { ListKind } from './kind';

/** More legs than any points have. */
const MOST_LEGS = 8;

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
  /** The ends of the lines that are its other legs than the straight one, in the order of the ports of its kind; these ends are at the blade tips. */
  legs: list(lineEndSchema, MOST_LEGS),
  /** Only where the turnout ends its line: the line that goes on as the straight leg. */
  straight: lineEndSchema.optional().default(undefined),
  /** Its crossing number: one in so many. */
  number: amount(2, 40).optional().default(undefined),
  /** From the blade tips to the clearance (fouling) point, along either leg. */
  clearance: lengthSchema,
  motor: choice(...MOTOR_KIND_IDS),
  /** How long it takes to move over, where that is known; else as long as such motors usually do. */
  throwMs: count(0, 60_000).optional().default(undefined),
  spareContacts: count(0, 8),
  /** How each of its motors lies at the start, in the order of its kind. */
  lies: list(lie(), MOST_LEGS),
  throwsWith: id().optional().default(undefined),
  patterns: patterns(),
  settings: settings(),
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
    { at: 'legs[].line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'straight.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'throwsWith', to: 'turnouts', whenGone: { without: 'throwsWith' } },
  ],
  longestName: LONGEST_NAME.thing,
  faults({ name, kind, line, at, facing, straight, legs, lies }, tell, { lengthOf, takeEnd }) {
    const { motors } = TURNOUTS[kind];
    const wanted = legsOf(kind).length;
    const title = TURNOUTS[kind].title.toLowerCase();
    if (legs.length !== wanted)
      tell(
        'legs',
        `${name} is a ${title}, of which ${wanted + 1} legs lead somewhere, and ${legs.length + 1} do.`,
        'Say for each leg but the straight one where it leads, or make it points of another kind.',
      );
    if (lies.length !== motors.length)
      tell(
        'lies',
        `${name} is a ${title}, which has ${motors.length === 1 ? 'one motor' : `${motors.length} motors`}, and ${lies.length} are said to lie some way.`,
        'Say it for each motor.',
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
  takesAlong: ({ name, legs }, document) => legs.flatMap(({ line }) => trackAlong(name, line, document)),
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
    ...document.turnouts.filter(({ legs }) => legs.some((leg) => leg.line === line)).map(({ id: of }) => of),
  ];
}
