import { type BlockId, districtsOf, type InferredBy, middleOf } from '../detection';
import type { Finding } from '../findings';
import { TRACK_POWERS } from '../kinds';
import type { TenthUm } from '../measure';
import { chosenOutputs, type Post } from '../patterns';
import type { Booster, Edit, Facing, LayoutDocument } from '../survey';
import { checkDesign, type Design } from './check-design';
import { type StandingTrains, standingTrains } from './standing-trains';
import { type StoppingRoom, stoppingRooms } from './stopping-room';

/** A block as screens show it. */
export interface BlockView {
  id: BlockId;
  name: string;
  /** The id of its name in the document, if somebody gave it one. */
  named?: string;
  length: TenthUm;
  pieces: { line: string; from: TenthUm; to: TenthUm }[];
  middle: { line: string; at: TenthUm };
  /** Its cut ends, and the direction in which a signal there is read by a train leaving the block. */
  ends: { line: string; at: TenthUm; governs: Facing }[];
  /** Ids of the sensors that watch the whole of it, and of those that watch a place in it. */
  detectors: string[];
  spots: string[];
  /** Spots at all its ends tell what is in it, and nothing watches it throughout. */
  inferred: InferredBy | undefined;
  /** What watches it notices nothing of a train that stands there without power: cut off before a signal, or at a closed throttle. */
  deadAtStop: boolean;
  /** Ids of the points whose blades lie in it. */
  turnouts: string[];
}

/** A design without its working parts: plain data that can cross from a worker to the page. */
export interface DesignView {
  blocks: BlockView[];
  findings: Finding<Edit>[];
  standing: StandingTrains;
  /** All that each booster feeds, if feeders say so. */
  districts: DistrictView[];
  /** Where somebody lets trains in, and the signals worked from there. */
  posts: { id: string; name: string; whenEmpty: Post['whenEmpty']; signals: { id: string; name: string }[] }[];
  /** The room that trains have to stop at each signal. */
  stopping: StoppingRoom[];
}

export interface DistrictView {
  booster: Booster;
  feeders: string[];
  pieces: BlockView['pieces'];
  length: TenthUm;
}

export function viewDesign(document: LayoutDocument, design: Design = checkDesign(document)): DesignView {
  const { partition } = design.scheme;
  const { graph } = partition;
  const spots = partition.fields.all.filter(({ section }) => section === undefined);
  /** The rules are long to write, and asked only where somebody has power cut off. */
  const power = chosenOutputs(document).has('power') ? design.system.terminals.ofKind('power') : [];
  const cutOff = new Set(power.map(({ of }) => of));
  const { closes = false } = TRACK_POWERS[document.power];
  return {
    blocks: partition.blocks.map((block) => ({
      id: block.id,
      name: block.name,
      named: block.named,
      length: block.length,
      pieces: block.pieces.map((p) => {
        const { line, from, to } = partition.pieces[p]!;
        return { line, from, to };
      }),
      middle: middleOf(partition, block),
      ends: block.ends
        .filter(({ piece, end }) => partition.pieces[piece]!.bounded[end]?.kind === 'cut')
        .map(({ piece, end }) => {
          const { line, from, to } = partition.pieces[piece]!;
          return end === 1 ? { line, at: to, governs: 'up' as const } : { line, at: from, governs: 'down' as const };
        }),
      detectors: partition.sections[block.section]!.sensors,
      spots: spots.filter(({ blocks }) => blocks.includes(block.index)).flatMap(({ sensors }) => sensors),
      inferred: partition.inferred.get(block.index)?.by,
      deadAtStop: partition.sections[block.section]!.sensors.length > 0 && (closes || cutOff.has(block.section)),
      turnouts: block.points.map((n) => graph.points[n]!.id),
    })),
    findings: design.findings,
    standing: standingTrains(design.system),
    posts: design.system.posts.map(({ id, name, whenEmpty, readings }) => ({
      id,
      name,
      whenEmpty,
      signals: readings.map(({ signal }) => ({ id: signal.id, name: signal.name })),
    })),
    stopping: stoppingRooms(design.scheme),
    districts: districtsOf(document, partition).map(({ booster, feeders, sections }) => {
      const own = new Set(sections);
      const pieces = partition.pieces.filter(({ section }) => own.has(section));
      return {
        booster,
        feeders: feeders.map(({ id }) => id),
        pieces: pieces.map(({ line, from, to }) => ({ line, from, to })),
        length: pieces.reduce((sum, { from, to }) => sum + to - from, 0),
      };
    }),
  };
}
