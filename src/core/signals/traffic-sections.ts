import { type Block, cameInBy, onwardPieces, type Partition } from '../detection';
import { remembered } from '../survey';
import type { EdgeEnd } from '../track';
import { canBothBeSet, type Route, type SignalReading } from './routes';

/**
 * A length of track that one direction of traffic may hold: a chain of plain blocks, or a single block with points in it.
 * A side is the way in: the direction along a chain, or the entrance of a block with points.
 */
export interface TrafficSection {
  index: number;
  id: string;
  name: string;
  blocks: number[];
  /** Sides by which routes enter, in a fixed order. */
  sides: string[];
  /**
   * It needs a memory of direction: a chain that trains enter from both ends, or a block with points into which trains can
   * be cleared from two sides at once. The memory also tells which way a train inside is going.
   */
  bothWays: boolean;
  /** It is a chain whose end meets its beginning. */
  closed: boolean;
}

export interface TrafficSections {
  all: TrafficSection[];
  ofBlock: number[];
  /** What people call the sides of blocks with points. */
  sideNames: ReadonlyMap<string, string>;
  /** The side by which a block is entered through an end of a piece. */
  sideOf(block: number, piece: number, enters: EdgeEnd): string;
  /** The side by which a train that runs through a piece towards one of its ends has come into the block of that piece. */
  sideCameInBy(piece: number, exit: EdgeEnd): string;
}

/** From which side, after “trains” or “came in”. */
export function saySide({ sideNames }: TrafficSections, side: string): string {
  return side === 'onward' ? 'along it' : side === 'back' ? 'the other way along it' : sideNames.get(side)!;
}

/** Groups blocks into traffic sections and finds those that are worked in both directions. */
export const findTrafficSections = remembered(
  [],
  (_, partition: Partition, readings: readonly SignalReading[]): TrafficSections => {
    const { all, ofBlock, ahead } = chainBlocks(partition);
    const sideOf = (block: number, piece: number, enters: EdgeEnd): string => {
      const own = partition.blocks[block]!;
      const which = own.ends.findIndex((e) => e.piece === piece && e.end === enters);
      if (!isPlain(own) || which < 0) return entranceOf(partition, piece, enters).id;
      return (which === 0) === ahead[block] ? 'onward' : 'back';
    };
    const sideNames = new Map<string, string>();
    const entries: Entry[][] = all.map(() => []);
    for (const reading of readings) {
      for (const route of reading.routes) {
        const seen = new Set<number>();
        for (const step of route.blocks) {
          const trafficSection = ofBlock[step.block]!;
          if (seen.has(trafficSection)) continue;
          seen.add(trafficSection);
          const side = sideOf(step.block, step.piece, step.enters);
          entries[trafficSection]!.push({ route, side });
          const entrance = entranceOf(partition, step.piece, step.enters);
          if (side === entrance.id) sideNames.set(side, entrance.says);
        }
      }
    }
    for (const trafficSection of all) {
      const own = entries[trafficSection.index]!;
      trafficSection.sides = [...new Set(own.map((entry) => entry.side))].sort();
      trafficSection.bothWays =
        trafficSection.sides.length > 1 && (isPlain(partition.blocks[trafficSection.blocks[0]!]!) || someOppose(own));
    }
    const known = new Map<number, string>();
    const sideCameInBy = (piece: number, exit: EdgeEnd): string => {
      const key = piece * 2 + exit;
      const found = known.get(key);
      if (found !== undefined) return found;
      const { piece: back, end } = cameInBy(partition, partition.pieces[piece]!, exit);
      const side = sideOf(back.block, back.index, end);
      known.set(key, side);
      return side;
    };
    return { all, ofBlock, sideNames, sideOf, sideCameInBy };
  },
);

/** A route into a traffic section, and the side by which it comes in. */
interface Entry {
  route: Route;
  side: string;
}

const someOppose = (entries: readonly Entry[]): boolean =>
  entries.some((a, i) => entries.some((b, k) => k > i && a.side !== b.side && canBothBeSet(a.route, b.route)));

/** It can be one of a chain: it has neither points nor a crossing, and two ends. */
const isPlain = ({ points, crossings, ends }: Block): boolean =>
  points.length === 0 && crossings.length === 0 && ends.length === 2;

