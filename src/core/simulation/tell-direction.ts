import { cameInBy } from '../detection';
import { names, type Scheme } from '../patterns';
import type { TapeEntry } from '../plant';

/** What a person says of a train: which way it came into a stretch that is worked both ways. */
export interface Telling {
  stretch: number;
  /** The input of the rule program that says so. */
  input: string;
  /** It is said even where another train stands in the same stretch. */
  always?: true;
}

/** What there is to say of a train that is put down: that it is in the blocks which spots alone tell of. */
export function takenOf({ partition, stretches }: Scheme, held: TapeEntry[]): Telling[] {
  return [...new Set(held.map(({ piece }) => partition.pieces[piece]!.block))].flatMap((index) => {
    const block = partition.blocks[index]!;
    return partition.told.get(block.index)
      ? [{ stretch: stretches.ofBlock[index]!, input: names.taken(block), always: true as const }]
      : [];
  });
}

/** The blocks which spots alone tell of, and in which nothing stands, as inputs by which a person says so. */
export function freeOf({ partition }: Scheme, held: readonly TapeEntry[][]): string[] {
  const taken = new Set(held.flat().map(({ piece }) => partition.pieces[piece]!.block));
  return partition.blocks
    .filter((block) => !taken.has(block.index) && partition.told.get(block.index))
    .map(names.freed);
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
