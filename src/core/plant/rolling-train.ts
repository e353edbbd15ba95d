import { type Consist, eachCrossing, type Partition, turnedRound } from '../detection';
import type { PowerLevel } from '../kinds';
import { mostBrakingMm, SCAN_S, SIGHT_BEYOND_BRAKING_MM, STOP_SHORT_MM } from '../measure';
import { END_OF_TRACK, mustStopBefore, type SignalsOn } from '../signals';
import type { TrainParameters } from '../system';
import { entriesBetween } from './footprint';
import { pieceLengthMm, type ReadPoints, stepOn, type TapeEntry, turnTape } from './tape';

/** A goal is reached when the nose is this near to it. */
const GOAL_REACHED_MM = 1;
/** How far beyond his sight the line is looked up at once, so that it need not be at every step. */
const LOOKED_UP_BEYOND_MM = 1000;

/** A train as it runs: what was surveyed of it, with its own difference from that. */
export type TrainFigures = Omit<TrainParameters, 'start'>;

/** A signal, or the end of the track, before a driver; `at` is a running distance. */
export interface Ahead {
  signal: number;
  at: number;
}

export type Mishap = { kind: 'points wrong'; motor: number } | { kind: 'off the end' };

/** A train in motion: its tape, its nose's running distance and its speed. */
export class RollingTrain {
  head = 0;
  speed = 0;
  /** The signal passed last obliged it to stop at the next one: until that is passed it runs at a share of its speed. */
  /** The share of its top speed that the signal passed last lets it run at, and at which it is to pass the next. */
  share = 1;
  shareAtNext = 1;
  /** That signal says nothing of what stands on the way: the driver looks out. */
  onSight = false;
  running = true;
  /** Stands after a mishap or after passing a signal at stop; only a person moves it on. */
  stranded = false;
  /** Lifted off the track: it is nowhere until it is set down. */
  off = false;
  /** Running distance of the nose at which it is to stop of itself; it then waits to be told to go on. */
  goalAt: number | undefined;
  /** Counts pieces that came under the nose or were left by the tail. */
  tapeChanges = 0;
  private waitedMs = 0;
  private ahead: Ahead[] | undefined;
  private lookedAt = 0;
  /** Running distance of the nose at which something of it, the nose or the tail next crosses a boundary. */
  nextCrossing = 0;
  /** The fields that something of it is noticed in. */
  detectedIn: number[] = [];
  /** It, as it runs now: the other way round after it has turned back. */
  consist: Consist;
  readonly sightMm: number;
  /** What it needs to stop when it runs as fast as trains of its kind ever do, and two scans go by before it brakes. */
  private readonly brakingMm: number;
  /** Signals before it that showed proceed since it could last have stopped at them. */
  private readonly countedOn = new Set<number>();
  /** The signal passed last. */
  private passed = -1;
  private readonly startsOn: readonly TapeEntry[];

