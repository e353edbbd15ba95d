import type { PlantEvent } from '../../plant';
import type { Rehearsal } from '../rehearsal';
import type { EventKind } from './kind';

type Of<K extends PlantEvent['kind']> = EventKind<Extract<PlantEvent, { kind: K }>>;

export const trainName = (run: Rehearsal, train: number): string => run.plant.trains[train]!.figures.name;
export const signalName = (run: Rehearsal, signal: number): string => run.system.readings[signal]!.signal.name;

export const passes: Of<'passes'> = {
  code: 2,
  group: 'signals passed',
  says: (run, { train, signal, aspect }) =>
    `${trainName(run, train)} passes ${signalName(run, signal)} at ${aspect.id}`,
};

export const stands: Of<'stands'> = {
  code: 3,
  group: 'stops and starts',
  says: (run, { train, signal }) =>
    signal < 0
      ? `${trainName(run, train)} stands`
      : `${trainName(run, train)} stands before ${signalName(run, signal)}`,
};

export const starts: Of<'starts'> = {
  code: 4,
  group: 'stops and starts',
  says: (run, { train }) => `${trainName(run, train)} starts`,
};

export const collision: Of<'collision'> = {
  code: 5,
  group: 'stops and starts',
  says: (run, { train, other }) => `${trainName(run, train)} and ${trainName(run, other)} touch`,
};

export const mishap: Of<'mishap'> = {
  code: 7,
  group: 'stops and starts',
  says: (run, { train, mishap: what }) =>
    what.kind === 'off the end'
      ? `${trainName(run, train)} runs off the end of the track`
      : `${trainName(run, train)} runs into ${run.motors[what.motor]!.name}, which is set against it`,
};

/** By hand: lifted off the track, or set down on it. */
export const handled: Of<'handled'> = {
  code: 12,
  group: 'stops and starts',
  says: (run, { train, off }) =>
    `${trainName(run, train)} is ${off ? 'lifted off the track' : 'set down where it began'}`,
};
