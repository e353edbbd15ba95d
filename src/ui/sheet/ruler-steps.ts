import {
  type ScaleId,
  type ShownUnit,
  scaleRatio,
  TENTH_UM_PER_CM,
  TENTH_UM_PER_FOOT,
  TENTH_UM_PER_INCH,
  TENTH_UM_PER_METRE,
} from '@/core/measure';

export interface Tick {
  at: number;
  label?: string;
}

/** Height of the rulers at the head of the sheet, in pixels. */
export const RULER_HEIGHT = 66;

/** Labels no nearer than this on screen. */
const LABEL_PX = 46;
const MINOR_SHARE = 5;

/** The smallest step of 1, 2 or 5 times a power of ten that is at least `least`. */
function niceStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  for (const factor of [1, 2, 5, 10]) if (power * factor >= least * 0.999) return power * factor;
  return power * 10;
}

/** Ticks of a ruler over a stretch: `unit` in tenths of a micrometre, labels in that unit. */
function ticksOf(from: number, to: number, scale: number, unit: number, step: number): Tick[] {
  const minor = step / MINOR_SHARE;
  const first = Math.ceil(from / (minor * unit));
  const last = Math.floor(to / (minor * unit));
  const ticks: Tick[] = [];
  for (let i = first; i <= last && ticks.length < 2000; i++) {
    const onLabel = i % MINOR_SHARE === 0;
    ticks.push({ at: i * minor * unit, label: onLabel ? String(Number((i * minor).toFixed(3))) : undefined });
  }
  return scale > 0 ? ticks : [];
}

/** The layout ruler: centimetres or inches. */
export function layoutTicks(
  from: number,
  to: number,
  pxPerTenthUm: number,
  unit: ShownUnit,
): { unit: string; ticks: Tick[] } {
  const size = unit === 'cm' ? TENTH_UM_PER_CM : TENTH_UM_PER_INCH;
  const step = niceStep(LABEL_PX / (size * pxPerTenthUm));
  return { unit: unit === 'cm' ? 'cm' : 'in', ticks: ticksOf(from, to, pxPerTenthUm, size, step) };
}

/** The same distances at full size: metres or feet. */
export function scaleTicks(
  from: number,
  to: number,
  pxPerTenthUm: number,
  unit: ShownUnit,
  scale: ScaleId,
): { unit: string; ticks: Tick[] } {
  const size = (unit === 'cm' ? TENTH_UM_PER_METRE : TENTH_UM_PER_FOOT) / scaleRatio(scale);
  const step = niceStep(LABEL_PX / (size * pxPerTenthUm));
  return { unit: unit === 'cm' ? 'scale m' : 'scale ft', ticks: ticksOf(from, to, pxPerTenthUm, size, step) };
}
