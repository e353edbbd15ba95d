import type { OutputKind } from './kind';
import { power } from './power';

/** Every kind of output that rules have. */
export const OUTPUTS = {
  aspect: { of: 'signal' },
  drive: { of: 'motor' },
  power,
} as const satisfies Record<string, OutputKind>;
export type OutputKindId = keyof typeof OUTPUTS;
