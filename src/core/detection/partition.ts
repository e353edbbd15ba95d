import { TENTH_UM_PER_CM, TENTH_UM_PER_INCH, type TenthUm } from '../measure';
import { type LayoutDocument, type Place, remembered } from '../survey';
import { type EdgeEnd, edgeAt, onwardFrom, type TrackGraph } from '../track';
import { type Block, type Boundary, type Division, type Piece, pieceAt, type Section } from './division';
import { type Fields, fieldsOf } from './fields';
import { type Inferred, inferredBlocks } from './inferred';
import { onwardPieces } from './onward-pieces';

/** Track divided, with what is watched of it. */
export interface Partition extends Division {
  fields: Fields;
  /** What tells of blocks that nothing watches throughout, by their number. */
  inferred: ReadonlyMap<number, Inferred>;
}

const READS = ['lines', 'features', 'blocks', 'sensors', 'shownUnit'] as const;
type Divided = Pick<LayoutDocument, (typeof READS)[number]>;

/**
 * Divides the track: gaps bound sections and blocks, block marks bound blocks alone. A boundary at a joint of two edges
 * parts them there. Blocks take the name whose anchor lies in them; the others are called after their line and distance.
 */
export const divideTrack = remembered(READS, sectionsAndBlocks);

function sectionsAndBlocks(document: Divided, graph: TrackGraph): Partition {
  const piecesOfEdge = cutIntoPieces(document, graph);
  const divided = gather(graph, piecesOfEdge, joinPieces(graph, piecesOfEdge));
  const fields = fieldsOf(document, divided);
  for (const { section, sensors } of fields.all)
    if (section !== undefined) divided.sections[section]!.sensors.push(...sensors);
  const partition: Partition = { ...divided, fields, inferred: inferredBlocks(document, divided) };
  nameBlocks(document, partition);
  for (const block of partition.blocks) block.length = longestWay(partition, block);
  return partition;
}

/** The pieces of each edge, of no block yet. */
function cutIntoPieces(document: Divided, graph: TrackGraph): Piece[][] {
  const cutsOfEdge: { at: TenthUm; gap: boolean; id: string }[][] = graph.edges.map(() => []);
  const parted = new Map<string, { gap: boolean; id: string }>();
  for (const feature of document.features) {
    if (feature.kind !== 'gap' && feature.kind !== 'mark') continue;
    const edge = edgeAt(graph, feature.line, feature.at.tenthUm, 'down');
    const cut = { at: feature.at.tenthUm, gap: feature.kind === 'gap', id: feature.id };
    if (cut.at > edge.from && cut.at < edge.to) cutsOfEdge[edge.index]!.push(cut);
    else parted.set(`${edge.index} ${cut.at === edge.to ? 1 : 0}`, cut);
  }
  let index = 0;
  return graph.edges.map((edge) => {
    const cuts = cutsOfEdge[edge.index]!.sort((x, y) => x.at - y.at);
    const boundaryAtEnd = (end: EdgeEnd): Boundary | undefined => {
      const cut = parted.get(`${edge.index} ${end}`);
      if (cut) return { kind: 'cut', gap: cut.gap, id: cut.id };
      return edge.ends[end].kind === 'stop' ? { kind: 'end' } : undefined;
    };
    const own: Piece[] = [];
    for (let i = 0; i <= cuts.length; i++) {
      const before = cuts[i - 1];
      const after = cuts[i];
      own.push({
        index: index++,
        edge: edge.index,
        line: edge.line,
        from: before?.at ?? edge.from,
        to: after?.at ?? edge.to,
        block: -1,
        section: -1,
        bounded: [
          before ? { kind: 'cut', gap: before.gap, id: before.id } : boundaryAtEnd(0),
          after ? { kind: 'cut', gap: after.gap, id: after.id } : boundaryAtEnd(1),
        ],
      });
    }
    return own;
  });
}

/** Which pieces are one block, and which one section. */
interface Joined {
  blocks: DisjointSets;
  sections: DisjointSets;
}

