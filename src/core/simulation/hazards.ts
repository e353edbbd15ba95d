import { promisesFree } from '../kinds';
import { type Footprint, faceToFace, footprintOf, inOneBlock, type RollingTrain } from '../plant';
import { conflictNow, lettingIn, standsOn } from '../signals';
import type { System } from '../system';
import type { RehearsalEvent } from './events';
import type { Rehearsal } from './rehearsal';

/** What a step of the explorer can do to trains; a hazard of events says which of these it is. */
export const DEEDS = [
  'touches',
  'leaves the track',
  'meets wrong points',
  'points move under it',
  'passes a signal that dropped',
  'passes a stop unannounced',
] as const;
export type Deed = (typeof DEEDS)[number];

/** By what a hazard is found. Whoever adds one of events says what the explorer has to look for, or that it does not. */
type Found =
  /** An event of a rehearsal, and the same in a step of the explorer. */
  | { in: 'events'; is(event: RehearsalEvent): boolean; explored: Deed | 'not looked at' }
  /** How two trains stand, whatever moves them. */
  | { in: 'footprints'; are(a: Footprint, b: Footprint): boolean }
  /** What signals show: two of them clear trains into one block at once, or one clears them in where a train stands. */
  | { in: 'displayed'; what: 'two at once' | 'over a train' }
  /** The rules alone: they go round and round. */
  | { in: 'rules' }
  /** Nobody looks for it yet; `may` says on which layouts it can happen at all. */
  | { in: 'nothing'; may(system: System): boolean };

interface Hazard {
  found: Found;
  /** In a sentence, when it never happens, and when it can. */
  holds: string;
  fails: string;
  /** While it lasts, of what lies in how trains stand or in what signals show; then come the names of those. */
  now?: string;
  /** With a plain “never”, for “as long as …”. */
  never: string;
  /** Nothing that comes after it can be told: those concerned cannot go on. */
  ends?: boolean;
}

/** What can go wrong between trains, track and signals, in the order in which it is told: one list for rehearsal and proof alike. */
const TABLE = {
  'trains touch': {
    found: { in: 'events', is: ({ kind }) => kind === 'collision', explored: 'touches' },
    holds: 'No two trains ever touch, where tracks meet or cross or on one track.',
    fails: 'Two trains can touch.',
    never: 'no two trains touch',
    ends: true,
  },
  'two trains in a block': {
    found: { in: 'footprints', are: inOneBlock },
    holds: 'No two trains are ever in one block.',
    fails: 'Two trains can come into one block.',
    now: 'Two trains are in one block',
    never: 'no two trains are in one block',
  },
  'face to face': {
    found: { in: 'footprints', are: faceToFace },
    holds: 'No two trains ever face each other with no points between them.',
    fails: 'Two trains can come to face each other with no points between them.',
    now: 'Two trains face each other with no points between them',
    never: 'no two trains face each other',
  },
  'points moved under a train': {
    found: { in: 'events', is: ({ kind }) => kind === 'points moved under', explored: 'points move under it' },
    holds: 'No points ever move under a train.',
    fails: 'Points can move under a train.',
    never: 'no points move under a train',
  },
  'points set wrong': {
    found: {
      in: 'events',
      is: (e) => e.kind === 'mishap' && e.mishap.kind === 'points wrong',
      explored: 'meets wrong points',
    },
    holds: 'No train ever runs into points set against it.',
    fails: 'A train can run into points set against it.',
    never: 'no train runs into points set against it',
  },
  'off the end of the track': {
    found: {
      in: 'events',
      is: (e) => e.kind === 'mishap' && e.mishap.kind === 'off the end',
      explored: 'leaves the track',
    },
    holds: 'No train ever runs off the end of the track.',
    fails: 'A train can run off the end of the track.',
    never: 'no train runs off the end of the track',
  },
  'conflicting signals': {
    found: { in: 'displayed', what: 'two at once' },
    holds: 'No two signals are ever cleared into one block at once.',
    fails: 'Two signals can be cleared into one block at once.',
    now: 'Two signals are cleared into one block at once',
    never: 'no two signals are cleared into one block at once',
  },
  'proceed over a train': {
    found: { in: 'displayed', what: 'over a train' },
    holds: 'No signal ever shows proceed, but on sight, for a route on which a train stands.',
    fails: 'A signal can show proceed for a route on which a train stands.',
    now: 'A signal shows proceed for a route on which a train stands',
    never: 'no signal shows proceed for a route on which a train stands',
  },
  'stop not announced in time': {
    found: {
      in: 'events',
      is: (e) => e.kind === 'passes' && e.aspect.stopsIn === 0 && !e.dropped,
      explored: 'passes a stop unannounced',
    },
    holds: 'Every stop is announced in time to brake for it.',
    fails: 'A train can pass a signal at stop, because the stop was not announced in time.',
    never: 'no stop comes unannounced',
  },
  'signal drops in the face of a train': {
    found: {
      in: 'events',
      is: (e) => e.kind === 'passes' && e.aspect.stopsIn === 0 && e.dropped,
      explored: 'passes a signal that dropped',
    },
    holds: 'No signal ever drops to stop in the face of a train.',
    fails: 'A signal can drop to stop in the face of a train, which can no longer stop at it.',
    never: 'no signal drops in the face of a train',
  },
  'rules never settle': {
    found: { in: 'rules' },
    holds: 'The rules always settle.',
    fails: 'The rules can go round and round without settling.',
    never: 'the rules settle',
    ends: true,
  },
  'no power for ever': {
    found: { in: 'nothing', may: ({ terminals }) => terminals.ofKind('power').length > 0 },
    holds: 'No train waits for power for ever in a section that is cut off.',
    fails: 'A train can wait for power for ever in a section that is cut off.',
    never: 'no train waits for power for ever',
  },
} as const satisfies Record<string, Hazard>;
export type HazardId = keyof typeof TABLE;
/** The hazards that lie in how two trains stand. */
export type FootprintHazardId = {
  [K in HazardId]: (typeof TABLE)[K]['found']['in'] extends 'footprints' ? K : never;
}[HazardId];
export const HAZARDS: Readonly<Record<HazardId, Hazard>> = TABLE;
export const HAZARD_IDS = Object.keys(HAZARDS) as HazardId[];

