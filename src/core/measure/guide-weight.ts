import { TENTH_UM_PER_INCH, type TenthUm } from './length';
import { type ScaleId, scaleOf } from './scale';
import { GRAMS_PER_OUNCE } from './weight';

/**
 * What a car of a length should weigh to run well, in grams: so many ounces, and so many for every inch. Undefined where the
 * scale has no such guide. Source: NMRA RP-20.1, by the table of the scales.
 */
export function guideGrams(length: TenthUm, scale: ScaleId): number | undefined {
  const { guideOunces } = scaleOf(scale);
  if (!guideOunces) return undefined;
  const [start, perInch] = guideOunces;
  return (start + (perInch * length) / TENTH_UM_PER_INCH) * GRAMS_PER_OUNCE;
}
