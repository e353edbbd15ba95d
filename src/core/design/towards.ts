import type { SignalReading } from '../signals';
import type { System } from '../system';

/** Where the rules have what a person would say of a train that has come into the block in rear of a signal, towards it. */
export function towards({ trafficSections, terminals }: System, reading: SignalReading): number[] {
  const trafficSection = trafficSections.all[trafficSections.ofBlock[reading.rear]!]!;
  if (!trafficSection.bothWays) return [];
  const side = trafficSections.sideCameInBy(reading.piece, reading.exit);
  const input = terminals.find('direction', trafficSection.index, side);
  return input ? [input.slot] : [];
}
