import { indicator } from './indicator';
import type { OutputEntry } from './kind';
import { lamp } from './lamp';
import { lighting } from './lighting';
import { power } from './power';

/** Every kind of output that rules have. */
export const OUTPUTS = {
  aspect: { of: 'signal' },
  drive: { of: 'motor' },
  power,
  lamp,
  lighting,
  indicator,
} as const satisfies Record<string, OutputEntry>;
export type OutputKindId = keyof typeof OUTPUTS;
