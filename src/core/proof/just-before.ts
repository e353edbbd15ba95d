import type { CounterexampleStep } from './counterexample';
import type { ProofModel } from './model/model';
import { MOVES } from './moves';

/** A step just before a train comes by: a signal goes to stop in its face, or points begin to move. */
export interface JustBefore {
  step: number;
  train: number;
  signal?: number;
  motor?: number;
  /** How far the train runs from where its placement begins before that step to where it has come by, in mm. */
  awayMm: number;
}
/** When, in ticks after the steps before it, the train goes on and the step is begun. */
export interface Timing {
  before: JustBefore;
  trainAfter: number;
  stepAfter: number;
}
/** How many ticks after the steps before it the signal dropped or the points began to move, and the train came by. */
export interface TimesSeen {
  changed?: number | undefined;
  cameBy?: number | undefined;
}

/** So many ticks before the train comes by a signal is to drop, or points are to begin to move. */
const TICKS_BEFORE = { signal: [2, 0, 1, 8, 25], motor: [2, 25, 75, 140] };
/** Longer than anybody waits. */
const NEVER = 1e9;
/** Whether a run with such a timing is only to see how long something takes. */
export const isTrial = ({ trainAfter, stepAfter }: Timing): boolean => trainAfter === NEVER || stepAfter === NEVER;

/** Where the counterexample first has a train pass a signal that has just dropped, or run onto points that move; undefined where it has none. */
export function justBefore(
  { system }: ProofModel,
  counterexample: readonly CounterexampleStep[],
): JustBefore | undefined {
  for (const [nth, { deeds }] of counterexample.entries()) {
    const deed = deeds.find(
      ({ kind, late, movingUnder }) => (late !== undefined || movingUnder !== undefined) && MOVES[kind]!.movesOn,
    );
    if (!deed) continue;
    const { late, movingUnder, index: train } = deed;
    const ofSignal = late !== undefined && system.readings[late] !== undefined;
    let awayMm = 0;
    for (let step = nth; step >= 0; step--) {
      const { drops, moved, deeds } = counterexample[step]!;
      for (const own of deeds) if (own.index === train && MOVES[own.kind]!.movesOn) awayMm += own.runMm;
      if (ofSignal && drops.includes(late)) return { step, train, signal: late, awayMm };
      if (!ofSignal && moved.includes(movingUnder!)) return { step, train, motor: movingUnder!, awayMm };
    }
  }
  return undefined;
}

/**
 * Timings with which the step falls just before the train comes by. `drive` plays the steps with a timing; one run without the train and one
 * without the step tell how long each takes.
 */
export function timingsOf(before: JustBefore, drive: (timing: Timing) => { seen: TimesSeen }): Timing[] {
  const { changed } = drive({ before, trainAfter: NEVER, stepAfter: 0 }).seen;
  if (changed === undefined) return [];
  const { cameBy } = drive({ before, trainAfter: 0, stepAfter: NEVER }).seen;
  if (cameBy === undefined) return [];
  return TICKS_BEFORE[before.signal === undefined ? 'motor' : 'signal'].map((ticks) => {
    const later = cameBy - ticks - changed;
    return { before, trainAfter: Math.max(0, -later), stepAfter: Math.max(0, later) };
  });
}
