import type { InferType } from 'yup';
import { id, lineEndSchema, record } from '../schema-parts';
import type { ListKind } from './kind';

export const joinSchema = record({ id: id(), a: lineEndSchema, b: lineEndSchema });
export type Join = InferType<typeof joinSchema>;

export const joins: ListKind<Join> = {
  title: 'Join',
  prefix: 'j',
  most: 4000,
  schema: joinSchema,
  refers: [
    { at: 'a.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
    { at: 'b.line', to: 'lines', whenGone: 'goes too', takesEnd: true },
  ],
};
