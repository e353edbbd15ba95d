import { onwardPieces, type Partition, type Piece, pieceAt } from '../detection';
import { type Facing, type LayoutDocument, remembered, signalsOf } from '../survey';
import { type EdgeEnd, isAgainst } from '../track';

/** Whether some train comes into a piece by an end. */
export type WaysRun = (piece: number, enters: EdgeEnd) => boolean;

const FACINGS: readonly Facing[] = ['up', 'down'];

/**
 * Where trains run, and which way: on from where they start, and from every signal, over points however these lie, and back from
 * where the track ends. By a timetable, from wherever it lets them run. With nothing said of any of these, everywhere and both ways. Never
 * against the direction of running of a line.
 */
export const waysRun = remembered(['trains', 'movements', 'features'], (document, partition: Partition): WaysRun => {
  const { graph, pieces } = partition;
  const run = new Set<number>();
  const open: [Piece, EdgeEnd][] = [];
  const add = (piece: Piece, enters: EdgeEnd) => {
    const key = 2 * piece.index + enters;
    if (run.has(key) || isAgainst(graph.edges[piece.edge]!, enters)) return;
    run.add(key);
    open.push([piece, enters]);
  };
  for (const [piece, facing] of beginnings(document, partition) ?? pieces.flatMap(bothWays))
    add(piece, facing === 'up' ? 0 : 1);
  for (let next = open.pop(); next; next = open.pop()) {
    const [piece, enters] = next;
    const exit = enters === 0 ? 1 : 0;
    const onward = onwardPieces(partition, piece, exit);
    for (const on of onward) add(on.piece, on.enters);
    if (onward.length === 0) add(piece, exit);
  }
  return (piece, enters) => run.has(2 * piece + enters);
});

const bothWays = (piece: Piece) => FACINGS.map((facing): [Piece, Facing] => [piece, facing]);

/** Where trains are on their way already, and which way; undefined where nothing is said of that. */
function beginnings(
  document: Pick<LayoutDocument, 'trains' | 'movements' | 'features'>,
  partition: Partition,
): [Piece, Facing][] | undefined {
  const { movements, trains } = document;
  if (movements.length > 0) {
    const facings = movements.flatMap(({ facing, turnsBack }) => (turnsBack === 'no' ? [facing] : FACINGS));
    return partition.pieces.flatMap((piece) => [...new Set(facings)].map((facing): [Piece, Facing] => [piece, facing]));
  }
  const standing = trains.flatMap(({ start }): [Piece, Facing][] =>
    start
      ? [[pieceAt(partition, start.line, start.at.tenthUm, start.facing === 'up' ? 'down' : 'up'), start.facing]]
      : [],
  );
  const read = signalsOf(document).map(({ line, at, governs }): [Piece, Facing] => [
    pieceAt(partition, line, at.tenthUm, governs === 'up' ? 'down' : 'up'),
    governs,
  ]);
  const found = [...standing, ...read];
  return found.length > 0 ? found : undefined;
}
