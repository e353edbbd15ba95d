import type { OutputKind } from './kind';

/** Whether the lamps of a signal are lit at all; a train that comes to a dark one waits, as at stop. */
export const lighting = { of: 'signal', values: ['dark', 'lit'], forPeople: true } as const satisfies OutputKind;
