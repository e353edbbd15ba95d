import type { OutputEntry } from './kind';

/** Whether the lamps of a signal are lit at all; trains read a dark one as stop. */
export const lighting = { of: 'signal', values: ['dark', 'lit'], forPeople: true } as const satisfies OutputEntry;
