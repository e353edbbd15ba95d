import type { Train } from '../survey';
import type { EdgeEnd } from '../track';
import { pieceAt } from './division';
import { onwardPieces } from './onward-pieces';
import type { Partition } from './partition';

/** Whether a train can come to stand in a piece with its nose away from that end of it. */
export type NoseWays = (piece: number, from: EdgeEnd) => boolean;

/**
 * Which way the nose of a train can point in each piece: as it starts, wherever it runs on from there and however often it turns back, since
 * that turns nothing round. Only where track comes back to itself the other way round do both. One that starts nowhere may be set down anyhow.
 */
export function noseWays(partition: Partition, { start }: Train): NoseWays {
  if (!start) return () => true;
  const known = new Set<number>();
  const open: [number, EdgeEnd][] = [];
  const add = (piece: number, from: EdgeEnd) => {
    if (known.has(2 * piece + from)) return;
    known.add(2 * piece + from);
    open.push([piece, from]);
  };
  const first = pieceAt(partition, start.line, start.at.tenthUm, start.facing === 'up' ? 'down' : 'up');
  add(first.index, start.facing === 'up' ? 0 : 1);
  for (let next = open.pop(); next; next = open.pop()) {
    const [piece, from] = [partition.pieces[next[0]]!, next[1]];
    for (const on of onwardPieces(partition, piece, from === 0 ? 1 : 0)) add(on.piece.index, on.enters);
    for (const on of onwardPieces(partition, piece, from)) add(on.piece.index, on.enters === 0 ? 1 : 0);
  }
  return (piece, from) => known.has(2 * piece + from);
}
