import { consistOf, type Partition } from '../detection';
import { layoutSpeedMmPerS, stoppingDistanceMm } from '../measure';
import type { Rehearsal } from '../simulation';
import { type Placement, placementsOf } from './placements';

/** A train of a proof: everywhere it can be, and what is true of it there. */
export interface ProofTrain {
  id: string;
  name: string;
  placements: Placement[];
  /** From where it stands to the middle of its first placement, in mm. */
  leadMm: number;
  /** Bits of the blocks of each placement, `blockWords` words each. */
  blocks: Int32Array;
  /** Chains of plain blocks worked both ways that it stands in: twice the stretch, and one more when it runs back along it. */
  sides: number[][];
}

/** 32-bit words that hold one bit for every block. */
export const blockWords = ({ blocks }: Partition): number => Math.ceil(blocks.length / 32);

/** The trains that stand on the track of a rehearsal, ready for a proof. */
export function proofTrainsOf({ document, plant, scheme }: Rehearsal): ProofTrain[] {
  const { partition, readings, stretches } = scheme;
  const words = blockWords(partition);
  return plant.trains.map((rolling) => {
    const train = document.trains.find((t) => t.id === rolling.figures.id)!;
    const last = rolling.tape[rolling.tape.length - 1]!;
    const top = layoutSpeedMmPerS(train.topSpeedKmh, document.scale);
    const { placements, leadMm } = placementsOf(
      partition,
      readings,
      consistOf(document, train),
      stoppingDistanceMm(top, 0, train.brakingMmPerS2),
      { tape: rolling.tape.map(({ piece, exit }) => ({ piece, exit })), noseMm: rolling.head - last.from },
    );
    const blocks = new Int32Array(placements.length * words);
    placements.forEach((placement, p) => {
      for (const block of placement.blocks) blocks[p * words + (block >> 5)]! |= 1 << (block & 31);
    });
    const sides = placements.map(({ tape }) => {
      const found = new Map<number, number>();
      for (const { piece, exit } of tape) {
        const { block } = partition.pieces[piece]!;
        const stretch = stretches.all[stretches.ofBlock[block]!]!;
        if (!stretch.bothWays || found.has(stretch.index)) continue;
        const side = stretches.sideOf(block, piece, exit === 1 ? 0 : 1);
        if (side === 'onward' || side === 'back') found.set(stretch.index, side === 'back' ? 1 : 0);
      }
      return [...found].map(([stretch, back]) => stretch * 2 + back);
    });
    return { id: train.id, name: train.name, placements, leadMm, blocks, sides };
  });
}
