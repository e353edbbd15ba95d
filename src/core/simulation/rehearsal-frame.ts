import type { BlockId } from '../detection';
import { type Fault, sayFault } from '../faults';
import { OUTPUTS, type OutputKind, type OutputKindId, POWER_LEVELS } from '../kinds';
import type { System, Terminal } from '../system';
import { type Drawing, xOf } from '../track';
import { type HazardId, hazardsNow } from './hazards';
import { type Rehearsal, TICK_MS } from './rehearsal';

/** Where a train is, for a screen. */
export interface TrainFrame {
  id: string;
  name: string;
  /** Stretches it stands on, nose first, in mm of each line. */
  spans: { line: string; from: number; to: number }[];
  mmPerS: number;
  running: boolean;
  stranded: boolean;
  /** Lifted off the track. */
  off: boolean;
  /** Where it was sent and has not come to yet, and whether that lies ahead of it. */
  order?: { block: string; ahead: boolean };
}

/** Everything a screen needs of one moment of a rehearsal. */
export interface RehearsalFrame {
  tick: number;
  trains: TrainFrame[];
  /** Names of the aspects that are shown. */
  aspects: string[];
  points: ('straight' | 'diverging' | 'between')[];
  occupied: BlockId[];
  locked: boolean[];
  /** Runs that have not arrived yet and for which points are held: the ids of signal and route. */
  underWay: string[];
  /** Routes that somebody has set: the ids of signal and route. */
  routesSet: string[];
  /** And those that wait to be set, who waits longest first. */
  routesWaiting: string[];
  /** What works by itself and is switched off: the id of its thing, and what of it. */
  switchedOff: string[];
  /** Blocks in whose sections sensors that need track voltage see nothing. */
  dead: BlockId[];
  /** Signals held at stop by hand. */
  held: boolean[];
  /** Posts that somebody is at, and signals that were cleared there for one train, by id. */
  manned: string[];
  /** By the id of a post, which of the people is there. */
  atPost: Record<string, number>;
  given: string[];
  /** What fails now, in the order in which it began to, and how it is told. */
  failures: (Fault & { says: string })[];
  /** What lamps and indicators show, by their names in the rules (`names.output`). */
  shows: Record<string, string>;
  /** What is wrong now with how trains stand and with what signals show, and the names of those. */
  hazards: { id: HazardId; of: string[] }[];
}

export function frameOf(rehearsal: Rehearsal): RehearsalFrame {
  const { plant, system, controller } = rehearsal;
  const { partition, readings } = system;
  return {
    tick: rehearsal.tick,
    trains: plant.trains.map((train, t) => ({
      id: train.figures.id,
      name: train.figures.name,
      spans: plant.positionOf(t),
      mmPerS: train.speed,
      running: train.running,
      stranded: train.stranded,
      off: train.off,
      order: orderOf(rehearsal, t),
    })),
    aspects: readings.map((_, s) => rehearsal.aspectAt(s).id),
    points: plant.motors.map((motor) => motor.position),
    occupied: partition.blocks.filter((b) => controller.isOn('occupied', b.index)).map((b) => b.id),
    dead: partition.blocks.filter((b) => !POWER_LEVELS[plant.power[b.section]!]!.feeds).map((b) => b.id),
    held: readings.map(({ index }) => controller.isOn('hold', index)),
    manned: system.posts.flatMap(({ id }, p) => (controller.isOn('post', p) ? [id] : [])),
    atPost: Object.fromEntries(rehearsal.atPost),
    given: readings.flatMap(({ signal, index }) => (controller.isOn('given', index) ? [signal.id] : [])),
    failures: [...rehearsal.failures.values()].map((fault) => ({ ...fault, says: sayFault(system, fault, true) })),
    locked: rehearsal.motors.map(({ index }) => controller.isLocked(index)),
    underWay: system.releases.flatMap(({ signal, route, underWay }) =>
      controller.values[underWay] === 1 ? [`${readings[signal]!.signal.id} ${route}`] : [],
    ),
    routesSet: system.commanded.flatMap(({ signal, route, isSet }) =>
      controller.values[isSet] === 1 ? [`${readings[signal]!.signal.id} ${route}`] : [],
    ),
    routesWaiting: rehearsal.queue.all.map(({ signal, route }) => `${readings[signal]!.signal.id} ${route}`),
    switchedOff: system.automatic.flatMap(({ id, what, off }) =>
      controller.values[off] === 1 ? [`${id} ${what}`] : [],
    ),
    shows: shownTo(system, controller.values),
    hazards: hazardsNow(rehearsal).map(({ id, signals, trains }) => ({
      id,
      of: [...signals.map((s) => readings[s]!.signal.name), ...trains.map((t) => plant.trains[t]!.figures.name)],
    })),
  };
}

/** What lamps and indicators show to people, by their names in the rules. */
export function shownTo(system: System, values: ArrayLike<number>): RehearsalFrame['shows'] {
  const { terminals, program } = system;
  const shown = terminals.all.filter((one) => one.role === 'output' && kindOf(one).forPeople);
  return Object.fromEntries(shown.map((one) => [one.name, program.enums[one.type]![values[one.slot]!]!]));
}
const kindOf = ({ kind }: Terminal): OutputKind => OUTPUTS[kind as OutputKindId];
function orderOf({ orders, system }: Rehearsal, train: number): TrainFrame['order'] {
  const order = orders.of(train);
  return order && { block: system.partition.blocks[order.block]!.name, ahead: order.way !== undefined };
}

/** Where a train is, for the time-distance graph: x of nose and tail on the ruler, and the line and row of the nose. */
export interface PathSample {
  tick: number;
  head: number;
  tail: number;
  row: number;
  line: string;
}

/** One moment of a run, for the graph. */
export interface Sample {
  tick: number;
  /** Each train’s place; none while it is off the track. */
  trains: (PathSample | undefined)[];
  /** Numbers of the blocks that read occupied, in the order of the design's blocks. */
  occupied: number[];
}

export const SAMPLE_TICKS = 10;

/** Keeps the samples of each train as a rehearsal runs. */
export class PathRecorder {
  constructor(
    private readonly rehearsal: Rehearsal,
    /** The straightened track, on whose ruler places are told. */
    private readonly drawing: Drawing,
  ) {}

  sample(): Sample {
    const { plant, tick, controller, system } = this.rehearsal;
    const occupied = system.partition.blocks.flatMap(({ index }) =>
      controller.isOn('occupied', index) ? [index] : [],
    );
    const trains = plant.trains.map((_, t) => {
      const spans = plant.positionOf(t);
      const [first, last] = [spans[0], spans[spans.length - 1]];
      if (!first || !last) return undefined;
      const x = (line: string, mm: number) => xOf(this.drawing.lines.get(line)!, mm * 10_000);
      return {
        tick,
        head: x(first.line, first.from),
        tail: x(last.line, last.to),
        row: this.drawing.lines.get(first.line)!.row,
        line: first.line,
      };
    });
    return { tick, trains, occupied };
  }
}

export const tickSeconds = (tick: number): number => (tick * TICK_MS) / 1000;
