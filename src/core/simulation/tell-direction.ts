import { withinBlock } from '../detection';
import { names, type Scheme } from '../patterns';
import type { TapeEntry } from '../plant';
import type { EdgeEnd } from '../track';

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
    let back = piece;
    let end: EdgeEnd = entry.exit === 1 ? 0 : 1;
    const seen = new Set<number>();
    for (let next = withinBlock(partition, back, end)[0]; next && !seen.has(next.piece.index); ) {
      seen.add(next.piece.index);
      back = next.piece;
      end = next.enters === 0 ? 1 : 0;
      next = withinBlock(partition, back, end)[0];
    }
    found.push({
      stretch: stretch.index,
      input: names.tell(stretch.name, stretches.sideOf(piece.block, back.index, end)),
    });
  }
  return found;
}
