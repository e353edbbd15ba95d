import type { SignalReading } from '../signals';
import type { System } from '../system';

/** Where the rules have what a person would say of a train that has come into the block in rear of a signal, towards it. */
export function towards({ stretches, terminals }: System, reading: SignalReading): number[] {
  const stretch = stretches.all[stretches.ofBlock[reading.rear]!]!;
  if (!stretch.bothWays) return [];
  const side = stretches.sideOf(reading.rear, reading.piece, reading.exit === 1 ? 0 : 1);
  const input = terminals.find('direction', stretch.index, side);
  return input ? [input.slot] : [];
}
