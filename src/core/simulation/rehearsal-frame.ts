import { names } from '../patterns';
import type { Aspect } from '../signals';
import { type Drawing, straighten, xOf } from '../track';
import { type Rehearsal, type RehearsalEvent, TICK_MS } from './rehearsal';

/** Where a train is, for a screen. */
export interface TrainFrame {
  id: string;
  name: string;
  /** Stretches it stands on, nose first, in mm of each line. */
  spans: { line: string; from: number; to: number }[];
  mmPerS: number;
  running: boolean;
  stranded: boolean;
}

/** Everything a screen needs of one moment of a rehearsal. */
export interface RehearsalFrame {
  tick: number;
  trains: TrainFrame[];
  aspects: Aspect[];
  points: ('straight' | 'diverging' | 'between')[];
  occupied: string[];
  locked: boolean[];
}

export function frameOf(rehearsal: Rehearsal): RehearsalFrame {
  const { plant, scheme, evaluator } = rehearsal;
  return {
    tick: rehearsal.tick,
    trains: plant.trains.map((train, t) => ({
      id: train.figures.id,
      name: train.figures.name,
      spans: plant.positionOf(t),
      mmPerS: train.speed,
      running: train.running,
      stranded: train.stranded,
    })),
    aspects: scheme.readings.map((_, s) => rehearsal.aspectAt(s)),
    points: plant.motors.map((motor) => motor.position),
    occupied: scheme.partition.blocks.filter((b) => evaluator.valueOf(names.occupied(b.name)) === 1).map((b) => b.name),
    locked: rehearsal.document.turnouts.map((t) => evaluator.valueOf(names.locked(t.name)) === 1),
  };
}

/** One sample of a train for the time-distance graph: x of nose and tail on the ruler, and the row of the nose. */
export interface PathSample {
  tick: number;
  head: number;
  tail: number;
  row: number;
}

export const SAMPLE_TICKS = 10;

/** Keeps the samples of each train as a rehearsal runs. */
export class PathRecorder {
  private readonly drawing: Drawing;

  constructor(private readonly rehearsal: Rehearsal) {
    this.drawing = straighten(rehearsal.document);
  }

  sample(): PathSample[] {
    const { plant, tick } = this.rehearsal;
    return plant.trains.map((_, t) => {
      const spans = plant.positionOf(t);
      const first = spans[0]!;
      const last = spans[spans.length - 1]!;
      const x = (line: string, mm: number) => xOf(this.drawing.lines.get(line)!, mm * 10_000);
      return {
        tick,
        head: x(first.line, first.from),
        tail: x(last.line, last.to),
        row: this.drawing.lines.get(first.line)!.row,
      };
    });
  }
}

/** An event in a sentence; undefined for those too frequent to list. */
export function sayEvent(rehearsal: Rehearsal, event: RehearsalEvent): string | undefined {
  const train = (index: number) => rehearsal.plant.trains[index]!.figures.name;
  const signal = (index: number) => rehearsal.scheme.readings[index]!.signal.name;
  const turnout = (index: number) => rehearsal.document.turnouts[index]!.name;
  switch (event.kind) {
    case 'passes':
      return event.aspect === 'stop'
        ? `${train(event.train)} passes ${signal(event.signal)} at stop`
        : `${train(event.train)} passes ${signal(event.signal)} at ${event.aspect}`;
    case 'stands':
      return event.signal < 0
        ? `${train(event.train)} stands`
        : `${train(event.train)} stands before ${signal(event.signal)}`;
    case 'starts':
      return `${train(event.train)} starts`;
    case 'collision':
      return `${train(event.train)} and ${train(event.other)} touch`;
    case 'points moved under':
      return `${turnout(event.turnout)} moves under ${train(event.train)}`;
    case 'mishap':
      return event.mishap.kind === 'off the end'
        ? `${train(event.train)} runs off the end of the track`
        : `${train(event.train)} runs into ${turnout(event.mishap.turnout)}, which lies wrong`;
    case 'refused':
      return `${turnout(event.turnout)} refuses: it is ${event.locked ? 'locked' : 'not free to move'}`;
    case 'points':
      return event.position === 'between' ? undefined : `${turnout(event.turnout)} lies ${event.position}`;
    default:
      return undefined;
  }
}

export const isMishap = (event: RehearsalEvent): boolean =>
  event.kind === 'collision' ||
  event.kind === 'mishap' ||
  event.kind === 'points moved under' ||
  (event.kind === 'passes' && event.aspect === 'stop');

export const tickSeconds = (tick: number): number => (tick * TICK_MS) / 1000;
