import type { BlockId } from '../detection';
import type { Scheme } from '../patterns';
import { Plant } from '../plant';
import { tellingsOf } from '../simulation';
import type { LayoutDocument } from '../survey';

/** Trains as they stand at the start: the blocks whose detectors see one, and what a person says of how they came in. */
export interface StandingTrains {
  blocks: BlockId[];
  /** Inputs of the rule program, each true for a moment. */
  told: string[];
  /** The track that they lie on, in mm of each line. */
  body: { line: string; from: number; to: number }[];
}

export function standingTrains(scheme: Scheme, document: LayoutDocument = scheme.document): StandingTrains {
  const { partition, readings } = scheme;
  const plant = new Plant(document, partition, readings, () => ({ speed: 0, startDelay: 0 }));
  /** As they are noticed as soon as there is current. */
  const felt = new Set(plant.trains.flatMap((train) => train.feltIn));
  const held = plant.trains.map((train) => train.held());
  const blocks = held
    .flat()
    .map(({ piece }) => partition.blocks[partition.pieces[piece]!.block]!)
    .filter(
      (block) =>
        partition.told.get(block.index) !== undefined ||
        partition.fields.all.some((f, i) => f.section === block.section && f.sensors.length > 0 && felt.has(i)),
    )
    .map(({ id }) => id);
  const told = held.flatMap((entries) => tellingsOf(scheme, entries).map(({ input }) => input));
  const body = plant.trains.flatMap((_, train) => plant.positionOf(train));
  return { blocks: [...new Set(blocks)], told: [...new Set(told)], body };
}