/** Joins what no boundary parts. A boundary at a joint, where the cut was recorded on one edge, bounds the other too. */
function joinPieces(graph: TrackGraph, piecesOfEdge: readonly Piece[][]): Joined {
  const count = piecesOfEdge.reduce((sum, own) => sum + own.length, 0);
  const joined = { blocks: new DisjointSets(count), sections: new DisjointSets(count) };
  const touch = (one: Piece, oneEnd: EdgeEnd, two: Piece, twoEnd: EdgeEnd) => {
    const cut = one.bounded[oneEnd] ?? two.bounded[twoEnd];
    if (!cut) joined.blocks.join(one.index, two.index);
    if (!cut || (cut.kind === 'cut' && !cut.gap)) joined.sections.join(one.index, two.index);
  };
  for (const own of piecesOfEdge) {
    for (let i = 0; i + 1 < own.length; i++) touch(own[i]!, 1, own[i + 1]!, 0);
  }
  const joints: [Piece, EdgeEnd, Piece, EdgeEnd][] = [];
  for (const edge of graph.edges) {
    for (const end of [0, 1] as const) {
      for (const on of onwardFrom(graph, edge.index, end)) {
        joints.push([
          pieceAtEnd(piecesOfEdge, edge.index, end),
          end,
          pieceAtEnd(piecesOfEdge, on.edge, on.enters),
          on.enters,
        ]);
      }
    }
  }
  for (const [one, oneEnd, two, twoEnd] of joints) touch(one, oneEnd, two, twoEnd);
  for (const [one, oneEnd, two, twoEnd] of joints) {
    const beyond = two.bounded[twoEnd];
    const onTrack = graph.edges[one.edge]!.ends[oneEnd].kind === 'track';
    if (beyond && onTrack && !one.bounded[oneEnd]) one.bounded[oneEnd] = beyond;
  }
  return joined;
}

function pieceAtEnd(piecesOfEdge: readonly Piece[][], edge: number, end: EdgeEnd): Piece {
  const own = piecesOfEdge[edge]!;
  return end === 0 ? own[0]! : own[own.length - 1]!;
}

/** Numbers blocks and sections in the order of their first pieces. */
function gather(graph: TrackGraph, piecesOfEdge: Piece[][], joined: Joined): Division {
  const pieces = piecesOfEdge.flat();
  const blocks: Block[] = [];
  const sections: Section[] = [];
  const blockNumbers = new Map<number, number>();
  const sectionNumbers = new Map<number, number>();
  for (const piece of pieces) {
    piece.section = numberOf(sectionNumbers, joined.sections.find(piece.index), () => {
      sections.push({ index: sections.length, blocks: [], sensors: [] });
    });
    piece.block = numberOf(blockNumbers, joined.blocks.find(piece.index), () => {
      blocks.push({
        index: blocks.length,
        id: 'block ',
        name: '',
        section: piece.section,
        pieces: [],
        points: [],
        crossings: [],
        ends: [],
        length: 0,
      });
      sections[piece.section]!.blocks.push(blocks.length - 1);
    });
    const block = blocks[piece.block]!;
    block.pieces.push(piece.index);
    for (const end of [0, 1] as const) if (piece.bounded[end]) block.ends.push({ piece: piece.index, end });
  }
  for (const { index, ports } of graph.points)
    blocks[pieceAtEnd(piecesOfEdge, ports[0]!.edge, ports[0]!.end).block]!.points.push(index);
  const moved = new Set(graph.points.map(({ id }) => id));
  for (const { cause, a, b } of graph.fouling) {
    if (moved.has(cause)) continue;
    for (const { edge, from, to } of [...a, ...b])
      for (const block of blocksOn({ piecesOfEdge }, edge, from, to))
        if (!blocks[block]!.crossings.includes(cause)) blocks[block]!.crossings.push(cause);
  }
  return { graph, pieces, blocks, sections, piecesOfEdge };
}

/** The blocks that a stretch of an edge touches. */
export function blocksOn(
  partition: Pick<Division, 'piecesOfEdge'>,
  edge: number,
  from: TenthUm,
  to: TenthUm,
): number[] {
  const found = new Set<number>();
  for (const piece of partition.piecesOfEdge[edge]!) if (piece.to > from && piece.from < to) found.add(piece.block);
  return [...found];
}

/** The points that lie at an end of a piece, if any. */
export function pointsBeyond(partition: Partition, piece: Piece, exit: EdgeEnd): number | undefined {
  const { edges } = partition.graph;
  const edge = edges[piece.edge]!;
  if (!isLastOf(partition, piece, exit)) return undefined;
  const node = edge.ends[exit];
  return node.kind === 'points' ? node.points : undefined;
}

function isLastOf(partition: Partition, piece: Piece, exit: EdgeEnd): boolean {
  const own = partition.piecesOfEdge[piece.edge]!;
  return piece === (exit === 1 ? own[own.length - 1] : own[0]);
}

/** Pieces that can be reached from an end of a piece without leaving its block, with the end by which each is entered. */
export function withinBlock(partition: Partition, piece: Piece, end: EdgeEnd): { piece: Piece; enters: EdgeEnd }[] {
  if (piece.bounded[end]) return [];
  return onwardPieces(partition, piece, end).filter(
    (on) => on.piece.block === piece.block && !on.piece.bounded[on.enters],
  );
}

