import { type Consist, consistOf } from '../detection';
import { TRACK_POWERS } from '../kinds';
import { layoutSpeedMmPerS, type TenthUm } from '../measure';
import type { Facing, LayoutDocument, Train } from '../survey';

/** A train as it was surveyed, in the layout's own millimetres. */
export interface TrainParameters {
  id: string;
  name: string;
  consist: Consist;
  topMmPerS: number;
  accelerationMmPerS2: number;
  brakingMmPerS2: number;
  startDelayMs: number;
  /** Where its nose is at the start, and which way it faces; a train without this is not on the track. */
  start?: { line: string; at: TenthUm; facing: Facing };
}

/** What of a layout moves, and what it moves on, beside the track itself. */
export interface PlantParameters {
  trains: readonly TrainParameters[];
  /** No current flows in the track while a train stands, so that detectors that need it notice nothing. */
  closes: boolean;
  /** A scale speed, on the layout. */
  mmPerS(kmh: number): number;
}

type Measured = Pick<LayoutDocument, 'vehicles' | 'power' | 'scale'>;

export function trainParameters(document: Measured, train: Train): TrainParameters {
  const { id, name, accelerationMmPerS2, brakingMmPerS2, startDelayMs, start } = train;
  return {
    id,
    name,
    consist: consistOf(document, train),
    topMmPerS: layoutSpeedMmPerS(train.topSpeedKmh, document.scale),
    accelerationMmPerS2,
    brakingMmPerS2,
    startDelayMs,
    ...(start && { start: { line: start.line, at: start.at.tenthUm, facing: start.facing } }),
  };
}

export const plantParameters = (document: Measured & Pick<LayoutDocument, 'trains'>): PlantParameters => ({
  trains: document.trains.map((train) => trainParameters(document, train)),
  closes: TRACK_POWERS[document.power].closes ?? false,
  mmPerS: (kmh) => layoutSpeedMmPerS(kmh, document.scale),
});