/** The hazard that an event of a rehearsal is, if it is one. */
export const hazardOfEvent = (event: RehearsalEvent): HazardId | undefined =>
  HAZARD_IDS.find((id) => {
    const { found } = HAZARDS[id];
    return found.in === 'events' && found.is(event);
  });

/** The hazards that lie in how two trains stand, for those that no event marks. */
export const hazardsOfFootprints = (a: Footprint, b: Footprint): HazardId[] =>
  HAZARD_IDS.filter((id) => {
    const { found } = HAZARDS[id];
    return found.in === 'footprints' && found.are(a, b);
  });

export type Displayed = Extract<Found, { in: 'displayed' }>['what'];
/** The hazards that lie in what signals show. */
export const hazardsDisplayed = (what: Displayed): HazardId[] =>
  HAZARD_IDS.filter((id) => {
    const { found } = HAZARDS[id];
    return found.in === 'displayed' && found.what === what;
  });

/** How a train of a rehearsal stands. */
export const footprintNow = ({ system }: Rehearsal, train: RollingTrain): Footprint =>
  footprintOf(system.partition, system.trafficSections, train.held());

/** A hazard that lasts: the signals and the trains, by number, that it lies in. */
export interface HazardNow {
  id: HazardId;
  signals: number[];
  trains: number[];
}

/** The hazards that lie in how the trains of a rehearsal stand now, and in what its signals show. */
export function hazardsNow(run: Rehearsal): HazardNow[] {
  const { readings } = run.system;
  const footprints = run.plant.trains.map((train) => footprintNow(run, train));
  const lies = (motor: number) => run.plant.motors[motor]!.position;
  const found: HazardNow[] = [];
  const displayed = (what: Displayed, signals: number[], trains: number[]) => {
    for (const id of hazardsDisplayed(what)) found.push({ id, signals, trains });
  };
  const conflict = conflictNow(readings, (signal) => run.readOff(signal).stopsIn !== 0, lies);
  if (conflict) displayed('two at once', [conflict.one, conflict.two], []);
  for (const route of lettingIn(readings)) {
    if (!promisesFree(run.readOff(route.signal))) continue;
    if (!route.lies.every(({ motor, position }) => lies(motor) === position)) continue;
    const trains = footprints.flatMap(({ blocks }, t) => (standsOn(route, blocks) ? [t] : []));
    if (trains.length > 0) displayed('over a train', [route.signal], trains);
  }
  footprints.forEach((one, i) => {
    footprints.slice(i + 1).forEach((two, j) => {
      for (const id of hazardsOfFootprints(one, two)) found.push({ id, signals: [], trains: [i, i + 1 + j] });
    });
  });
  return found;
}
