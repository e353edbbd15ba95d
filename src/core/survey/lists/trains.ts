import type { InferType } from 'yup';
import { amount, choice, count, id, LONGEST_NAME, lengthSchema, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

export const MOST_VEHICLES = 200;

/** What is known of how a train runs. */
export const RUNNING = ['top speed', 'acceleration', 'braking', 'start delay'] as const;

export const trainSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  /** Nose first. */
  vehicles: list(id(), MOST_VEHICLES),
  /** Which of them run the other way round, by place from the nose, which is 0. */
  turned: list(count(0, MOST_VEHICLES - 1), MOST_VEHICLES)
    .optional()
    .default(undefined),
  topSpeedKmh: amount(1, 1000),
  /** Rates over the layout. */
  accelerationMmPerS2: amount(1, 5000),
  brakingMmPerS2: amount(1, 5000),
  startDelayMs: count(0, 60_000),
  /** What of that was measured; the rest is assumed. */
  measured: list(choice(...RUNNING), RUNNING.length),
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
  faults({ name, vehicles, turned = [] }, tell) {
    if (turned.some((place) => place >= vehicles.length))
      tell('turned', `Train “${name}” turns a vehicle that it has not.`, 'Leave that place out of “turned”.');
    if (vehicles.length === 0) tell('vehicles', `Train “${name}” has no vehicles.`, 'Give it at least one.');
  },
  /** The vehicles that run in no other train. */
  takesAlong({ id: gone, vehicles }, document) {
    const others = new Set(document.trains.flatMap((train) => (train.id === gone ? [] : train.vehicles)));
    return vehicles.filter((vehicle) => !others.has(vehicle));
  },
};
