import { fastest, SCAN_S } from './driving';

/** Motion along a straight track: distances in mm, speeds in mm/s, accelerations in mm/s², times in s. Elementary mechanics. */

/** Distance to come from v1 down to v2 at a steady braking rate: (v1² − v2²) / 2a. */
export function brakingDistanceMm(fromMmPerS: number, toMmPerS: number, brakingMmPerS2: number): number {
  return (fromMmPerS * fromMmPerS - toMmPerS * toMmPerS) / (2 * brakingMmPerS2);
}

/** Distance run from seeing a stop to standing: v·t + v² / 2a. */
export function stoppingDistanceMm(mmPerS: number, reactionS: number, brakingMmPerS2: number): number {
  return mmPerS * reactionS + brakingDistanceMm(mmPerS, 0, brakingMmPerS2);
}

/**
 * The most that a train surveyed at a top speed needs to stop: as fast as trains of its kind ever run, and two scans go by
 * between what a detector sees and the first braking. Rounded outward.
 */
export function mostBrakingMm(topMmPerS: number, brakingMmPerS2: number): number {
  return stoppingDistanceMm(fastest(topMmPerS), 2 * SCAN_S, brakingMmPerS2);
}

/** Time from seeing a stop to standing: t + v / a. */
export function stoppingTimeS(mmPerS: number, reactionS: number, brakingMmPerS2: number): number {
  return reactionS + mmPerS / brakingMmPerS2;
}

/** Time for a distance from rest to rest with equal starting and braking rates; a triangle when top speed is never reached. */
export function runTimeS(distanceMm: number, topMmPerS: number, rateMmPerS2: number): number {
  return distanceMm >= (topMmPerS * topMmPerS) / rateMmPerS2
    ? distanceMm / topMmPerS + topMmPerS / rateMmPerS2
    : 2 * Math.sqrt(distanceMm / rateMmPerS2);
}

/**
 * Time for a distance from rest to rest: up to top speed at one rate, down at another; a triangle when top speed is never
 * reached. With equal rates it is `runTimeS`.
 */
export function standToStandS(distanceMm: number, topMmPerS: number, upMmPerS2: number, downMmPerS2: number): number {
  const ramps = brakingDistanceMm(topMmPerS, 0, upMmPerS2) + brakingDistanceMm(topMmPerS, 0, downMmPerS2);
  if (distanceMm >= ramps) return (distanceMm - ramps) / topMmPerS + topMmPerS / upMmPerS2 + topMmPerS / downMmPerS2;
  const peak = Math.sqrt((2 * distanceMm * upMmPerS2 * downMmPerS2) / (upMmPerS2 + downMmPerS2));
  return peak / upMmPerS2 + peak / downMmPerS2;
}