  constructor(
    private readonly partition: Partition,
    readonly figures: TrainFigures,
    public tape: TapeEntry[],
  ) {
    this.startsOn = [...tape];
    this.consist = figures.consist;
    const { topMmPerS, brakingMmPerS2 } = figures;
    this.brakingMm = mostBrakingMm(topMmPerS, brakingMmPerS2);
    this.sightMm = this.brakingMm + SIGHT_BEYOND_BRAKING_MM;
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

  /** What lies before him, nearest first, as far as he sees and a little farther. */
  lookAhead(points: ReadPoints, signalsOn: SignalsOn): Ahead[] {
    if (this.ahead && this.head <= this.lookedAt + LOOKED_UP_BEYOND_MM) return this.ahead;
    const last = this.tape[this.tape.length - 1]!;
    let piece = this.partition.pieces[last.piece]!;
    let exit = last.exit;
    let from = last.from;
    const ahead: Ahead[] = [];
    this.lookedAt = this.head;
    this.ahead = ahead;
    while (from < this.head + this.sightMm + LOOKED_UP_BEYOND_MM) {
      for (const { index, alongMm } of signalsOn(piece.index, exit))
        if (from + alongMm >= this.head && !(index === this.passed && from + alongMm === this.head))
          ahead.push({ signal: index, at: from + alongMm });
      from += pieceLengthMm(piece);
      const step = stepOn(this.partition, piece, exit, points);
      if (step.kind === 'end of track') {
        ahead.push({ signal: END_OF_TRACK, at: from });
        break;
      }
      piece = step.piece;
      exit = step.exit;
    }
    return ahead;
  }

  /** The next signal in sight, or -1. */
  nextSignal(ahead: Ahead[]): number {
    const next = ahead[0];
    return next && next.at - this.head <= this.sightMm ? next.signal : -1;
  }

  /**
   * One step of driving: towards top speed, held by what the signals in sight oblige him to, by the end of the track, and by how far it
   * is free where he looks out himself.
   */
  drive(ahead: Ahead[], stopsIn: (signal: number) => number, power: PowerLevel, freeTo: number): void {
    const { accelerationMmPerS2: up, brakingMmPerS2: down, topMmPerS, startDelayMs } = this.figures;
    const share = Math.min(this.share, power.speedShare);
    let wish = this.running && !this.stranded ? topMmPerS * share : 0;
    let inSight = 0;
    while (inSight < ahead.length && ahead[inSight]!.at - this.head <= this.sightMm) {
      const { signal, at } = ahead[inSight++]!;
      if (signal >= 0 && at - this.head <= this.brakingMm && stopsIn(signal) !== 0) this.countedOn.add(signal);
    }
    const before = mustStopBefore(inSight, (i) => ahead[i]!.signal, stopsIn);
    const mustStopAt = before < 0 ? Number.POSITIVE_INFINITY : ahead[before]!.at;
    const goalRoom = this.goalAt === undefined ? Number.POSITIVE_INFINITY : this.goalAt - this.head;
    if (goalRoom <= GOAL_REACHED_MM && this.speed === 0) {
      this.goalAt = undefined;
      this.running = false;
      return;
    }
    const room = Math.min(Math.min(mustStopAt, freeTo) - STOP_SHORT_MM - this.head, goalRoom);
    const next = this.shareAtNext < 1 ? ahead[0] : undefined;
    if (next && wish > 0) {
      const atNext = topMmPerS * this.shareAtNext;
      wish = Math.min(wish, Math.sqrt(atNext * atNext + 2 * down * Math.max(0, next.at - this.head)));
    }
    if (wish > 0 && room < Number.POSITIVE_INFINITY) {
      const perStep = down * SCAN_S;
      wish = room <= 0.5 ? 0 : Math.min(wish, Math.sqrt(perStep * perStep + 2 * down * room) - perStep);
    }
    if (this.speed === 0) {
      if (wish < 1) {
        this.waitedMs = 0;
        return;
      }
      this.waitedMs += SCAN_S * 1000;
      if (this.waitedMs < startDelayMs) return;
    }
    if (wish > this.speed) this.speed = Math.min(wish, this.speed + up * SCAN_S);
    else this.speed = Math.max(wish, this.speed - down * SCAN_S);
    if (this.speed < 0.2) this.speed = 0;
    if (this.speed === 0) this.waitedMs = 0;
    this.head += this.speed * SCAN_S;
  }

  /** It passes a signal; true when that one had shown proceed when it could last have stopped. */
  pass(signal: number): boolean {
    this.passed = signal;
    return this.countedOn.delete(signal);
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
        return { kind: 'points wrong', motor: step.motor };
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
    this.begin(turnTape(this.tape, this.head, this.length), turnedRound(this.consist));
  }

  /** Stands on a tape with its nose at its beginning, and remembers nothing. */
  private begin(tape: TapeEntry[], consist: Consist): void {
    this.tape = tape;
    this.consist = consist;
    this.head = 0;
    this.goalAt = undefined;
    this.share = 1;
    this.shareAtNext = 1;
    this.onSight = false;
    this.stranded = false;
    this.waitedMs = 0;
    this.ahead = undefined;
    this.countedOn.clear();
    this.passed = -1;
    this.planCrossing();
  }

  /** Lifted off the track. */
  liftOff(): void {
    this.off = true;
    this.detectedIn = [];
    this.speed = 0;
    this.running = false;
  }
  /** Set down where it began, as it stood there. */
  setDown(): void {
    this.off = false;
    this.begin([...this.startsOn], this.figures.consist);
  }
  /** The pieces it stands on where it began. */
  piecesAtStart(): number[] {
    return entriesBetween([...this.startsOn], -this.length, 0).map(({ piece }) => piece);
  }

  /** What is noticed of it now, and how far the nose runs until something changes: a part, the nose or the tail crosses a boundary. */
  planCrossing(): void {
    const { head, length } = this;
    const detected: number[] = [];
    let next = this.tape[this.tape.length - 1]!.to;
    const crosses = (at: number) => {
      if (at > head && at < next) next = at;
    };
    for (const entry of this.tape) crosses(entry.to + length);
    eachCrossing(this.partition, this.consist, this.tape, (_, field, comes, gone) => {
      if (head >= comes && head < gone) detected.push(field);
      crosses(comes);
      crosses(gone);
    });
    this.detectedIn = detected;
    this.nextCrossing = next;
  }

  /** The power that its engine takes up: the most of what any of its wheels stands on. */
  powerFrom(levelOn: (piece: number) => PowerLevel): PowerLevel {
    let [best, i]: [PowerLevel | undefined, number] = [undefined, 0];
    for (const along of this.consist.pickUpsMm) {
      const at = this.head - along;
      while (i > 0 && at < this.tape[i]!.from) i -= 1;
      while (i + 1 < this.tape.length && at >= this.tape[i + 1]!.from) i += 1;
      const level = levelOn(this.tape[i]!.piece);
      if (!best || level.speedShare > best.speedShare || (level.feeds && !best.feeds)) best = level;
    }
    return best ?? levelOn(this.tape[this.tape.length - 1]!.piece);
  }

  /** The part of its tape that it stands on, tail first. */
  body(): TapeEntry[] {
    return this.off ? [] : entriesBetween(this.tape, this.tail, this.head);
  }
  /** The part of its tape that it holds, from its nose to its last wheel. */
  held(): TapeEntry[] {
    return this.off ? [] : entriesBetween(this.tape, this.head - this.consist.wheelsMm[1], this.head);
  }

  /** The stretches of track that it stands on, tail first, in the tape's running distances. */
  standsOn(): { piece: number; entry: TapeEntry; from: number; to: number }[] {
    return this.body().map((entry) => ({
      piece: entry.piece,
      entry,
      from: Math.max(entry.from, this.tail),
      to: Math.min(entry.to, this.head),
    }));
  }
}
