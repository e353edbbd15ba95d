import { type BlockId, type InferredBy, middleOf } from '../detection';
import type { Finding } from '../findings';
import { TRACK_POWERS } from '../kinds';
import type { TenthUm } from '../measure';
import { besidesOf, chosenOutputs, foulingBlocks, names, needsOf, type Post } from '../patterns';
import type { Edit, Facing, LayoutDocument, TurnoutPosition } from '../survey';
import { aspectTree, type TreeBranch } from './aspect-tree';
import { checkDesign, type Design } from './check-design';
import { districtsOf } from './districts';
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

export interface SignalView {
  id: string;
  name: string;
  rear: string;
  routes: {
    id: string;
    to: string;
    blocks: string[];
    points: { turnout: string; position: TurnoutPosition }[];
    length: TenthUm;
    ending: string;
    /** It has to be free. */
    watched: boolean;
    /** All that must be so before it is cleared, and the pattern that asks for it. */
    needs: { says: string; pattern: string }[];
    /** Each of these alone clears it, whatever stands there. */
    besides: { says: string; pattern: string }[];
    /** What it shows once it is cleared for it, by what lies beyond. */
    branches: TreeBranch[];
  }[];
  /** What it shows while it is cleared for none of them. */
  stop: string;
}

/** A design without its working parts: plain data that can cross from a worker to the page. */
export interface DesignView {
  blocks: BlockView[];
  findings: Finding<Edit>[];
  /** Blocks that hold each motor of points locked while occupied, by its id. */
  lockedBy: Record<string, string[]>;
  /** How long a turnout stays locked after the last train was cleared over it. */
  releaseMs: number;
  standing: StandingTrains;
  /** All that each booster feeds, if feeders say so. */
  districts: DistrictView[];
  /** Where somebody lets trains in, and the signals worked from there. */
  posts: { id: string; name: string; whenEmpty: Post['whenEmpty']; signals: { id: string; name: string }[] }[];
  /** The room that trains have to stop at each signal. */
  stopping: StoppingRoom[];
}

export interface DistrictView {
  booster: string;
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
  const blockName = (index: number) => partition.blocks[index]!.name;
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
    releaseMs: design.scheme.releaseMs,
    lockedBy: Object.fromEntries(
      graph.motors.map(({ id, index }) => [id, foulingBlocks(design.scheme, index).map(blockName)]),
    ),
  };
}

/** What a signal protects, way by way; undefined where there is no such signal. */
export function viewSignal({ scheme, system: { program } }: Design, id: string): SignalView | undefined {
  const { partition, readings, routesOf } = scheme;
  const blockName = (index: number) => partition.blocks[index]!.name;
  const reading = readings.find(({ signal }) => signal.id === id);
  if (!reading) return undefined;
  const tree = aspectTree(scheme, program, reading);
  return {
    id,
    stop: tree.stop,
    name: reading.signal.name,
    rear: blockName(reading.rear),
    routes: routesOf[reading.index]!.map((named) => {
      const { route, id: leadsTo, to } = named;
      return {
        id: leadsTo,
        to,
        blocks: route.blocks.map((b) => blockName(b.block)),
        points: route.conditions.map((c) => ({ turnout: partition.graph.motors[c.motor]!.name, position: c.position })),
        length: route.length,
        ending: route.ending.kind,
        watched: needsOf(scheme, named).some(({ expr }) => expr.op === 'name' && expr.name === names.free(named)),
        needs: needsOf(scheme, named).map(({ says, pattern }) => ({ says, pattern })),
        besides: besidesOf(scheme, named).map(({ says, pattern }) => ({ says, pattern })),
        branches: tree.routes[leadsTo]!,
      };
    }),
  };
}
