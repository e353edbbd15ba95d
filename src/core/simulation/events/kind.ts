import type { Rehearsal } from '../rehearsal';

/** What kind of thing an event is, for filtering a list of them. */
export const EVENT_GROUPS = [
  'mishaps',
  'signals passed',
  'stops and starts',
  'turnouts',
  'aspects',
  'detectors',
  'what people do',
] as const;
export type EventGroup = (typeof EVENT_GROUPS)[number];

/** Everything that the house asks about one kind of event of a rehearsal. */
export interface EventKind<Event> {
  /** Its number in a trace. Numbers are never given twice. */
  code: number;
  group: EventGroup;
  /** In a sentence; undefined where there is nothing to tell. */
  says(run: Rehearsal, event: Event): string | undefined;
}
