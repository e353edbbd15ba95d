import { onwardPieces, type Partition } from '../detection';
import { STOP_SHORT_MM } from '../measure';
import type { TurnoutPosition } from '../survey';
import type { EdgeEnd, Over } from '../track';
import type { RollingTrain } from './rolling-train';
import { pieceLengthMm } from './tape';

/** How a train gets to a block: how far its nose runs, and the turnouts on the way, each at the running distance of its tips. */
export interface WayTo {
  goalAt: number;
  /** By the numbers of their motors. */
  turnouts: { motor: number; position: TurnoutPosition; at: number }[];
}

/**
 * The shortest way forward from a train’s nose to the far end of a block, over whatever turnouts; undefined when the block does
 * not lie ahead. Ties go to the way found first, straight before diverging.
 */
export function wayTo(partition: Partition, train: RollingTrain, block: number): WayTo | undefined {
  interface Reached {
    piece: number;
    exit: EdgeEnd;
    /** Running distance at the end of the piece. */
    end: number;
    from: Reached | undefined;
    over: readonly Over[];
  }
  const last = train.tape[train.tape.length - 1]!;
  const queue: Reached[] = [{ piece: last.piece, exit: last.exit, end: last.to, from: undefined, over: [] }];
  const seen = new Set<string>();
  while (queue.length > 0) {
    queue.sort((a, b) => a.end - b.end);
    const here = queue.shift()!;
    const key = `${here.piece} ${here.exit}`;
    if (seen.has(key)) continue;
    seen.add(key);
    const piece = partition.pieces[here.piece]!;
    const onward = onwardPieces(partition, piece, here.exit);
    const leaves = onward.every((on) => on.piece.block !== block);
    if (piece.block === block && leaves && here.end - STOP_SHORT_MM > train.head) {
      const turnouts: WayTo['turnouts'] = [];
      for (let at: Reached | undefined = here; at?.from; at = at.from)
        for (const { motor, position } of at.over) turnouts.unshift({ motor, position, at: at.from.end });
      return { goalAt: here.end - STOP_SHORT_MM, turnouts };
    }
    for (const { piece: next, enters, over } of onward) {
      const exit: EdgeEnd = enters === 0 ? 1 : 0;
      queue.push({ piece: next.index, exit, end: here.end + pieceLengthMm(next), from: here, over });
    }
  }
  return undefined;
}
