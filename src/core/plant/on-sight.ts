import type { Partition } from '../detection';
import type { RollingTrain } from './rolling-train';
import { pieceLengthMm, type ReadPoints, stepOn } from './tape';

/** How far a train can go, as a running distance of its nose, until it would touch another on its way; as far as its driver looks. */
export function freeOnSight(
  train: RollingTrain,
  others: readonly RollingTrain[],
  partition: Partition,
  points: ReadPoints,
): number {
  const standing = others.flatMap((other) => (other === train ? [] : other.standsOn()));
  const last = train.tape[train.tape.length - 1]!;
  let piece = partition.pieces[last.piece]!;
  let { exit, from } = last;
  while (from < train.head + train.sightMm) {
    const length = pieceLengthMm(piece);
    const ends = standing
      .filter((stands) => stands.piece === piece.index)
      .map(({ entry, from: begin, to }) =>
        entry.exit === exit ? from + begin - entry.from : from + length - (to - entry.from),
      )
      .filter((at) => at >= train.head);
    if (ends.length > 0) return Math.min(...ends);
    from += length;
    const step = stepOn(partition, piece, exit, points);
    if (step.kind === 'end of track') break;
    piece = step.piece;
    exit = step.exit;
  }
  return Number.POSITIVE_INFINITY;
}
