import type { InferType } from 'yup';
import { ADMISSION_IDS, EMPTY_POST_IDS } from '../../kinds';
import { amount, choice, freeText, id, LONGEST_NAME, lengthSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const areaSchema = record({
  id: id(),
  name: text(LONGEST_NAME.track),
  line: id(),
  from: lengthSchema,
  to: lengthSchema,
  purpose: freeText(400),
  /** How trains are let in; undefined as long as nobody has decided it. */
  admits: choice(...ADMISSION_IDS)
    .optional()
    .default(undefined),
  /** What the signals of its post show while nobody is there. */
  whenEmpty: choice(...EMPTY_POST_IDS)
    .optional()
    .default(undefined),
  /** The fastest that trains may run in it, at full size. */
  speedKmh: amount(1, 1000).optional().default(undefined),
  /** What may come in. */
  comesIn: freeText(200).optional().default(undefined),
  /** What is left out on purpose, and why. */
  leavesOut: freeText(400).optional().default(undefined),
});
export type Area = InferType<typeof areaSchema>;

export const areas: ListKind<Area> = {
  title: 'Area',
  prefix: 'a',
  most: 500,
  longestName: LONGEST_NAME.track,
  schema: areaSchema,
  refers: [{ at: 'line', to: 'lines', whenGone: 'goes too', distances: ['from', 'to'] }],
  faults({ name, from, to }, tell) {
    if (to.tenthUm <= from.tenthUm) tell('to', `Area “${name}” ends before it begins.`, 'Swap the two distances.');
  },
};
