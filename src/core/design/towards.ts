import { names, type Scheme } from '../patterns';
import type { SignalReading } from '../signals';

/** What a person would say of a train that has come into the block in rear of a signal, towards it. */
export function towards(reading: SignalReading, stretches: Scheme['stretches']): string[] {
  const stretch = stretches.all[stretches.ofBlock[reading.rear]!]!;
  if (!stretch.bothWays) return [];
  return [names.tell(stretch, stretches.sideOf(reading.rear, reading.piece, reading.exit === 1 ? 0 : 1))];
}
