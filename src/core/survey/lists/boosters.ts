import type { InferType } from 'yup';
import { id, LONGEST_NAME, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const boosterSchema = record({ id: id(), name: text(LONGEST_NAME.thing) });
export type Booster = InferType<typeof boosterSchema>;

export const boosters: ListKind<Booster> = {
  title: 'Booster',
  prefix: 'bo',
  since: 7,
  most: 100,
  schema: boosterSchema,
  refers: [],
  longestName: LONGEST_NAME.thing,
};
