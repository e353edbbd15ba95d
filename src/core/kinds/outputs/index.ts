import type { OutputKind } from './kind';
import { power } from './power';

/** Every kind of output that rules have. */
export const OUTPUTS = {
  aspect: { title: 'Aspect of a head', of: 'signal' },
  drive: { title: 'Drive of points', of: 'motor', values: ['straight', 'diverging'] },
  power,
} as const satisfies Record<string, OutputKind>;
export type OutputKindId = keyof typeof OUTPUTS;
