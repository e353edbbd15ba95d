import type { Facing } from '../survey';
import type { Walk } from './walk';

/** By their names, or shorter: east for eastbound. */
export const directions = ({ document: { directions: named } }: Pick<Walk, 'document'>): Record<string, Facing> => ({
  [named.up.toLowerCase()]: 'up' as const,
  [named.down.toLowerCase()]: 'down' as const,
  [named.up.toLowerCase().replace(/bound$/, '')]: 'up' as const,
  [named.down.toLowerCase().replace(/bound$/, '')]: 'down' as const,
  up: 'up' as const,
  down: 'down' as const,
});
