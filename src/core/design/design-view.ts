import { middleOf } from '../detection';
import type { Finding } from '../findings';
import { compileProgram, Interpreter, type Program } from '../logic';
import type { TenthUm } from '../measure';
import { foulingBlocks, names } from '../patterns';
import type { Edit, Facing, LayoutDocument, TurnoutPosition } from '../survey';
import { checkDesign, type Design } from './check-design';
import { type StandingTrains, standingTrains } from './standing-trains';

/** A block as screens show it. */
export interface BlockView {
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
  /** Ids of the turnouts whose blades lie in it. */
  turnouts: string[];
}

export interface SignalView {
  id: string;
  name: string;
  rear: string;
  ways: {
    to: string;
    blocks: string[];
    points: { turnout: string; position: TurnoutPosition }[];
    length: TenthUm;
    ending: string;
  }[];
}

/** A design without its working parts: plain data that can cross from a worker to the page. */
export interface DesignView {
  blocks: BlockView[];
  signals: SignalView[];
  findings: Finding<Edit>[];
  program: Program;
  /** Blocks that hold each turnout locked while occupied, by turnout id. */
  lockedBy: Record<string, string[]>;
  standing: StandingTrains;
}

export function viewDesign(document: LayoutDocument, design: Design = checkDesign(document)): DesignView {
  const { partition, readings, waysOf } = design.scheme;
  const blockName = (index: number) => partition.blocks[index]!.name;
  return {
    blocks: partition.blocks.map((block) => ({
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
      spots: partition.fields.all.flatMap(({ section, blocks, sensors }) =>
        section === undefined && blocks.includes(block.index) ? sensors : [],
      ),
      turnouts: block.turnouts.map((t) => document.turnouts[t]!.id),
    })),
    signals: readings.map((reading) => ({
      id: reading.signal.id,
      name: reading.signal.name,
      rear: blockName(reading.rear),
      ways: waysOf[reading.index]!.map(({ way, to }) => ({
        to,
        blocks: way.blocks.map((b) => blockName(b.block)),
        points: way.conditions.map((c) => ({ turnout: document.turnouts[c.turnout]!.name, position: c.position })),
        length: way.length,
        ending: way.ending.kind,
      })),
    })),
    findings: design.findings,
    standing: standingTrains(design.scheme),
    program: design.program,
    lockedBy: Object.fromEntries(
      document.turnouts.map((turnout, i) => [turnout.id, foulingBlocks(design.scheme, i).map(blockName)]),
    ),
  };
}

/** What a person sets up by hand: an axle set down in some blocks, and how the points lie. */
export interface Trial {
  /** The trains stand where they start, beside what is set down. */
  trains?: boolean;
  occupied: string[];
  points: Record<string, TurnoutPosition>;
}

const SCAN_MS = 20;
const TRIAL_MS = 1000;

/**
 * Trying it by hand: what every name in the program is once things have settled. First the empty layout is left alone
 * until every memory is free, then axles are set down in the blocks named.
 */
export function tryByHand(document: LayoutDocument, design: Design, trial: Trial): Record<string, number> {
  const compiled = compileProgram(design.program);
  const interpreter = new Interpreter(compiled);
  const slot = (name: string) => compiled.slots.get(name)!;
  document.turnouts.forEach((turnout) => {
    const lies = trial.points[turnout.id] ?? turnout.lies;
    interpreter.setInput(slot(names.points(turnout.name)), lies === 'straight' ? 0 : 1);
  });
  const { partition, releaseMs } = design.scheme;
  const holdMs = Math.max(0, ...document.sensors.map((sensor) => sensor.holdMs));
  let now = 0;
  for (const end = holdMs + releaseMs + TRIAL_MS; now < end; now += SCAN_MS) interpreter.scan(now);
  const standing = trial.trains ? standingTrains(design.scheme) : undefined;
  const occupied = new Set([...trial.occupied, ...(standing?.blocks ?? [])]);
  const told = (standing?.told ?? []).flatMap((input) => compiled.slots.get(input) ?? []);
  const tell = (so: 0 | 1) => {
    for (const input of told) interpreter.setInput(input, so);
    interpreter.scan(now);
    now += SCAN_MS;
  };
  /** How trains came in is said before they are seen: one of which nobody knows it could be given a way out behind it. */
  tell(1);
  for (const block of partition.blocks) {
    if (!occupied.has(block.name)) continue;
    for (const id of partition.sections[block.section]!.sensors) {
      interpreter.setInput(slot(names.detect(document.sensors.find((sensor) => sensor.id === id)!.name)), 1);
    }
  }
  tell(1);
  tell(0);
  for (const end = now + TRIAL_MS; now < end; now += SCAN_MS) interpreter.scan(now);
  return Object.fromEntries(compiled.names.map((name, i) => [name, interpreter.values[i]!]));
}
