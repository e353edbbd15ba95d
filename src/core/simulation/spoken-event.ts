import { POWER_LEVELS } from '../kinds';
import { names } from '../patterns';
import { harmOfEvent } from './harms';
import type { Rehearsal, RehearsalEvent } from './rehearsal';

/** What kind of thing an event is, for filtering a list of them. */
export const EVENT_KINDS = [
  'mishaps',
  'signals passed',
  'stops and starts',
  'turnouts',
  'aspects',
  'detectors',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** An event in words, at its moment. */
export interface SpokenEvent {
  tick: number;
  says: string;
  bad: boolean;
  kind: EventKind;
  /** Ids of the trains it is about. */
  trains: string[];
}

/** An event in a sentence. */
export function sayEvent(rehearsal: Rehearsal, event: RehearsalEvent): string | undefined {
  const { document, scheme, plant } = rehearsal;
  const train = (index: number) => plant.trains[index]!.figures.name;
  const signal = (index: number) => scheme.readings[index]!.signal.name;
  const turnout = (index: number) => rehearsal.motors[index]!.name;
  switch (event.kind) {
    case 'passes':
      return `${train(event.train)} passes ${signal(event.signal)} at ${event.aspect.id}`;
    case 'stands':
      return event.signal < 0
        ? `${train(event.train)} stands`
        : `${train(event.train)} stands before ${signal(event.signal)}`;
    case 'starts':
      return `${train(event.train)} starts`;
    case 'handled':
      return `${train(event.train)} is ${event.off ? 'lifted off the track' : 'set down where it began'}`;
    case 'collision':
      return `${train(event.train)} and ${train(event.other)} touch`;
    case 'points moved under':
      return `${turnout(event.turnout)} moves under ${train(event.train)}`;
    case 'mishap':
      return event.mishap.kind === 'off the end'
        ? `${train(event.train)} runs off the end of the track`
        : `${train(event.train)} runs into ${turnout(event.mishap.turnout)}, which lies wrong`;
    case 'refused':
      return `${turnout(event.turnout)} refuses: it is ${event.locked ? 'locked' : 'not free to move'}`;
    case 'not cleared':
      return `${signal(event.signal)} is not cleared: ${event.rival === undefined ? 'it lets trains on already, or nobody is at its post' : `${signal(event.rival)}, which conflicts, lets trains on`}`;
    case 'points':
      return event.position === 'between' ? undefined : `${turnout(event.turnout)} lies ${event.position}`;
    case 'aspect':
      return `${signal(event.signal)} shows ${event.aspect.id}`;
    case 'sensor': {
      const { partition } = scheme;
      const { section, sensors, blocks } = partition.fields.all[event.field]!;
      const called =
        section === undefined
          ? sensors.map((id) => document.sensors.find((s) => s.id === id)!.name)
          : blocks.map((b) => partition.blocks[b]!.name);
      return `${called.join(' and ')} ${event.on ? 'sees a train' : 'sees nothing any more'}`;
    }
    case 'power':
      return `${names.headOf(scheme.partition, scheme.partition.sections[event.section]!).name} ${POWER_LEVELS[event.level]!.says}`;
    case 'done':
      return `${train(event.train)} is in ${event.block}, where it was sent`;
    case 'told':
      return undefined;
  }
}

export const isMishap = (event: RehearsalEvent): boolean => harmOfEvent(event) !== undefined;

export function eventKind(event: RehearsalEvent): EventKind {
  if (isMishap(event)) return 'mishaps';
  switch (event.kind) {
    case 'passes':
      return 'signals passed';
    case 'stands':
    case 'starts':
    case 'handled':
    case 'done':
      return 'stops and starts';
    case 'aspect':
    case 'power':
    case 'not cleared':
      return 'aspects';
    case 'sensor':
      return 'detectors';
    default:
      return 'turnouts';
  }
}

export function eventTrains(rehearsal: Rehearsal, event: RehearsalEvent): string[] {
  const indices = [...('train' in event ? [event.train] : []), ...('other' in event ? [event.other] : [])];
  return indices.map((index) => rehearsal.plant.trains[index]!.figures.id);
}
