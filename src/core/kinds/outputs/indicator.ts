import type { MarkShape, OutputEntry } from './kind';

const lying = (bar: string): MarkShape[] => [
  { d: 'M-5 -5H5Q7 -5 7 -3V3Q7 5 5 5H-5Q-7 5 -7 3V-3Q-7 -5 -5 -5Z', fill: 'ink' },
  { d: bar, stroke: 'sheet', width: 2.4 },
];

/** What shows beside points how they lie: a bar that lies as they do; dark while they do not lie at all. */
export const indicator = {
  of: 'motor',
  values: ['dark', 'straight', 'diverging'],
  forPeople: true,
  otherwise: 'dark',
  says: (name) => `The indicator of ${name} shows {}`,
  marks: { straight: lying('M-4 0H4'), diverging: lying('M-4 3L4 -3') },
  key: { says: 'Points indicator', mark: 'diverging' },
} as const satisfies OutputEntry;
