import { type ShownUnit, showNumber, TENTH_UM_PER_FOOT, TENTH_UM_PER_METRE, type TenthUm } from './length';

/** A sum in the money that somebody pays in: a sign stands before it, a word or its letters behind; nothing where nobody has said. */
export function showMoney(sum: number, money: string | undefined, digits = 2): string {
  const shown = showNumber(sum, digits);
  if (!money) return shown;
  return /\p{L}/u.test(money) ? `${shown} ${money}` : `${money}${shown}`;
}

const WIRE = {
  cm: { unit: 'm', tenthUm: TENTH_UM_PER_METRE, one: 'metre', digits: 1 },
  inch: { unit: 'ft', tenthUm: TENTH_UM_PER_FOOT, one: 'foot', digits: 0 },
} as const;

/** A length of wire, in metres or where inches rule in feet: nobody cuts wire to the millimetre. */
export const showWire = (length: TenthUm, shown: ShownUnit): string => {
  const { tenthUm, digits, unit } = WIRE[shown];
  return `${showNumber(length / tenthUm, digits)} ${unit}`;
};

/** What wire is sold by, and how much of a metre that is. */
export const wireSoldBy = (shown: ShownUnit): { one: string; ofMetre: number } => ({
  one: WIRE[shown].one,
  ofMetre: WIRE[shown].tenthUm / TENTH_UM_PER_METRE,
});
