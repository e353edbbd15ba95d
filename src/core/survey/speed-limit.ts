import type { SpeedLimit } from '../kinds';
import { readSpeed, type ScaleId, type ShownUnit, showNumber, showSpeed } from '../measure';

/** A limit as people say it: “50 % of its own speed”, “48 km/h”. */
export const saySpeedLimit = (limit: SpeedLimit | undefined, unit: ShownUnit): string =>
  !limit ? '' : limit.share === undefined ? showSpeed(limit.kmh!, unit) : `${showNumber(limit.share * 100, 0)} %`;

export type SpeedLimitReading = { ok: true; limit: SpeedLimit | undefined } | { ok: false; problem: string };

/** Reads “half”, “50 %”, “48 km/h”, “30 mph”; nothing at all is no limit. A bare number is in the speed of the unit. */
export function readSpeedLimit(text: string, unit: ShownUnit, scale: ScaleId): SpeedLimitReading {
  const said = text.trim();
  if (said === '') return { ok: true, limit: undefined };
  if (/^half$/i.test(said)) return { ok: true, limit: { share: 0.5 } };
  const share = /^(\d+(?:\.\d+)?)\s*%$/.exec(said);
  if (share) {
    const part = Number(share[1]) / 100;
    if (part >= 0.05 && part <= 1) return { ok: true, limit: { share: part } };
    return { ok: false, problem: 'Say from 5 % to 100 % of a train’s own speed.' };
  }
  const reading = readSpeed(/^\d+(?:\.\d+)?$/.test(said) && unit === 'inch' ? `${said} mph` : said, scale);
  if (!reading.ok)
    return { ok: false, problem: `${reading.problem.split('. ')[0]}. Write half, 50 %, 48 km/h or 30 mph.` };
  if (reading.kmh < 1 || reading.kmh > 500) return { ok: false, problem: 'Say a speed from 1 to 500 km/h.' };
  return { ok: true, limit: { kmh: reading.kmh } };
}
