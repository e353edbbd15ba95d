import type { Motor } from '../track';
import type { Scheme } from './scheme';

/** The points that a motor belongs to, as somebody surveyed them. */
export function pointsOf({ document, partition }: Scheme, { points }: Motor) {
  const { id } = partition.graph.points[points]!;
  return [...document.turnouts, ...document.crossings].find((one) => one.id === id);
}
