import { MOTORS } from '../kinds';
import type { Motor } from '../track';
import type { Scheme } from './scheme';

/** The points that a motor belongs to, as somebody surveyed them. */
export function pointsOf({ document, partition }: Scheme, { points }: Motor) {
  const { id } = partition.graph.points[points]!;
  return [...document.turnouts, ...document.crossings].find((one) => one.id === id);
}

/** Whether something other than a hand moves the points of a motor. */
export function isDriven(scheme: Scheme, motor: Motor): boolean {
  const points = pointsOf(scheme, motor);
  return points === undefined || !('motor' in points) || MOTORS[points.motor].driven;
}
