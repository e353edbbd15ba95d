import type { InferType } from 'yup';
import { amount, choice, freeText, id, LONGEST_NAME, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/** What runs regularly: which train, from where to where, how often. */
export const movementSchema = record({
  id: id(),
  train: id(),
  /** In the words of people: the names of areas, blocks, tracks. */
  from: text(LONGEST_NAME.track),
  to: text(LONGEST_NAME.track),
  facing: choice('up', 'down'),
  perHour: amount(0.1, 60),
  /** It turns back there. */
  turnsBack: choice('no', 'engine', 'train'),
  notes: freeText(200),
});
export type Movement = InferType<typeof movementSchema>;

export const movements: ListKind<Movement> = {
  title: 'Movement',
  prefix: 'mv',
  since: 5,
  most: 300,
  schema: movementSchema,
  refers: [{ at: 'train', to: 'trains', whenGone: 'goes too' }],
};
