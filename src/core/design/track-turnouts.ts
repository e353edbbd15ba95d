import { divergingHeld, groupOf } from '../patterns';
import { signalsOf } from '../survey';
import type { Design } from './check-design';
import type { LockingRow } from './locking-table';

interface Thing {
  id: string;
  name: string;
}

/** A turnout that trains of one track meet beyond a signal, and what that shows for either position of it. */
export interface TrackTurnout {
  id: string;
  /** The track on which the signal stands, and in which direction it is read. */
  track: Thing;
  read: string;
  signal: Thing;
  motor: Thing;
  facing: boolean;
  /** What the signal can show while the points lie so; only stop where nothing is named. */
  shows: { straight: string[]; diverging: string[] };
  /** Somebody chose stop for whatever leads aside there. */
  held: boolean;
  /** What throws together with it. */
  together: string[];
}

/**
 * For every signal of every track, the turnouts on its routes: a trailing one that lies against it always means stop; a facing one that leads aside
 * is held, or cleared with what the signal shows for that. Read off the rules, as the locking table is.
 */
export function trackTurnouts({ scheme }: Pick<Design, 'scheme'>, rows: readonly LockingRow[]): TrackTurnout[] {
  const { document, partition, routesOf, readings } = scheme;
  const row = new Map(rows.map((one) => [one.id, one]));
  const chosen = new Map(signalsOf(document).map(({ id, patterns }) => [id, patterns ?? []]));
  return readings.flatMap(({ signal, index }) => {
    const found = new Map<number, TrackTurnout>();
    for (const { id, route } of routesOf[index]!) {
      const { aspects, never } = row.get(`${signal.id} ${id}`)!;
      for (const { motor: nth, position, facing } of route.conditions) {
        const motor = partition.graph.motors[nth]!;
        const one: TrackTurnout = found.get(nth) ?? {
          id: `${signal.id} ${motor.id}`,
          track: document.lines.find((line) => line.id === signal.line)!,
          read: document.directions[signal.governs],
          signal: { id: signal.id, name: signal.name },
          motor: { id: motor.id, name: motor.name },
          facing,
          shows: { straight: [], diverging: [] },
          held: chosen.get(signal.id)!.includes(divergingHeld.id),
          together: groupOf(scheme, motor).flatMap((other) => (other === motor ? [] : [other.name])),
        };
        found.set(nth, one);
        if (never) continue;
        const shown = one.shows[position];
        for (const aspect of aspects) if (!shown.includes(aspect)) shown.push(aspect);
      }
    }
    return [...found.values()];
  });
}