/** The end of a block by which a train that runs through a piece towards one of its ends has come in: piece and end. */
export function cameInBy(partition: Partition, piece: Piece, exit: EdgeEnd): { piece: Piece; end: EdgeEnd } {
  let [back, end]: [Piece, EdgeEnd] = [piece, exit === 1 ? 0 : 1];
  const seen = new Set<number>();
  for (let next = withinBlock(partition, back, end)[0]; next && !seen.has(next.piece.index); ) {
    seen.add(next.piece.index);
    back = next.piece;
    end = next.enters === 0 ? 1 : 0;
    next = withinBlock(partition, back, end)[0];
  }
  return { piece: back, end };
}

function longestWay(partition: Partition, block: Block): TenthUm {
  const seen = new Set<number>();
  const walk = (piece: Piece, enters: EdgeEnd): TenthUm => {
    if (seen.has(piece.index)) return 0;
    seen.add(piece.index);
    const on = withinBlock(partition, piece, enters === 0 ? 1 : 0).map((next) => walk(next.piece, next.enters));
    seen.delete(piece.index);
    return piece.to - piece.from + Math.max(0, ...on);
  };
  const starts = block.ends.length > 0 ? block.ends : [{ piece: block.pieces[0]!, end: 0 as EdgeEnd }];
  /** A throat of very many tracks has too many ways to try them all; its first few ends are representative. */
  return Math.max(...starts.slice(0, 12).map((start) => walk(partition.pieces[start.piece]!, start.end)));
}

/**
 * A block that nobody has named is known by the first boundary that it has, and the side of it on which it lies: so it stays the same when that is moved. One without
 * any is known by its line. `taken` has the ids of named blocks.
 */
function knowBlocks({ blocks, pieces }: Partition, taken: Set<string>): void {
  for (const block of blocks) {
    if (block.named) continue;
    const bounds = block.ends.flatMap(({ piece, end }) => {
      const bound = pieces[piece]!.bounded[end];
      return bound?.kind === 'cut' ? [`${bound.id}_${end === 0 ? 'up' : 'down'}`] : [];
    });
    const { line } = pieces[block.pieces[0]!]!;
    const stem = bounds.find((one) => !taken.has(one)) ?? bounds[0] ?? `${line}_whole`;
    let id = stem;
    for (let n = 2; taken.has(id); n++) id = `${stem}_${n}`;
    taken.add(id);
    block.id = `block ${id}`;
  }
}

/** Blocks were known by where they begin, before they had ids of their own; rules and runs that were kept then name them so. */
const ONCE = /^block (.+)@(\d+)$/;
/** The block of an id, of one that it once had, or of a name. */
export function blockOf({ blocks, pieces }: Pick<Partition, 'blocks' | 'pieces'>, known: string): Block | undefined {
  const [, line, from] = ONCE.exec(known) ?? [];
  return (
    blocks.find(({ id }) => id === known) ??
    blocks.find((block) => {
      const first = pieces[block.pieces[0]!]!;
      return first.line === line && first.from === Number(from);
    }) ??
    blocks.find(({ name }) => name === known)
  );
}

function nameBlocks(document: Divided, partition: Partition): void {
  const taken = new Set<string>();
  for (const named of document.blocks) {
    const block = blockAt(partition, named.anchor);
    if (block.named) continue;
    block.named = named.id;
    block.id = `block ${named.id}`;
    block.name = named.name;
    taken.add(named.name);
  }
  knowBlocks(partition, new Set(document.blocks.map(({ id }) => id)));
  const unit = document.shownUnit === 'inch' ? TENTH_UM_PER_INCH : TENTH_UM_PER_CM;
  const lineNames = new Map(document.lines.map((line) => [line.id, line.name]));
  for (const block of partition.blocks) {
    if (block.named) continue;
    const first = partition.pieces[block.pieces[0]!]!;
    const stem = `${lineNames.get(first.line)} ${Math.round(first.from / unit)}`;
    let name = stem;
    for (let n = 2; taken.has(name); n++) name = `${stem}.${n}`;
    block.name = name;
    taken.add(name);
  }
}

/** The block in which a place lies. */
export function blockAt(partition: Partition, place: Place): Block {
  return partition.blocks[pieceAt(partition, place.line, place.at.tenthUm, 'up').block]!;
}

function numberOf(numbers: Map<number, number>, key: number, onNew: () => void): number {
  let number = numbers.get(key);
  if (number === undefined) {
    number = numbers.size;
    numbers.set(key, number);
    onNew();
  }
  return number;
}

class DisjointSets {
  private parent: Int32Array;
  constructor(size: number) {
    this.parent = Int32Array.from({ length: size }, (_, i) => i);
  }
  find(i: number): number {
    let root = i;
    while (this.parent[root] !== root) root = this.parent[root]!;
    while (this.parent[i] !== root) {
      const next = this.parent[i]!;
      this.parent[i] = root;
      i = next;
    }
    return root;
  }
  join(a: number, b: number): void {
    const p = this.find(a);
    const q = this.find(b);
    if (p !== q) this.parent[Math.max(p, q)] = Math.min(p, q);
  }
}
