/**
 * Modelling scales. Ratios are kept as tenths so that 1:87.1 is an exact integer.
 * Source of the ratios: NMRA S-1.2 (North American scales), MOROP NEM 010 (European scales), British practice for N and OO.
 * `guideOunces`: the weight of a car, at the start and for every inch of its length (NMRA RP-20.1: HO certain, N likewise, O from memory; H0 as HO, common practice).
 * Gauges likewise: the distance between the rails, in tenths of a millimetre (garden lines on 45 mm; from memory).
 */
export const SCALES = {
  Z: { label: 'Z 1:220', ratioTenths: 2200, gaugeTenthsMm: 65 },
  N: { label: 'N 1:160', ratioTenths: 1600, gaugeTenthsMm: 90, guideOunces: [0.5, 0.15] },
  'N-UK': { label: 'N 1:148', ratioTenths: 1480, gaugeTenthsMm: 90 },
  TT: { label: 'TT 1:120', ratioTenths: 1200, gaugeTenthsMm: 120 },
  HO: { label: 'HO 1:87.1', ratioTenths: 871, gaugeTenthsMm: 165, guideOunces: [1, 0.5] },
  H0: { label: 'H0 1:87', ratioTenths: 870, gaugeTenthsMm: 165, guideOunces: [1, 0.5] },
  OO: { label: 'OO 1:76.2', ratioTenths: 762, gaugeTenthsMm: 165 },
  S: { label: 'S 1:64', ratioTenths: 640, gaugeTenthsMm: 225 },
  O: { label: 'O 1:48', ratioTenths: 480, gaugeTenthsMm: 320, guideOunces: [5, 1] },
  '0': { label: '0 1:45', ratioTenths: 450, gaugeTenthsMm: 320 },
  'O-UK': { label: 'O 1:43.5', ratioTenths: 435, gaugeTenthsMm: 320 },
  '1': { label: '1 1:32', ratioTenths: 320, gaugeTenthsMm: 450 },
  G: { label: 'IIm 1:22.5', ratioTenths: 225, gaugeTenthsMm: 450 },
} as const;

/** A scale of one's own, by its ratio and the distance between its rails in mm: “1:38 on 37.5”. */
export type OwnScale = `1:${number} on ${number}`;
export type ScaleId = keyof typeof SCALES | OwnScale;
export const SCALE_IDS = Object.keys(SCALES) as (keyof typeof SCALES)[];

export const OWN_SCALE = /^1:(\d{1,4}(?:\.\d)?) on (\d{1,3}(?:\.\d)?)$/;
/** A ratio from life size to that of a fingernail; rails from the smallest made to those that people ride on. */
export const OWN_LIMITS = { ratio: [1, 1000], gaugeMm: [3, 200] } as const;

interface Scale {
  label: string;
  ratioTenths: number;
  gaugeTenthsMm: number;
  guideOunces?: readonly [number, number];
}

const within = (value: number, [least, most]: readonly [number, number]) => value >= least && value <= most;

function readOwn(id: string): Scale | undefined {
  const [, ratio, gauge] = (OWN_SCALE.exec(id) ?? []).map(Number);
  if (ratio === undefined || gauge === undefined) return undefined;
  if (!within(ratio, OWN_LIMITS.ratio) || !within(gauge, OWN_LIMITS.gaugeMm)) return undefined;
  return { label: `1:${ratio}, rails ${gauge} mm`, ratioTenths: Math.round(ratio * 10), gaugeTenthsMm: gauge * 10 };
}

export const isScale = (id: unknown): id is ScaleId =>
  typeof id === 'string' && (Object.hasOwn(SCALES, id) || readOwn(id) !== undefined);

/** What a scale is, one of the list or one's own; an own one is checked where it enters a document. */
export const scaleOf = (id: ScaleId): Scale =>
  Object.hasOwn(SCALES, id) ? SCALES[id as keyof typeof SCALES] : readOwn(id)!;

/** How many times smaller than life the model is, e.g. 87.1. */
export const scaleRatio = (scale: ScaleId): number => scaleOf(scale).ratioTenths / 10;