/**
 * Every block in its traffic section: plain ones one after the other in chains, and those that a crossing lies in together, so that one train at a
 * time is granted the way over it. The sides are not known yet.
 */
function chainBlocks(partition: Partition) {
  const { blocks } = partition;
  const ofBlock: number[] = blocks.map(() => -1);
  /** For a chained block, whether its first end faces the start of the chain. */
  const ahead: boolean[] = blocks.map(() => true);
  const all: TrafficSection[] = [];
  const beyond = (block: Block, which: number) => {
    const end = block.ends[which]!;
    return onwardPieces(partition, partition.pieces[end.piece]!, end.end)[0];
  };
  /** Goes on from a plain block by one of its ends for as long as plain blocks follow that are in no chain. */
  const chain = (from: Block, way: 0 | 1, trafficSection: TrafficSection) => {
    let [here, out]: [Block, number] = [from, way];
    for (let next = beyond(here, out); next; next = beyond(here, out)) {
      const other = blocks[next.piece.block]!;
      const { piece, enters } = next;
      if (other === from) trafficSection.closed = true;
      if (ofBlock[other.index] !== -1 || !isPlain(other)) return;
      const entered = other.ends.findIndex((e) => e.piece === piece.index && e.end === enters);
      if (entered < 0) return;
      ofBlock[other.index] = trafficSection.index;
      ahead[other.index] = (entered === 0) === (way === 1);
      if (way === 1) trafficSection.blocks.push(other.index);
      else trafficSection.blocks.unshift(other.index);
      [here, out] = [other, entered === 0 ? 1 : 0];
    }
  };
  for (const block of blocks) {
    if (ofBlock[block.index] !== -1) continue;
    const trafficSection: TrafficSection = {
      index: all.length,
      id: '',
      name: '',
      blocks: [block.index],
      sides: [],
      bothWays: false,
      closed: false,
    };
    all.push(trafficSection);
    ofBlock[block.index] = trafficSection.index;
    if (isPlain(block)) for (const way of [1, 0] as const) chain(block, way, trafficSection);
    for (const other of crossedWith(blocks, block)) {
      ofBlock[other] = trafficSection.index;
      if (other !== block.index) trafficSection.blocks.push(other);
    }
    const first = blocks[trafficSection.blocks[0]!]!;
    const last = blocks[trafficSection.blocks[trafficSection.blocks.length - 1]!]!;
    trafficSection.id = `stretch of ${first.id}`;
    trafficSection.name = first === last || first.crossings.length > 0 ? first.name : `${first.name} to ${last.name}`;
  }
  return { all, ofBlock, ahead };
}

/** The blocks that crossings lie in together with a block, itself among them, however many crossings they hang together by. */
function crossedWith(blocks: readonly Block[], block: Block): number[] {
  const found = new Set<Block>(block.crossings.length > 0 ? [block] : []);
  for (const one of found)
    for (const other of one.crossings.length > 0 ? blocks : [])
      if (other.crossings.some((id) => one.crossings.includes(id))) found.add(other);
  return [...found].map(({ index }) => index);
}

/** The entrance of a block with points, by the block that lies outside it; two entrances from one block are told apart by their places. */
function entranceOf(partition: Partition, piece: number, enters: EdgeEnd): Entrance {
  let known = entrances.get(partition);
  if (!known) {
    known = new Map();
    entrances.set(partition, known);
  }
  const key = 2 * piece + enters;
  const found = known.get(key) ?? findEntrance(partition, piece, enters);
  known.set(key, found);
  return found;
}
interface Entrance {
  id: string;
  says: string;
}
const entrances = new WeakMap<Partition, Map<number, Entrance>>();

function findEntrance(partition: Partition, piece: number, enters: EdgeEnd): Entrance {
  const own = partition.pieces[piece]!;
  const outside = onwardPieces(partition, own, enters)[0]?.piece.block;
  if (outside === undefined) return { id: 'from the end', says: 'from the end' };
  const alike = partition.blocks[own.block]!.ends.filter(
    (end) => onwardPieces(partition, partition.pieces[end.piece]!, end.end)[0]?.piece.block === outside,
  );
  const at = alike.length < 2 ? '' : ` at ${own.line} ${Math.round((enters === 0 ? own.from : own.to) / 100_000)}`;
  const { id, name } = partition.blocks[outside]!;
  return { id: `from ${id}${at}`, says: `from ${name}${at}` };
}
