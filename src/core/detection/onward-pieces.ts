import { type EdgeEnd, type Over, onwardFrom } from '../track';
import type { Division, Piece } from './division';

/** The pieces beyond an end of a piece, with the end by which each is entered and how the motors in between have to lie. */
export function onwardPieces(
  division: Pick<Division, 'graph' | 'piecesOfEdge'>,
  piece: Piece,
  exit: EdgeEnd,
): { piece: Piece; enters: EdgeEnd; over: readonly Over[] }[] {
  const along = division.piecesOfEdge[piece.edge]!;
  /** Pieces are numbered along their edge. */
  const at = piece.index - along[0]!.index;
  const beside = exit === 1 ? along[at + 1] : along[at - 1];
  if (beside) return [{ piece: beside, enters: exit === 1 ? 0 : 1, over: [] }];
  return onwardFrom(division.graph, piece.edge, exit).map((on) => {
    const next = division.piecesOfEdge[on.edge]!;
    return { piece: on.enters === 0 ? next[0]! : next[next.length - 1]!, enters: on.enters, over: on.over };
  });
}
