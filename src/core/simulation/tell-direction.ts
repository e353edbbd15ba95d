import { cameInBy } from '../detection';
import { names, type Scheme } from '../patterns';
import type { TapeEntry } from '../plant';

/** What a person says of a train: which way it came into a stretch that is worked both ways. */
export interface Telling {
  stretch: number;
  /** The input of the rule program that says so. */
  input: string;
}

/** What there is to say of a train that stands on these entries, tail first; each stretch once, as its nose has come into it. */
export function tellingsOf({ partition, stretches }: Scheme, held: TapeEntry[]): Telling[] {
  const found: Telling[] = [];
  for (const entry of [...held].reverse()) {
    const piece = partition.pieces[entry.piece]!;
    const stretch = stretches.all[stretches.ofBlock[piece.block]!]!;
    if (!stretch.bothWays || found.some((told) => told.stretch === stretch.index)) continue;
    const { piece: back, end } = cameInBy(partition, piece, entry.exit);
    found.push({
      stretch: stretch.index,
      input: names.tell(stretch, stretches.sideOf(piece.block, back.index, end)),
    });
  }
  return found;
}
