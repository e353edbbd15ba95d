/** Signals on the track: the ways ahead of each through points, and the stretches that one direction holds. */
export * from './signal-findings';
export * from './stretches';
export * from './ways';

/** Three aspects, most restrictive first. */
export const ASPECTS = ['stop', 'caution', 'clear'] as const;
export type Aspect = (typeof ASPECTS)[number];
