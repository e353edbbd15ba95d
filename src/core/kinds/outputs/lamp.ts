import type { OutputKind } from './kind';

/** A lamp on a panel; or a red one beside the track, which says that it has power. */
export const lamp = { of: 'sensor', values: ['lit', 'dark', 'red'], forPeople: true } as const satisfies OutputKind;
