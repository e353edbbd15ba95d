import type { Consist, Partition } from '../detection';
import type { EdgeEnd } from '../track';
import { pieceLengthMm, type ReadPoints, stepOn, type TapeEntry, turnTape } from './tape';

export const STEP_S = 0.02;
/** How far before a signal or a buffer a driver stops; our assumption. */
export const STOP_SHORT_MM = 20;
/** Caution is worked as half speed; common practice, no source. */
const CAUTION_SHARE = 0.5;
/** A goal is reached when the nose is this near to it. */
const GOAL_REACHED_MM = 1;
/** How far a driver knows the line before him; our assumption, longer than any stopping distance. */
const LOOK_AHEAD_MM = 6000;

export interface TrainFigures {
  id: string;
  name: string;
  consist: Consist;
  topMmPerS: number;
  accelerationMmPerS2: number;
  brakingMmPerS2: number;
  startDelayMs: number;
}

/** What a driver who knows the line has in front of him; distances are running distances. */
export interface Ahead {
  /** Index of the next signal, or -1 when there is none in sight. */
  signal: number;
  at: number;
  /** Where the signal after it stands, to which caution means “be prepared to stop there”. */
  nextAt: number;
  /** Where the track ends. */
  endAt: number;
}

export type Mishap = { kind: 'points wrong'; turnout: number } | { kind: 'off the end' };

/** A train in motion: its tape, its nose's running distance and its speed. */
export class RollingTrain {
  head = 0;
  speed = 0;
  /** Half speed since the last signal passed showed caution. */
  cautious = false;
  running = true;
  /** Stands after a mishap or after passing a signal at stop; only a person moves it on. */
  stranded = false;
  /** Running distance of the nose at which it is to stop of itself; it then waits to be told to go on. */
  goalAt: number | undefined;
  /** Counts pieces that came under the nose or were left by the tail. */
  tapeChanges = 0;
  private waitedMs = 0;
  private ahead: Ahead | undefined;
  /** Running distance of the nose at which an axle, the nose or the tail next crosses a boundary. */
  nextCrossing = 0;
  private axles: number[];

  constructor(
    private readonly partition: Partition,
    readonly figures: TrainFigures,
    public tape: TapeEntry[],
  ) {
    this.axles = figures.consist.axlesMm;
    this.planCrossing();
  }

  get length(): number {
    return this.figures.consist.lengthMm;
  }
  get tail(): number {
    return this.head - this.length;
  }

  /** Points have moved or signals were passed: the driver looks anew. */
  lookAgain(): void {
    this.ahead = undefined;
  }

  lookAhead(
    points: ReadPoints,
    signalsOn: (piece: number, exit: EdgeEnd) => { index: number; alongMm: number }[],
  ): Ahead {
    if (this.ahead) return this.ahead;
    const last = this.tape[this.tape.length - 1]!;
    let piece = this.partition.pieces[last.piece]!;
    let exit = last.exit;
    let from = last.from;
    const never = Number.POSITIVE_INFINITY;
    const ahead: Ahead = { signal: -1, at: never, nextAt: never, endAt: never };
    while (from < this.head + LOOK_AHEAD_MM && ahead.nextAt === never) {
      const here = signalsOn(piece.index, exit)
        .map((signal) => ({ index: signal.index, at: from + signal.alongMm }))
        .filter((signal) => signal.at > this.head)
        .sort((a, b) => a.at - b.at);
      for (const { index, at } of here) {
        if (ahead.signal >= 0) ahead.nextAt = Math.min(ahead.nextAt, at);
        else {
          ahead.signal = index;
          ahead.at = at;
        }
      }
      from += pieceLengthMm(piece);
      const step = stepOn(this.partition, piece, exit, points);
      if (step.kind === 'end of track') {
        ahead.endAt = from;
        break;
      }
      piece = step.piece;
      exit = step.exit;
    }
    this.ahead = ahead;
    return ahead;
  }

