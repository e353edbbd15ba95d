import type { InferType } from 'yup';
import { freeText, id, LONGEST_NAME, lengthSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const areaSchema = record({
  id: id(),
  name: text(LONGEST_NAME.track),
  line: id(),
  from: lengthSchema,
  to: lengthSchema,
  purpose: freeText(400),
});
export type Area = InferType<typeof areaSchema>;

export const areas: ListKind<Area> = {
  title: 'Area',
  prefix: 'a',
  most: 500,
  schema: areaSchema,
  refers: [{ at: 'line', to: 'lines', whenGone: 'goes too', distances: ['from', 'to'] }],
  faults({ name, from, to }, tell) {
    if (to.tenthUm <= from.tenthUm) tell('to', `Area “${name}” ends before it begins.`, 'Swap the two distances.');
  },
};
