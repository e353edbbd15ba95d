import { fastest, MOST_DEVIATIONS, SCAN_S, SPEED_DEVIATION, STOP_SHORT_MM } from './driving';
import { brakingDistanceMm } from './kinematics';

/** A part of the way that a train needs to stop, in words, and how long it is in mm. */
export interface StoppingTerm {
  says: string;
  mm: number;
}

/** What a train needs from learning of a stop to standing before it, at its fastest: the same total wherever it is shown. */
export interface StoppingNeed {
  terms: readonly StoppingTerm[];
  totalMm: number;
}

/** The need of a train surveyed at a top speed, in mm/s, that brakes at a steady rate, in mm/s²: v² / 2a, and what is reckoned with beside it. */
export function stoppingNeed(topMmPerS: number, brakingMmPerS2: number): StoppingNeed {
  const most = fastest(topMmPerS);
  const terms = [
    { says: 'braking distance from top speed', mm: brakingDistanceMm(topMmPerS, 0, brakingMmPerS2) },
    {
      says: `up to ${MOST_DEVIATIONS * SPEED_DEVIATION * 100} % faster than surveyed`,
      mm: brakingDistanceMm(most, topMmPerS, brakingMmPerS2),
    },
    { says: 'two scans until it begins to brake', mm: most * 2 * SCAN_S },
    { says: 'kept before the signal', mm: STOP_SHORT_MM },
  ];
  return { terms, totalMm: terms.reduce((sum, { mm }) => sum + mm, 0) };
}
