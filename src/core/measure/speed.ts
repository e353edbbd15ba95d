import { type ShownUnit, showNumber } from './length';
import { type ScaleId, scaleRatio } from './scale';

/** 1 mph = 0.44704 m/s and so 1.609344 km/h, exactly (international yard and pound agreement, 1959). */
export const KMH_PER_MPH = 1.609344;

/** Speed over the layout in mm/s of a scale speed in km/h: v = km/h * 1e6 / 3600 / ratio. */
export function layoutSpeedMmPerS(scaleKmh: number, scale: ScaleId): number {
  return (scaleKmh * 1e6) / 3600 / scaleRatio(scale);
}

/** The scale speed in km/h of a speed over the layout in mm/s. */
export function scaleSpeedKmh(mmPerS: number, scale: ScaleId): number {
  return (mmPerS * 3600 * scaleRatio(scale)) / 1e6;
}

/** A scale speed as people of a unit of length say it: km/h beside centimetres, mph beside inches. */
export const showSpeed = (kmh: number, unit: ShownUnit, digits = 0): string =>
  unit === 'cm' ? `${showNumber(kmh, digits)} km/h` : `${showNumber(kmh / KMH_PER_MPH, digits)} mph`;

export type SpeedReading = { ok: true; kmh: number } | { ok: false; problem: string };

/**
 * Reads a speed into scale km/h. "50 km/h", "30 mph", "25 smph" and bare numbers (km/h) are scale speeds;
 * "16 cm/s" and "160 mm/s" are actual speeds over the layout. Refuses unknown units and anything over 1000 km/h.
 */
export function readSpeed(text: string, scale: ScaleId): SpeedReading {
  const match = /^\s*(\d+(?:\.\d+)?)\s*(km\/h|kmh|kph|mph|smph|cm\/s|mm\/s)?\s*$/i.exec(text);
  if (!match)
    return { ok: false, problem: `I cannot read “${text.trim()}” as a speed. Write 50 km/h, 30 mph or 16 cm/s.` };
  const amount = Number(match[1]);
  const unit = (match[2] ?? 'km/h').toLowerCase();
  const kmh =
    unit === 'mph' || unit === 'smph'
      ? amount * KMH_PER_MPH
      : unit === 'cm/s'
        ? scaleSpeedKmh(amount * 10, scale)
        : unit === 'mm/s'
          ? scaleSpeedKmh(amount, scale)
          : amount;
  if (kmh > 1000) return { ok: false, problem: `“${text.trim()}” is over 1000 km/h in scale. Check the unit.` };
  return { ok: true, kmh };
}
