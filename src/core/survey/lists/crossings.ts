import type { InferType } from 'yup';
import { amount, certainty, choice, id, LONGEST_NAME, lengthSchema, placeSchema, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const crossingSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice('diamond', 'single slip', 'double slip', 'crossover', 'scissors'),
  a: placeSchema,
  b: placeSchema,
  angleDegrees: amount(1, 90),
  clearance: lengthSchema,
  certainty: certainty(),
});
export type Crossing = InferType<typeof crossingSchema>;

export const crossings: ListKind<Crossing> = {
  title: 'Crossing',
  prefix: 'c',
  most: 1000,
  schema: crossingSchema,
  refers: [
    { at: 'a.line', to: 'lines', whenGone: 'goes too', distances: ['a.at'] },
    { at: 'b.line', to: 'lines', whenGone: 'goes too', distances: ['b.at'] },
  ],
  longestName: LONGEST_NAME.thing,
};
