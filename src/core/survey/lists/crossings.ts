import type { InferType } from 'yup';
import { CROSSING_KIND_IDS, CROSSINGS } from '../../kinds';
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
  list,
  patterns,
  placeSchema,
  record,
  settings,
  text,
} from '../schema-parts';
import type { ListKind } from './kind';

export const crossingSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice(...CROSSING_KIND_IDS),
  a: placeSchema,
  b: placeSchema,
  angleDegrees: amount(1, 90),
  clearance: lengthSchema,
  /** Which of its lines are counted the other way than its kind takes them: the curves of a slip lead from the lower side of one line to the higher of the other. */
  turned: choice('a', 'b', 'both').optional().default(undefined),
  /** How its motors lie at the start, in the order of its kind, and how long each takes; straight and as a turnout where it is not said. */
  lies: list(lie(), 4).optional().default(undefined),
  throwMs: count(0, 60_000).optional().default(undefined),
  patterns: patterns(),
  settings: settings(),
  certainty: certainty(),
  fixedOn: fixedOn(),
});
export type Crossing = InferType<typeof crossingSchema>;

export const crossings: ListKind<Crossing> = {
  title: 'Crossing',
  titleOf: ({ kind }) => CROSSINGS[kind].title,
  prefix: 'c',
  most: 1000,
  schema: crossingSchema,
  refers: [
    { at: 'a.line', to: 'lines', whenGone: 'goes too', distances: ['a.at'] },
    { at: 'b.line', to: 'lines', whenGone: 'goes too', distances: ['b.at'] },
  ],
  longestName: LONGEST_NAME.thing,
  faults({ name, kind, lies }, tell) {
    const { motors, title } = CROSSINGS[kind];
    if (lies && lies.length !== motors.length)
      tell(
        'lies',
        `${name} is a ${title.toLowerCase()} with ${motors.length} motors, and ${lies.length} are said to lie some way.`,
        'Say it for each motor, or leave “lies” out.',
      );
  },
};
