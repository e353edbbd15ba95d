import { promisesFree } from '../kinds';
import { type Footprint, faceToFace, footprintOf, inOneBlock, type RollingTrain } from '../plant';
import { conflictNow, lettingIn, standsOn } from '../signals';
import type { RehearsalEvent } from './events';
import type { Rehearsal } from './rehearsal';

/** What can go wrong between trains, track and signals, in the order in which it is told. */
export type HazardId =
  | 'trains touch'
  | 'two trains in a block'
  | 'face to face'
  | 'points moved under a train'
  | 'points lie wrong'
  | 'off the end of the track'
  | 'conflicting signals'
  | 'proceed over a train'
  | 'stop not announced in time'
  | 'signal falls too late to stop'
  | 'rules never settle';

interface Hazard {
  /** What it is on the track: an event that it is, or how two trains stand. */
  event?(event: RehearsalEvent): boolean;
  footprints?(a: Footprint, b: Footprint): boolean;
  /** It lies in what signals show: two of them let trains into one block at once, or one lets them in where a train stands. */
  ofSignals?: 'two at once' | 'over a train';
  /** It lies in the rules alone: they go round and round. */
  ofRules?: boolean;
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

/** One list for rehearsal and proof alike. */
export const HAZARDS: Record<HazardId, Hazard> = {
  'trains touch': {
    event: ({ kind }) => kind === 'collision',
    holds: 'No two trains ever touch, where tracks meet or cross or on one track.',
    fails: 'Two trains can touch.',
    never: 'no two trains touch',
    ends: true,
  },
  'two trains in a block': {
    footprints: inOneBlock,
    holds: 'No two trains are ever in one block.',
    fails: 'Two trains can come into one block.',
    now: 'Two trains are in one block',
    never: 'no two trains are in one block',
  },
  'face to face': {
    footprints: faceToFace,
    holds: 'No two trains ever face each other with no points between them.',
    fails: 'Two trains can come to face each other with no points between them.',
    now: 'Two trains face each other with no points between them',
    never: 'no two trains face each other',
  },
  'points moved under a train': {
    event: ({ kind }) => kind === 'points moved under',
    holds: 'No points ever move under a train.',
    fails: 'Points can move under a train.',
    never: 'no points move under a train',
  },
  'points lie wrong': {
    event: (e) => e.kind === 'mishap' && e.mishap.kind === 'points wrong',
    holds: 'No train ever runs into points that lie wrong.',
    fails: 'A train can run into points that lie wrong.',
    never: 'no train runs into points that lie wrong',
  },
  'off the end of the track': {
    event: (e) => e.kind === 'mishap' && e.mishap.kind === 'off the end',
    holds: 'No train ever runs off the end of the track.',
    fails: 'A train can run off the end of the track.',
    never: 'no train runs off the end of the track',
  },
  'conflicting signals': {
    ofSignals: 'two at once',
    holds: 'No two signals ever let trains into one block at once.',
    fails: 'Two signals can let trains into one block at once.',
    now: 'Two signals let trains into one block at once',
    never: 'no two signals let trains into one block at once',
  },
  'proceed over a train': {
    ofSignals: 'over a train',
    holds: 'No signal ever lets a train on, but on sight, where another stands on its way.',
    fails: 'A signal can let a train on where another stands on its way.',
    now: 'A signal lets trains on where one stands on its way',
    never: 'no signal lets a train on where another stands on its way',
  },
  'stop not announced in time': {
    event: (e) => e.kind === 'passes' && e.aspect.stopsIn === 0 && !e.dropped,
    holds: 'Every stop is announced in time to brake for it.',
    fails: 'A train can pass a signal at stop, because the stop was not announced in time.',
    never: 'no stop comes unannounced',
  },
  'signal falls too late to stop': {
    event: (e) => e.kind === 'passes' && e.aspect.stopsIn === 0 && e.dropped,
    holds: 'No signal ever falls to stop before a train that can no longer stop at it.',
    fails: 'A signal can fall to stop before a train that can no longer stop at it.',
    never: 'no signal falls before a train that can no longer stop',
  },
  'rules never settle': {
    ofRules: true,
    holds: 'The rules always settle.',
    fails: 'The rules can go round and round without settling.',
    never: 'the rules settle',
    ends: true,
  },
};
export const HAZARD_IDS = Object.keys(HAZARDS) as HazardId[];

/** The hazard that an event of a rehearsal is, if it is one. */
export const hazardOfEvent = (event: RehearsalEvent): HazardId | undefined =>
  HAZARD_IDS.find((id) => HAZARDS[id].event?.(event));

/** The hazards that lie in how two trains stand, for those that no event marks. */
export const hazardsOfFootprints = (a: Footprint, b: Footprint): HazardId[] =>
  HAZARD_IDS.filter((id) => HAZARDS[id].footprints?.(a, b));

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
  const ofSignals = (what: Hazard['ofSignals'], signals: number[], trains: number[]) => {
    for (const id of HAZARD_IDS) if (HAZARDS[id].ofSignals === what) found.push({ id, signals, trains });
  };
  const conflict = conflictNow(readings, (signal) => run.readOff(signal).stopsIn !== 0, lies);
  if (conflict) ofSignals('two at once', [conflict.one, conflict.two], []);
  for (const route of lettingIn(readings)) {
    if (!promisesFree(run.readOff(route.signal))) continue;
    if (!route.lies.every(({ motor, position }) => lies(motor) === position)) continue;
    const trains = footprints.flatMap(({ blocks }, t) => (standsOn(route, blocks) ? [t] : []));
    if (trains.length > 0) ofSignals('over a train', [route.signal], trains);
  }
  footprints.forEach((one, i) => {
    footprints.slice(i + 1).forEach((two, j) => {
      for (const id of hazardsOfFootprints(one, two)) found.push({ id, signals: [], trains: [i, i + 1 + j] });
    });
  });
  return found;
}
