import type { TenthUm } from '../measure';
import { type EdgeEnd, edgeAt, type TrackGraph } from '../track';

/** The id of a block, told from that of a thing of the document by how it begins. */
export type BlockId = `block ${string}`;
export const isBlockId = (id: string | undefined): id is BlockId => id?.startsWith('block ') ?? false;

/** A run of one edge between boundaries. */
export interface Piece {
  index: number;
  edge: number;
  line: string;
  from: TenthUm;
  to: TenthUm;
  block: number;
  section: number;
  /** Whether each end is a boundary between blocks: a cut, or the end of the track. */
  bounded: [Boundary | undefined, Boundary | undefined];
}

export type Boundary = { kind: 'cut'; gap: boolean; id: string } | { kind: 'end' };

/** What one train may hold. */
export interface Block {
  index: number;
  /** By which it is named everywhere: that of its name in the document, or of where it begins. A new name leaves it as it is. */
  id: BlockId;
  /** For people. */
  name: string;
  /** The named block in the document, if somebody named it. */
  named?: string;
  section: number;
  pieces: number[];
  /** Points whose blades lie in it. */
  points: number[];
  /** Crossings that nothing moves, by id, of which the track that the other line fouls lies in it. */
  crossings: string[];
  /** Boundaries to other blocks or to the end of track, as piece and end. */
  ends: { piece: number; end: EdgeEnd }[];
  /** The longest way through it, or its length where it is plain. */
  length: TenthUm;
}

/** What one detector sees; it may branch over turnouts. */
export interface Section {
  index: number;
  blocks: number[];
  /** Ids of the sensors that watch the whole of it. */
  sensors: string[];
}

/** Track divided into sections and blocks. */
export interface Division {
  graph: TrackGraph;
  pieces: Piece[];
  blocks: Block[];
  sections: Section[];
  /** Pieces of each edge in order of distance. */
  piecesOfEdge: Piece[][];
}

/** The piece at a distance; at a boundary, the one on the `towards` side. */
export function pieceAt({ graph, piecesOfEdge }: Division, line: string, at: TenthUm, towards: 'up' | 'down'): Piece {
  const edge = edgeAt(graph, line, at, towards);
  const own = piecesOfEdge[edge.index]!;
  const found = towards === 'up' ? own.find((p) => at < p.to) : [...own].reverse().find((p) => at > p.from);
  return found ?? (towards === 'up' ? own[own.length - 1]! : own[0]!);
}
