import { type ShownUnit, showNumber } from './length';

/** The avoirdupois ounce, exactly (international yard and pound agreement, 1959; from memory). */
export const GRAMS_PER_OUNCE = 28.349523125;

/** In grams, or where inches rule in ounces to the twentieth. */
export const showWeight = (grams: number, unit: ShownUnit): string =>
  unit === 'inch'
    ? `${showNumber(Math.round((grams / GRAMS_PER_OUNCE) * 20) / 20, 2)} oz`
    : `${showNumber(grams, 1)} g`;

/** Reads “250 g” or “8.8 oz”, as grams; without a unit it is what the layout is shown in. Undefined where it is no weight. */
export function readWeight(text: string, unit: ShownUnit): number | undefined {
  const [, amount, said] = /^([\d.]+)\s*(g|grams?|oz|ounces?)?$/i.exec(text.trim()) ?? [];
  const value = Number(amount);
  if (amount === undefined || !Number.isFinite(value)) return undefined;
  const inOunces = said === undefined ? unit === 'inch' : /^o/i.test(said);
  return inOunces ? value * GRAMS_PER_OUNCE : value;
}
