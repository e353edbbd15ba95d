import type { Route, SignalReading } from './routes';

/** One route of a signal as something that it lets trains into. */
export interface LettingIn {
  signal: number;
  /** The blocks up to the next signal. */
  blocks: readonly number[];
  /** The block before it: a train that still stands there, too, is just passing. */
  rear: number;
  /** How motors have to lie. */
  lies: Route['conditions'];
}

const found = new WeakMap<readonly SignalReading[], readonly LettingIn[]>();

/** Every route of every signal; the same list for the same readings. */
export function lettingIn(readings: readonly SignalReading[]): readonly LettingIn[] {
  const known = found.get(readings);
  if (known) return known;
  const list = readings.flatMap(({ index, rear, routes }) =>
    routes.map(({ blocks, conditions }) => ({
      signal: index,
      blocks: blocks.map(({ block }) => block),
      rear,
      lies: conditions,
    })),
  );
  found.set(readings, list);
  return list;
}

/** Whether a train that holds some blocks stands on that route, and is not just coming past the signal. */
export const standsOn = ({ blocks, rear }: LettingIn, held: readonly number[]): boolean =>
  !held.includes(rear) && held.some((block) => blocks.includes(block));
