import type { EdgeEnd, PointsNode } from '../track';
import type { Piece } from './division';
import type { Partition } from './partition';
import { withinBlock } from './partition';

/** The shortest way over points from one end of their block to another. */
export function seenAcross(partition: Partition, { kind, ports }: PointsNode): number {
  const pieceOf = (leg: { edge: number; end: EdgeEnd }): Piece => {
    const own = partition.piecesOfEdge[leg.edge]!;
    return leg.end === 0 ? own[0]! : own[own.length - 1]!;
  };
  const home = pieceOf(ports[0]!).block;
  /** From entering a piece to the nearest end of the block. */
  const toEnd = (piece: Piece, enters: EdgeEnd, seen: number[]): number => {
    if (piece.block !== home || seen.includes(piece.index)) return 0;
    const on = withinBlock(partition, piece, enters === 0 ? 1 : 0);
    return (
      piece.to -
      piece.from +
      (on.length === 0 ? 0 : Math.min(...on.map((next) => toEnd(next.piece, next.enters, [...seen, piece.index]))))
    );
  };
  const away = (port: string) => {
    const leg = ports[kind.ports.indexOf(port)]!;
    return toEnd(pieceOf(leg), leg.end, []);
  };
  return Math.min(...kind.ways.map(({ joins }) => away(joins[0]) + away(joins[1])));
}

/** From the blades along a leg to the nearest end of their block. */
export function watchedFrom(partition: Partition, leg: { edge: number; end: EdgeEnd }): number {
  const own = partition.piecesOfEdge[leg.edge]!;
  const first = leg.end === 0 ? own[0]! : own[own.length - 1]!;
  const seen = new Set<number>();
  const walk = (piece: typeof first, enters: EdgeEnd): number => {
    if (seen.has(piece.index)) return 0;
    seen.add(piece.index);
    const on = withinBlock(partition, piece, enters === 0 ? 1 : 0);
    const further = on.length === 0 ? 0 : Math.min(...on.map((next) => walk(next.piece, next.enters)));
    return piece.to - piece.from + further;
  };
  return walk(first, leg.end);
}
