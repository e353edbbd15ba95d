import { crossover, diamond, doubleSlip, scissors, singleSlip } from './crossings';
import type { PointsKind } from './kind';
import { curved, threeWay, turnout, wye } from './turnouts';

/** Points that branch off one line, by the name that documents have for their kind. The first is the usual one. */
export const TURNOUTS = { turnout, wye, curved, 'three-way': threeWay } as const satisfies Record<string, PointsKind>;
export type TurnoutKindId = keyof typeof TURNOUTS;
export const TURNOUT_KIND_IDS = Object.keys(TURNOUTS) as TurnoutKindId[];
/** The legs of such points beside the straight one, by their ports: after the stem and that one, in order. */
export const legsOf = (kind: TurnoutKindId): readonly string[] => TURNOUTS[kind].ports.slice(2);
/** The names of all such legs that any kind has. */
export const LEGS: readonly string[] = [...new Set(TURNOUT_KIND_IDS.flatMap(legsOf))];

/** What belongs to two lines at once. */
export const CROSSINGS = {
  diamond,
  'single slip': singleSlip,
  'double slip': doubleSlip,
  crossover,
  scissors,
} as const satisfies Record<string, PointsKind>;
export type CrossingKindId = keyof typeof CROSSINGS;
export const CROSSING_KIND_IDS = Object.keys(CROSSINGS) as CrossingKindId[];
