import type { InferType } from 'yup';
import { choice, count, freeText, id, LONGEST_NAME, placeSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const detectorSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice('current'),
  anchor: placeSchema,
  /** How long “occupied” is kept after the last axle was seen, to hide drop-outs. */
  holdMs: count(0, 60_000),
  input: freeText(40),
});
export type Detector = InferType<typeof detectorSchema>;

export const detectors: ListKind<Detector> = {
  title: 'Detector',
  prefix: 'd',
  most: 5000,
  schema: detectorSchema,
  refers: [{ at: 'anchor.line', to: 'lines', whenGone: 'goes too', distances: ['anchor.at'] }],
  longestName: LONGEST_NAME.thing,
};
