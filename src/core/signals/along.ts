import type { Partition } from '../detection';
import { mmOf } from '../measure';
import type { EdgeEnd } from '../track';
import type { SignalReading } from './routes';

/** A signal on a piece, and how far from where a train that reads it comes onto that piece. */
export interface SignalAlong {
  index: number;
  alongMm: number;
}

/** The signals that are read on the way out of a piece by an end, nearest first. */
export type SignalsOn = (piece: number, exit: EdgeEnd) => readonly SignalAlong[];

const NONE: readonly SignalAlong[] = [];

export function signalsAlong(partition: Partition, readings: readonly SignalReading[]): SignalsOn {
  const found = new Map<number, SignalAlong[]>();
  for (const { index, piece: on, exit, signal } of readings) {
    const piece = partition.pieces[on]!;
    const at = signal.at.tenthUm;
    const alongMm = mmOf(exit === 1 ? at - piece.from : piece.to - at);
    const key = on * 2 + exit;
    const here = [...(found.get(key) ?? []), { index, alongMm }];
    found.set(
      key,
      here.sort((a, b) => a.alongMm - b.alongMm || a.index - b.index),
    );
  }
  return (piece, exit) => found.get(piece * 2 + exit) ?? NONE;
}
