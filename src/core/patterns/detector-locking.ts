import { blocksOn } from '../detection';
import { name } from '../logic';
import { type Motor, trackFrom } from '../track';
import { byScheme } from './by-scheme';
import { groupOf } from './groups';
import * as names from './names';
import type { Pattern } from './pattern';
import type { Scheme } from './scheme';

/** Blocks in which a vehicle could stand on the blades of a motor or within the clearance of a leg. */
export function foulingBlocks(scheme: Scheme, motor: number): number[] {
  const { partition } = scheme;
  const { graph } = partition;
  const { kind, ports, clearance } = graph.points[graph.motors[motor]!.points]!;
  const fouling = new Set(kind.fouls.flat(2));
  const near = ports.flatMap((leg, port) => trackFrom(graph, leg, fouling.has(kind.ports[port]!) ? clearance : 1));
  return [...new Set(near.flatMap((s) => blocksOn(partition, s.edge, s.from, s.to)))];
}

/** The blocks that hold a motor: its own, and those of others that throw with it. */
export const holdingBlocks = (scheme: Scheme, motor: Motor): number[] =>
  [...new Set(groupOf(scheme, motor).flatMap(({ index }) => foulingBlocks(scheme, index)))].sort((a, b) => a - b);

/** Whether anything tells of a train in a block. */
export const isWatchedBlock = ({ partition: { blocks, sections, inferred } }: Scheme, block: number): boolean =>
  inferred.has(block) || sections[blocks[block]!.section]!.sensors.length > 0;

/** Whether anything at all tells of a train near a motor. Where nothing does, its points follow their button. */
export const isWatched = (scheme: Scheme, motor: Motor): boolean =>
  isWatchedBlock(scheme, blockOfPoints(scheme)[motor.points]!) ||
  holdingBlocks(scheme, motor).some((block) => isWatchedBlock(scheme, block));

/** The block in which the blades of each points lie. */
export const blockOfPoints = byScheme(({ partition }): number[] => {
  const found: number[] = [];
  for (const { index, points } of partition.blocks) for (const node of points) found[node] = index;
  return found;
});

/** Points are locked while a vehicle may stand on the blades or foul a leg of them, or of others that throw with them. */
export const detectorLocking: Pattern = {
  id: 'detector locking',
  lock(scheme, motor) {
    if (!isWatched(scheme, motor)) return [];
    const { blocks } = scheme.partition;
    return holdingBlocks(scheme, motor)
      .map((block) => blocks[block]!)
      .map((block) => ({ expr: name(names.occupied(block)), says: `${block.name} is occupied` }));
  },
};
