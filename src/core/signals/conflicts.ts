import type { TurnoutPosition } from '../survey';
import { canBothBeSet, type SignalReading } from './routes';

/** Two signals whose routes lead through one block, for one lie of the points: they must never show proceed at once. */
export interface Conflict {
  one: number;
  two: number;
  block: number;
  lies: readonly { motor: number; position: TurnoutPosition }[];
}

const found = new WeakMap<readonly SignalReading[], readonly Conflict[]>();

/** Every such pair, once for each block and lie of the points; the same list for the same readings. */
export function conflictsOf(readings: readonly SignalReading[]): readonly Conflict[] {
  const known = found.get(readings);
  if (known) return known;
  const through = new Map<number, { signal: number; route: SignalReading['routes'][number] }[]>();
  for (const { index, routes } of readings)
    for (const route of routes)
      for (const { block } of route.blocks)
        through.set(block, [...(through.get(block) ?? []), { signal: index, route }]);
  const conflicts = new Map<string, Conflict>();
  for (const [block, all] of through)
    all.forEach((a, i) => {
      for (const b of all.slice(i + 1)) {
        if (a.signal === b.signal || !canBothBeSet(a.route, b.route)) continue;
        const lies = new Map([...a.route.conditions, ...b.route.conditions].map((c) => [c.motor, c]));
        const key = `${a.signal} ${b.signal} ${[...lies.values()].map((c) => `${c.motor} ${c.position}`).sort()}`;
        if (!conflicts.has(key)) conflicts.set(key, { one: a.signal, two: b.signal, block, lies: [...lies.values()] });
      }
    });
  const list = [...conflicts.values()];
  found.set(readings, list);
  return list;
}

/** The first two signals that let trains into one block now, if any do. */
export const conflictNow = (
  readings: readonly SignalReading[],
  proceeds: (signal: number) => boolean,
  lies: (motor: number) => TurnoutPosition | 'between' | undefined,
): Conflict | undefined =>
  conflictsOf(readings).find(
    ({ one, two, lies: needed }) =>
      proceeds(one) && proceeds(two) && needed.every(({ motor, position }) => lies(motor) === position),
  );
