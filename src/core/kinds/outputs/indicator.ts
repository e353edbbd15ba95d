import type { OutputKind } from './kind';

/** What shows beside points how they lie; dark while they do not lie at all. */
export const indicator = {
  of: 'motor',
  values: ['dark', 'straight', 'diverging'],
  forPeople: true,
} as const satisfies OutputKind;
