import type { BlockId } from '../detection';
import { Plant } from '../plant';
import { type Telling, tellingsOf } from '../simulation';
import type { System, TrainParameters } from '../system';

/** Trains as they stand at the start: the blocks whose detectors see one, and what a person says of how they came in. */
export interface StandingTrains {
  blocks: BlockId[];
  told: Telling[];
  /** The track that they lie on, in mm of each line. */
  body: { line: string; from: number; to: number }[];
}

/** The trains of a layout, or others in their place. */
export function standingTrains(
  system: Pick<System, 'partition' | 'readings' | 'trafficSections' | 'plant'>,
  trains: readonly TrainParameters[] = system.plant.trains,
): StandingTrains {
  const { partition, readings } = system;
  const plant = new Plant({ ...system.plant, trains }, partition, readings, () => ({ speed: 0, startDelay: 0 }));
  /** As they are noticed as soon as there is current. */
  const detected = new Set(plant.trains.flatMap((train) => train.detectedIn));
  const held = plant.trains.map((train) => train.held());
  const blocks = held
    .flat()
    .map(({ piece }) => partition.blocks[partition.pieces[piece]!.block]!)
    .filter(
      (block) =>
        partition.inferred.get(block.index) !== undefined ||
        partition.fields.all.some((f, i) => f.section === block.section && f.sensors.length > 0 && detected.has(i)),
    )
    .map(({ id }) => id);
  const told = held.flatMap((entries) => tellingsOf(system, entries));
  const body = plant.trains.flatMap((_, train) => plant.positionOf(train));
  return { blocks: [...new Set(blocks)], told, body };
}
