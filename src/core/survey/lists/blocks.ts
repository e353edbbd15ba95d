import type { InferType } from 'yup';
import { id, LONGEST_NAME, placeSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/** The name of the block that a place lies in. */
export const blockSchema = record({ id: id(), name: text(LONGEST_NAME.thing), anchor: placeSchema });
export type BlockName = InferType<typeof blockSchema>;

export const blocks: ListKind<BlockName> = {
  title: 'Block',
  prefix: 'b',
  most: 5000,
  schema: blockSchema,
  refers: [{ at: 'anchor.line', to: 'lines', whenGone: 'goes too', distances: ['anchor.at'] }],
};
