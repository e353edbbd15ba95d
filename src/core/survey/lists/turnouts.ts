import type { InferType } from 'yup';
import { refuse } from '../refused';
import { certainty, choice, count, id, LONGEST_NAME, lengthSchema, lineEndSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const turnoutSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  line: id(),
  /** The blade tips. */
  at: lengthSchema,
  /** The legs spread towards increasing distance (up) or decreasing distance (down). */
  facing: choice('up', 'down'),
  hand: choice('left', 'right'),
  /** The end of the line that is the diverging leg; that line's own end is at the blade tips. */
  diverging: lineEndSchema,
  /** Only where the turnout ends its line: the line that goes on as the straight leg. */
  straight: lineEndSchema.optional().default(undefined),
  /** From the blade tips to the clearance (fouling) point, along either leg. */
  clearance: lengthSchema,
  motor: choice('hand', 'snap', 'slow'),
  throwMs: count(0, 60_000),
  spareContacts: count(0, 8),
  lies: choice('straight', 'diverging'),
  throwsWith: id().optional().default(undefined),
  certainty: certainty(),
});
export type Turnout = InferType<typeof turnoutSchema>;

const keepsLine = { keeps: 'has points' };

export const turnouts: ListKind<Turnout> = {
  title: 'Turnout',
  prefix: 't',
  most: 4000,
  schema: turnoutSchema,
  chosen: true,
  refers: [
    { at: 'line', to: 'lines', whenGone: keepsLine, distances: ['at'] },
    { at: 'diverging.line', to: 'lines', whenGone: keepsLine, takesEnd: true },
    { at: 'straight.line', to: 'lines', whenGone: keepsLine, takesEnd: true },
    { at: 'throwsWith', to: 'turnouts', whenGone: { without: 'throwsWith' } },
  ],
  longestName: LONGEST_NAME.thing,
  faults({ name, line, at, facing, straight }, tell, { lengthOf, takeEnd }) {
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
  takesAlong({ name, diverging: { line } }, document) {
    const standing = [...document.features, ...document.turnouts].some((thing) => thing.line === line);
    const track = document.lines.find(({ id: of }) => of === line)!.name;
    if (standing) refuse(`Track ${track} leads from ${name} and still has things on it. Delete those first.`);
    return [line, ...document.turnouts.filter((other) => other.diverging.line === line).map(({ id: of }) => of)];
  },
  andAll: ' and its track',
};
