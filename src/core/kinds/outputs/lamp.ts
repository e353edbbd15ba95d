import type { OutputEntry } from './kind';

/** A circle of that radius. */
const circle = (r: number) => `M${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;

/** A lamp on a panel; or a red one beside the track, which says that it has power. With rays round it when lit, and with a plus in it when it is red for power. */
export const lamp = {
  of: 'sensor',
  values: ['lit', 'dark', 'red'],
  forPeople: true,
  otherwise: 'dark',
  says: (name) => `The lamp of ${name} is {}`,
  marks: {
    lit: [
      { d: circle(4), fill: 'warn', stroke: 'ink' },
      { d: 'M0 -8V-6M0 6V8M-8 0H-6M6 0H8', stroke: 'ink', width: 1.3 },
    ],
    dark: [{ d: circle(4), fill: 'sheet', stroke: 'ink' }],
    red: [
      { d: circle(4.5), fill: 'stop', stroke: 'ink' },
      { d: 'M-2 0H2M0 -2V2', stroke: 'sheet', width: 1.4 },
    ],
  },
  key: { says: 'Panel lamp, lit', mark: 'lit' },
} as const satisfies OutputEntry;
