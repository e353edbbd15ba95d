import type { OutputKind } from './kind';

/** A lamp on a panel. */
export const lamp = { of: 'sensor', values: ['lit', 'dark'], forPeople: true } as const satisfies OutputKind;
