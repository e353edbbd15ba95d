import { cameInBy, type Partition } from '../detection';
import { names, type Scheme, unspokenAtFirst } from '../patterns';
import type { TapeEntry } from '../plant';

/** What a person says of a train: which way it came into a stretch that is worked both ways. */
export interface Telling {
  stretch: number;
  /** The input of the rule program that says so. */
  input: string;
  /** It is said even where another train stands in the same stretch. */
  always?: true;
}

/** Blocks of which people can say what nothing notices: all that are told by something else than a watched section, but for a time. */
export const isSaid = ({ told }: Partition, block: number): boolean =>
  !['time', undefined].includes(told.get(block)?.by);

/** What there is to say of a train that is put down: that it is in such blocks. */
export function takenOf({ partition, stretches }: Scheme, held: TapeEntry[]): Telling[] {
  return [...new Set(held.map(({ piece }) => partition.pieces[piece]!.block))].flatMap((index) => {
    const block = partition.blocks[index]!;
    return isSaid(partition, index)
      ? [{ stretch: stretches.ofBlock[index]!, input: names.taken(block), always: true as const }]
      : [];
  });
}

/** Such blocks in which nothing stands, as inputs by which a person says so. */
export function freeOf({ partition }: Scheme, held: readonly TapeEntry[][]): string[] {
  const taken = new Set(held.flat().map(({ piece }) => partition.pieces[piece]!.block));
  return partition.blocks.filter((block) => !taken.has(block.index) && isSaid(partition, block.index)).map(names.freed);
}

/** What is said at power-up of blocks that nothing notices: in which a train stands and in which none does, as inputs. */
export function saidAtPowerUp(scheme: Scheme, held: readonly TapeEntry[][]): string[] {
  const unspoken = unspokenAtFirst(scheme);
  const silent = new Set(
    [...unspoken]
      .map((index) => scheme.partition.blocks[index]!)
      .flatMap((one) => [names.freed(one), names.taken(one)]),
  );
  const taken = held.flatMap((own) => takenOf(scheme, own).map(({ input }) => input));
  return [...taken, ...freeOf(scheme, held)].filter((input) => !silent.has(input));
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