  /** One step of driving: towards top speed, held by what the next signal shows, by what caution foretells, and by the end of the track. */
  drive(ahead: Ahead, aspect: 'stop' | 'caution' | 'clear'): void {
    const { accelerationMmPerS2: up, brakingMmPerS2: down, topMmPerS, startDelayMs } = this.figures;
    let wish = this.running && !this.stranded ? topMmPerS * (this.cautious ? CAUTION_SHARE : 1) : 0;
    const mustStopAt = Math.min(
      ahead.endAt,
      ahead.signal < 0 || aspect === 'clear' ? Number.POSITIVE_INFINITY : aspect === 'stop' ? ahead.at : ahead.nextAt,
    );
    const goalRoom = this.goalAt === undefined ? Number.POSITIVE_INFINITY : this.goalAt - this.head;
    if (goalRoom <= GOAL_REACHED_MM && this.speed === 0) {
      this.goalAt = undefined;
      this.running = false;
      return;
    }
    const room = Math.min(mustStopAt - STOP_SHORT_MM - this.head, goalRoom);
    if (wish > 0 && room < Number.POSITIVE_INFINITY) {
      const perStep = down * STEP_S;
      wish = room <= 0.5 ? 0 : Math.min(wish, Math.sqrt(perStep * perStep + 2 * down * room) - perStep);
    }
    if (this.speed === 0) {
      if (wish < 1) {
        this.waitedMs = 0;
        return;
      }
      this.waitedMs += STEP_S * 1000;
      if (this.waitedMs < startDelayMs) return;
    }
    if (wish > this.speed) this.speed = Math.min(wish, this.speed + up * STEP_S);
    else this.speed = Math.max(wish, this.speed - down * STEP_S);
    if (this.speed < 0.2) this.speed = 0;
    if (this.speed === 0) this.waitedMs = 0;
    this.head += this.speed * STEP_S;
  }

  /** Lays the tape on under the nose. Returns a mishap when there is no right way on. */
  extend(points: ReadPoints): Mishap | undefined {
    for (let last = this.tape[this.tape.length - 1]!; this.head >= last.to; last = this.tape[this.tape.length - 1]!) {
      const step = stepOn(this.partition, this.partition.pieces[last.piece]!, last.exit, points);
      if (step.kind === 'end of track') {
        this.head = last.to;
        this.strand();
        return { kind: 'off the end' };
      }
      this.tapeChanges += 1;
      this.tape.push({
        piece: step.piece.index,
        exit: step.exit,
        from: last.to,
        to: last.to + pieceLengthMm(step.piece),
      });
      if (step.kind === 'points wrong') {
        this.strand();
        return { kind: 'points wrong', turnout: step.turnout };
      }
    }
    while (this.tape.length > 1 && this.tape[0]!.to <= this.tail) {
      this.tape.shift();
      this.tapeChanges += 1;
    }
    return undefined;
  }

  strand(): void {
    this.speed = 0;
    this.stranded = true;
  }

  /** Turns back: the old tail is the new nose. Only from a stand. */
  turn(): void {
    this.tape = turnTape(this.tape, this.head, this.length);
    this.head = 0;
    this.goalAt = undefined;
    this.cautious = false;
    this.stranded = false;
    this.waitedMs = 0;
    this.ahead = undefined;
    this.axles = this.axles.map((axle) => this.length - axle).reverse();
    this.planCrossing();
  }

  /** When the nose has run this far, something changes: an axle, the nose or the tail crosses a boundary. */
  planCrossing(): void {
    const last = this.tape[this.tape.length - 1]!;
    let least = last.to - this.head;
    for (const entry of this.tape) {
      for (const axle of this.axles) {
        const room = entry.to - (this.head - axle);
        if (room > 0 && room < least) least = room;
      }
      const tailRoom = entry.to - this.tail;
      if (tailRoom > 0 && tailRoom < least) least = tailRoom;
    }
    this.nextCrossing = this.head + least;
  }

  /** Adds the section of every detectable axle, nose first. */
  addAxleSections(into: number[]): void {
    let i = this.tape.length - 1;
    for (const axle of this.axles) {
      const at = this.head - axle;
      while (i > 0 && at < this.tape[i]!.from) i -= 1;
      into.push(this.partition.pieces[this.tape[i]!.piece]!.section);
    }
  }

  /** The stretches of edges it stands on, in the tape's running distances. */
  standsOn(): { piece: number; exit: EdgeEnd; entry: TapeEntry; from: number; to: number }[] {
    return this.tape
      .filter((entry) => entry.to > this.tail && entry.from < this.head)
      .map((entry) => ({
        piece: entry.piece,
        exit: entry.exit,
        entry,
        from: Math.max(entry.from, this.tail),
        to: Math.min(entry.to, this.head),
      }));
  }
}
