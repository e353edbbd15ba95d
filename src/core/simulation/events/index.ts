import type { Rehearsal } from '../rehearsal';
import type { EventGroup, EventKind } from './kind';
import { aspect, done, notCleared, refused, saidAtFirst, told } from './of-rules';
import { points, pointsMovedUnder, power, sensor } from './of-track';
import { collision, handled, mishap, passes, stands, starts } from './of-trains';

export { EVENT_GROUPS, type EventGroup } from './kind';

/** Every kind of event of a rehearsal. */
const EVENTS = {
  sensor,
  points,
  passes,
  stands,
  starts,
  collision,
  'points moved under': pointsMovedUnder,
  mishap,
  aspect,
  refused,
  told,
  'said at first': saidAtFirst,
  done,
  handled,
  power,
  'not cleared': notCleared,
} as const;

type Kinds = typeof EVENTS;
/** What happens in a rehearsal, with its numbers: of trains, signals, motors, fields. */
export type RehearsalEvent = {
  [K in keyof Kinds]: Kinds[K] extends EventKind<infer Event> ? Event : never;
}[keyof Kinds];

export interface TimedEvent {
  tick: number;
  event: RehearsalEvent;
}

const kindOf = (event: RehearsalEvent) => EVENTS[event.kind] as EventKind<RehearsalEvent>;

export const codeOf = (event: RehearsalEvent): number => kindOf(event).code;
export const groupOf = (event: RehearsalEvent): EventGroup => kindOf(event).group;
/** An event in a sentence; undefined where there is nothing to tell. */
export const sayEvent = (run: Rehearsal, event: RehearsalEvent): string | undefined => kindOf(event).says(run, event);
