import { VEHICLES, type VehicleKindId } from '../kinds';
import {
  fromMm,
  type ShownUnit,
  scaleRatio,
  TENTH_UM_PER_INCH,
  TENTH_UM_PER_MM,
  type TenthUm,
  type TypedLength,
} from '../measure';
import { type Axle, asTyped, type Vehicle } from '../survey';
import type { RosterContext } from './context';

/** Lengths that are assumed are round, so that nobody takes them for measured: those of vehicles, and places of axles. */
const ROUND: Record<ShownUnit, { length: TenthUm; place: TenthUm }> = {
  cm: { length: 5 * TENTH_UM_PER_MM, place: TENTH_UM_PER_MM },
  inch: { length: TENTH_UM_PER_INCH / 4, place: TENTH_UM_PER_INCH / 16 },
};

/** How long a vehicle of a kind is likely to be. */
export function likelyLength(kind: VehicleKindId, { scale, shownUnit }: RosterContext): TypedLength {
  const step = ROUND[shownUnit].length;
  const long = fromMm(VEHICLES[kind].lifeMm / scaleRatio(scale));
  return asTyped(Math.max(1, Math.round(long / step)) * step, shownUnit);
}

/** Where the axles of a vehicle of a kind are likely to lie, and what they feed. */
export function likelyAxles(kind: VehicleKindId, length: TypedLength, { shownUnit }: RosterContext): Axle[] {
  const step = ROUND[shownUnit].place;
  return VEHICLES[kind].axles.map((share) => ({
    at: asTyped(Math.min(length.tenthUm, Math.round((length.tenthUm * share) / step) * step), shownUnit),
    feeds: VEHICLES[kind].driven ? 'motor' : 'nothing',
    plastic: undefined,
  }));
}

/** A vehicle of a kind as long as one is likely to be, until somebody measures it. */
export function newVehicle(
  kind: VehicleKindId,
  name: string,
  context: RosterContext,
  length: TypedLength = likelyLength(kind, context),
): Omit<Vehicle, 'id'> {
  return {
    name,
    kind,
    length,
    axles: likelyAxles(kind, length, context),
    grams: 0,
    magnetAt: undefined,
    takesNone: undefined,
    leastRadius: undefined,
    decoder: undefined,
  };
}
