import { type InferType, number, object } from 'yup';
import { facing, id, LONGEST_NAME, lengthSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const lineSchema = record({
  id: id(),
  name: text(LONGEST_NAME.track),
  length: lengthSchema,
  /** The direction of running, where trains run it one way only. */
  running: facing().optional().default(undefined),
  /** Hints for the straightened drawing; the drawing itself is always computed. */
  drawing: object({ row: number().integer('must be a whole number').min(-40).max(40) })
    .noUnknown()
    .optional()
    .default(undefined),
});
export type Line = InferType<typeof lineSchema>;

export const lines: ListKind<Line> = {
  title: 'Line',
  prefix: 'L',
  most: 2000,
  schema: lineSchema,
  refers: [],
  longestName: LONGEST_NAME.track,
  faults({ name, length }, tell) {
    if (length.tenthUm === 0) tell('length', `Line “${name}” has no length.`, 'Give its length by tape.');
  },
  andAll: ' and all that is on it',
};
