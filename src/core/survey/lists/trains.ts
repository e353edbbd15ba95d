import type { InferType } from 'yup';
import { amount, choice, count, id, LONGEST_NAME, lengthSchema, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const trainSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  vehicles: list(id(), 200),
  topSpeedKmh: amount(1, 1000),
  /** Rates over the layout. */
  accelerationMmPerS2: amount(1, 5000),
  brakingMmPerS2: amount(1, 5000),
  startDelayMs: count(0, 60_000),
  brakingIs: choice('measured', 'assumed'),
  /** Where its nose stands when a rehearsal begins, and which way it faces. */
  start: record({ line: id(), at: lengthSchema, facing: choice('up', 'down') })
    .optional()
    .default(undefined),
});
export type Train = InferType<typeof trainSchema>;

export const trains: ListKind<Train> = {
  title: 'Train',
  prefix: 'tr',
  most: 200,
  schema: trainSchema,
  chosen: true,
  refers: [
    { at: 'vehicles[]', to: 'vehicles', whenGone: { keeps: 'is part of' } },
    { at: 'start.line', to: 'lines', whenGone: { without: 'start' }, distances: ['start.at'] },
  ],
  faults({ name, vehicles }, tell) {
    if (vehicles.length === 0) tell('vehicles', `Train “${name}” has no vehicles.`, 'Give it at least one.');
  },
  /** The vehicles that run in no other train. */
  takesAlong({ id: gone, vehicles }, document) {
    const others = new Set(document.trains.flatMap((train) => (train.id === gone ? [] : train.vehicles)));
    return vehicles.filter((vehicle) => !others.has(vehicle));
  },
};
