import { blocksOn } from '../detection';
import { name } from '../logic';
import { trackFrom } from '../track';
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

/** Points are locked while a vehicle may stand on the blades or foul a leg of them, or of others that throw with them. */
export const detectorLocking: Pattern = {
  id: 'detector locking',
  lock(scheme, motor) {
    const { blocks } = scheme.partition;
    const foul = new Set(groupOf(scheme, motor).flatMap(({ index }) => foulingBlocks(scheme, index)));
    return [...foul]
      .sort((a, b) => a - b)
      .map((block) => blocks[block]!)
      .map((block) => ({ expr: name(names.occupied(block)), says: `${block.name} is occupied` }));
  },
};
