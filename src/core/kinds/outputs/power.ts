import type { OutputEntry, PowerLevel } from './kind';

/**
 * The levels of power, the most restrictive first. Cut off, a train comes to a stand within the stopping distance that was measured of
 * it. How slow it is on little power: common practice, no source.
 */
export const POWER_LEVELS = [
  { id: 'off', says: 'has no power', speedShare: 0, feeds: false },
  { id: 'braking', says: 'tells engines to brake', speedShare: 0, feeds: true },
  { id: 'slow', says: 'has little power', speedShare: 0.5, feeds: true },
  { id: 'full', says: 'has power', speedShare: 1, feeds: true },
] as const satisfies readonly PowerLevel[];
export type PowerId = (typeof POWER_LEVELS)[number]['id'];
export const FULL_POWER = POWER_LEVELS.length - 1;

export const power = {
  of: 'section',
  values: POWER_LEVELS.map(({ id }) => id),
  otherwise: POWER_LEVELS[FULL_POWER]!.id,
  says: (name) => `The power of ${name} is {}`,
  /** Track without power is drawn broken, and nothing beside it. */
  marks: {},
  key: { says: 'No power', mark: [{ d: 'M-15 0H-9M-4 0H2M7 0H13', stroke: 'accent-band', width: 12 }] },
} as const satisfies OutputEntry;
