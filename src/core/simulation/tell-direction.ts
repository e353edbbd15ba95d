import { isSaid } from '../detection';
import type { InputKindId } from '../kinds';
import type { TapeEntry } from '../plant';
import type { System } from '../system';

/** What a person says of a train: which way it came into a traffic section that is worked both ways. */
export interface Telling {
  trafficSection: number;
  /** The input by which it is said, and what that belongs to. */
  kind: InputKindId;
  of: number;
  which?: string;
  /** It is said even where another train stands in the same section. */
  always?: true;
}
/** The place among the values of what says so; undefined where the rules do not ask. */
export const slotOf = ({ terminals }: Pick<System, 'terminals'>, { kind, of, which }: Telling): number | undefined =>
  terminals.find(kind, of, which)?.slot;

/** Where it is asked what a person would say: the track with its single-line sections. */
type Place = Pick<System, 'partition' | 'trafficSections'>;
const blocksUnder = ({ partition }: Place, held: readonly TapeEntry[]): Set<number> =>
  new Set(held.map(({ piece }) => partition.pieces[piece]!.block));

/** What there is to say of a train that is put down: that it is in such blocks. */
export function takenOf(place: Place, held: TapeEntry[]): Telling[] {
  const { partition, trafficSections } = place;
  return [...blocksUnder(place, held)].flatMap((block): Telling[] =>
    isSaid(partition, block)
      ? [{ trafficSection: trafficSections.ofBlock[block]!, kind: 'said occupied', of: block, always: true }]
      : [],
  );
}

/** Such blocks in which nothing stands, as inputs by which a person says so. */
export function freeOf(system: System, held: readonly TapeEntry[][]): number[] {
  return freeBlocks(system, held).map((block) => system.terminals.slot('said free', block));
}
function freeBlocks(system: System, held: readonly TapeEntry[][]): number[] {
  const taken = blocksUnder(system, held.flat());
  const { partition } = system;
  return partition.blocks.flatMap(({ index }) => (!taken.has(index) && isSaid(partition, index) ? [index] : []));
}

/** By which side a train came into a traffic section, as a person says it. */
export interface DirectionSaid {
  train: number;
  trafficSection: number;
  side: string;
}

/** What people say as power comes on of blocks that nothing notices, by number: free, taken by a train, and those of which nobody says anything; and of trains. */
export interface SaidAtFirst {
  free: number[];
  taken: number[];
  silent: number[];
  directions: DirectionSaid[];
}
export function saidAtFirst(
  system: System,
  held: readonly TapeEntry[][],
  directions: readonly DirectionSaid[],
): SaidAtFirst {
  const { unspokenAtFirst: unspoken, partition } = system;
  const said = (blocks: Iterable<number>) => [...blocks].filter((block) => !unspoken.has(block));
  return {
    free: said(freeBlocks(system, held)),
    taken: said(blocksUnder(system, held.flat())).filter((block) => isSaid(partition, block)),
    silent: [...unspoken],
    directions: [...directions],
  };
}

/** What there is to say of a train that stands on these entries, tail first; each traffic section once, as its nose has come into it. */
export function tellingsOf({ partition, trafficSections }: Place, held: TapeEntry[]): Telling[] {
  const found: Telling[] = [];
  for (const entry of [...held].reverse()) {
    const piece = partition.pieces[entry.piece]!;
    const trafficSection = trafficSections.all[trafficSections.ofBlock[piece.block]!]!;
    if (!trafficSection.bothWays || found.some((told) => told.trafficSection === trafficSection.index)) continue;
    const which = trafficSections.sideCameInBy(piece.index, entry.exit);
    found.push({ trafficSection: trafficSection.index, kind: 'direction', of: trafficSection.index, which });
  }
  return found;
}
