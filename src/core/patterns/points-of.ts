import { MOTORS } from '../kinds';
import type { Motor } from '../track';
import { byScheme } from './by-scheme';
import type { Scheme } from './scheme';

/** The points that a motor belongs to, as somebody surveyed them. */
export function pointsOf(scheme: Scheme, { points }: Motor) {
  return surveyed(scheme).get(scheme.partition.graph.points[points]!.id);
}

const surveyed = byScheme(
  ({ document: { turnouts, crossings } }) => new Map([...turnouts, ...crossings].map((one) => [one.id, one])),
);

/** Whether something other than a hand moves the points of a motor. */
export function isDriven(scheme: Scheme, motor: Motor): boolean {
  const points = pointsOf(scheme, motor);
  return points === undefined || !('motor' in points) || MOTORS[points.motor].driven;
}
