import type { Finding } from '../findings';
import { holdingBlocks, isWatched, type Scheme } from '../patterns';
import { waysRun } from '../signals';
import type { Edit } from '../survey';

/** Points that follow their button at any time, since nothing tells of a train near them. Where none can come, that is as it should be. */
export function lockFindings(scheme: Scheme): Finding<Edit>[] {
  const { document, partition } = scheme;
  const isRun = waysRun(document, partition);
  return partition.graph.motors.flatMap((motor): Finding<Edit>[] => {
    if (isWatched(scheme, motor)) return [];
    const blocks = holdingBlocks(scheme, motor).map((block) => partition.blocks[block]!);
    const comes =
      document.trains.length > 0 &&
      blocks.some((block) => block.pieces.some((piece) => isRun(piece, 0) || isRun(piece, 1)));
    const places = blocks.map(({ name }) => name).join(' and ');
    return [
      {
        id: `held-by-nothing ${motor.id}`,
        kind: 'points that nothing holds',
        severity: comes ? 'unsafe' : 'note',
        subject: partition.graph.points[motor.points]!.id,
        says: comes
          ? `${motor.name} moves whenever it is asked to, even under a train: no detector sees a train in ${places}.`
          : `${motor.name} follows its button alone: nothing watches ${places}, and no train of the roster can come there.`,
        figures: [],
        ...(comes && {
          advice: `Let a detector watch ${places}, or take the motor away and throw it by hand, with an eye on it.`,
        }),
        fixes: [],
      },
    ];
  });
}
