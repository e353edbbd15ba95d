import { type EventGroup, groupOf, type RehearsalEvent, sayEvent } from './events';
import { hazardOfEvent } from './hazards';
import type { Rehearsal } from './rehearsal';

/** An event in words, at its moment. */
export interface SpokenEvent {
  tick: number;
  says: string;
  bad: boolean;
  group: EventGroup;
  /** Ids of the trains it is about. */
  trains: string[];
}

/** What is told of an event that has just happened; undefined where there is nothing to tell. */
export function spokenEvent(run: Rehearsal, event: RehearsalEvent): SpokenEvent | undefined {
  const says = sayEvent(run, event);
  if (says === undefined) return undefined;
  const bad = hazardOfEvent(event) !== undefined;
  const numbers = [...('train' in event ? [event.train] : []), ...('other' in event ? [event.other] : [])];
  const trains = numbers.map((train) => run.plant.trains[train]!.figures.id);
  return { tick: run.tick, says, bad, group: bad ? 'mishaps' : groupOf(event), trains };
}
