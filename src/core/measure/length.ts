import { type ScaleId, scaleRatio } from './scale';

/**
 * A length on the layout in whole tenths of a micrometre, so that 1/16 inch (15,875) is exact.
 * Everything stored is of this unit; millimetres appear only in moving trains and on screens.
 */
export type TenthUm = number;

export type ShownUnit = 'cm' | 'inch';

export const TENTH_UM_PER_MM = 10_000;
export const TENTH_UM_PER_CM = 100_000;
export const TENTH_UM_PER_INCH = 254_000;
export const TENTH_UM_PER_FOOT = 12 * TENTH_UM_PER_INCH;
export const TENTH_UM_PER_METRE = 100 * TENTH_UM_PER_CM;
/** No layout line is longer than 10 km; a longer length is a slip of the keyboard. */
const LONGEST: TenthUm = 10_000 * TENTH_UM_PER_METRE;

/** A length with what the person typed, kept so that nobody finds `38"` turned into 96.52 cm. */
export interface TypedLength {
  tenthUm: TenthUm;
  typed: string;
}

export type LengthReading = { ok: true; value: TypedLength } | { ok: false; problem: string };

export const mmOf = (length: TenthUm): number => length / TENTH_UM_PER_MM;
export const fromMm = (mm: number): TenthUm => Math.round(mm * TENTH_UM_PER_MM);
export const cm = (centimetres: number): TypedLength => ({
  tenthUm: Math.round(centimetres * TENTH_UM_PER_CM),
  typed: `${centimetres} cm`,
});

const UNITS: Record<string, number> = {
  mm: TENTH_UM_PER_MM,
  millimetre: TENTH_UM_PER_MM,
  millimetres: TENTH_UM_PER_MM,
  cm: TENTH_UM_PER_CM,
  centimetre: TENTH_UM_PER_CM,
  centimetres: TENTH_UM_PER_CM,
  m: TENTH_UM_PER_METRE,
  metre: TENTH_UM_PER_METRE,
  metres: TENTH_UM_PER_METRE,
  meter: TENTH_UM_PER_METRE,
  meters: TENTH_UM_PER_METRE,
  in: TENTH_UM_PER_INCH,
  inch: TENTH_UM_PER_INCH,
  inches: TENTH_UM_PER_INCH,
  '"': TENTH_UM_PER_INCH,
  ft: TENTH_UM_PER_FOOT,
  foot: TENTH_UM_PER_FOOT,
  feet: TENTH_UM_PER_FOOT,
  "'": TENTH_UM_PER_FOOT,
};

const isImperial = (unit: string): boolean => UNITS[unit]! % TENTH_UM_PER_INCH === 0;

/** What was typed speaks in units of the kind that is shown; scale lengths are of either kind. */
export function isTypedIn(typed: string, unit: ShownUnit): boolean {
  const units: string[] = typed.toLowerCase().match(/[a-z]+|["']/g) ?? [];
  return units.includes('scale') || units.every((one) => !UNITS[one] || isImperial(one) === (unit === 'inch'));
}

const FRACTIONS: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

const NUMBER = String.raw`(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:\.\d+)?|\.\d+)`;
const TERM = new RegExp(String.raw`^\s*(${NUMBER})\s*(scale\s+)?([a-z]+|'|")?\s*`);

/** "37 1/2" -> 37.5, "3/8" -> 0.375; undefined when a denominator is zero. */
function readNumber(text: string): number | undefined {
  const mixed = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(text);
  if (!mixed) return Number(text);
  const denominator = Number(mixed[3]);
  if (denominator === 0) return undefined;
  return Number(mixed[1] ?? 0) + Number(mixed[2]) / denominator;
}

const refuse = (problem: string): LengthReading => ({ ok: false, problem });

/**
 * Reads a length as people say it: "96 cm", "3 ft 2 in", `3'2"`, `38"`, `37 1/2"`, "1.2 m", "40 scale ft".
 * A bare number takes `bareUnit`. Refuses, with a sentence that says what to type instead, anything that can be
 * read in two ways ("1,200", `3'2`), negative lengths, unknown units and lengths over 10 km.
 */
export function readLength(text: string, bareUnit: ShownUnit, scale: ScaleId): LengthReading {
  const typed = text.trim();
  const plain = typed
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (sign) => ` ${FRACTIONS[sign]}`)
    .trim()
    .replace(/[’′]/g, "'")
    .replace(/[”″]|''/g, '"');
  if (plain === '') return refuse('Type a length, for example 96 cm or 3 ft 2 in.');
  if (/^[-−]/.test(plain)) return refuse(`“${typed}” is below zero. Lengths count from the start of the line.`);
  if (plain.includes(',')) {
    return refuse(`“${typed}” can be read in two ways. Write ${plain.replace(',', '.')} or ${plain.replace(',', '')}.`);
  }
  let rest = plain;
  let total = 0;
  let smallest = Number.POSITIVE_INFINITY;
  let terms = 0;
  while (rest !== '') {
    const term = TERM.exec(rest);
    if (!term) return refuse(`I cannot read “${rest}” in “${typed}”. Write for example 96 cm, 3 ft 2 in or 37 1/2".`);
    const amount = readNumber(term[1]!);
    if (amount === undefined) return refuse(`“${term[1]}” divides by zero.`);
    const unitWord = term[3];
    if (unitWord === undefined && terms > 0) {
      return refuse(`“${term[1]}” in “${typed}” has no unit. Say ${term[1]} in, or another unit.`);
    }
    const unit = unitWord === undefined ? UNITS[bareUnit]! : UNITS[unitWord];
    if (unit === undefined) return refuse(`“${unitWord}” is not a unit I know. Use mm, cm, m, in or ft.`);
    if (unit >= smallest) return refuse(`“${typed}” repeats or reverses its units. Write the larger unit first.`);
    smallest = unit;
    total += term[2] ? (amount * unit) / scaleRatio(scale) : amount * unit;
    rest = rest.slice(term[0].length);
    terms += 1;
  }
  const tenthUm = Math.round(total);
  if (tenthUm > LONGEST) return refuse(`“${typed}” is longer than 10 km. Check the unit.`);
  return {
    ok: true,
    value: { tenthUm, typed: /[a-z'"]/.test(plain) ? typed : `${typed} ${bareUnit === 'inch' ? 'in' : 'cm'}` },
  };
}

/** Of an inch, to which lengths are shown and read off the tape. */
const TAPE_STEP = 16;

/** Shows a length in the chosen unit: "96.5 cm", `38"`, `37 1/2"`. Inches are shown to the nearest sixteenth, as a tape is read. */
export function showLength(length: TenthUm, unit: ShownUnit): string {
  if (unit === 'cm') return `${showNumber(length / TENTH_UM_PER_CM, 2)} cm`;
  const steps = Math.round((length * TAPE_STEP) / TENTH_UM_PER_INCH);
  const whole = Math.trunc(steps / TAPE_STEP);
  let part = Math.abs(steps % TAPE_STEP);
  if (part === 0) return `${whole}"`;
  let under = TAPE_STEP;
  while (part % 2 === 0) {
    part /= 2;
    under /= 2;
  }
  const fraction = `${part}/${under}"`;
  if (whole === 0) return steps < 0 ? `-${fraction}` : fraction;
  return `${whole} ${fraction}`;
}

/** A number with at most `digits` decimals and no trailing zeros; shown to one digit fewer only when that is exact. */
export function showNumber(value: number, digits: number): string {
  return String(Number(value.toFixed(digits)));
}
