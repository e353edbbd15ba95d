import { type Field, type Partition, pieceAt } from '../detection';
import { type Aspect, FULL_POWER, POWER_LEVELS, type SpeedLimit } from '../kinds';
import { CAUTION_SHARE, mmOf, SCAN_S } from '../measure';
import { type SignalReading, type SignalsOn, signalsAlong } from '../signals';
import type { PlantParameters } from '../system';
import type { EdgeEnd } from '../track';
import { type WhyNotTurnBack, whyNotTurnBack } from './footprint';
import { freeOnSight } from './on-sight';
import { Proximity } from './proximity';
import { type Mishap, RollingTrain } from './rolling-train';
import { layTape, lineMm } from './tape';
import { TurnoutMotor } from './turnout-motor';

/** What happens on the track in one step. */
export type PlantEvent =
  /** What is watched, by its number among the fields: something is noticed there, or nothing any more. */
  | { kind: 'sensor'; field: number; on: boolean }
  | { kind: 'points'; motor: number; position: 'straight' | 'diverging' | 'between' }
  /** `dropped`: it showed proceed when the train could last have stopped at it. */
  | { kind: 'passes'; train: number; signal: number; aspect: Aspect; dropped: boolean }
  | { kind: 'stands'; train: number; signal: number }
  | { kind: 'starts'; train: number }
  /** By hand: lifted off the track, or set down on it. */
  | { kind: 'handled'; train: number; off: boolean }
  | { kind: 'collision'; train: number; other: number }
  | { kind: 'points moved under'; train: number; motor: number }
  | { kind: 'mishap'; train: number; mishap: Mishap }
  /** A section has another level of power, by its number. */
  | { kind: 'power'; section: number; level: number };

/** Differences between trains of one kind, drawn once from the seed: 0 is as surveyed. */
export interface Tolerance {
  speed: number;
  startDelay: number;
}

/** What rules say of the power of a section: the number of its level. */
export interface PowerOf {
  section: number;
  level(): number;
}

const NO_ASPECT: Aspect = { id: '', means: '', stopsIn: 0, lit: [] };

/** The track with everything that moves on it. It knows no rules: it is told aspects, turnout commands and power. */
export class Plant {
  readonly trains: RollingTrain[] = [];
  readonly motors: TurnoutMotor[];
  /** Whether something is noticed in each field. */
  readonly detected: Uint8Array;
  /** Trains that could not be placed, and why. */
  readonly notPlaced: { train: string; problem: string }[] = [];
  private readonly signalsOn: SignalsOn;
  private readonly proximity: Proximity;
  private readonly lastDetected: Uint8Array;
  /** The level of power of each section, by number. */
  readonly power: Uint8Array;
  private readonly levelOn = (piece: number) => POWER_LEVELS[this.power[this.partition.pieces[piece]!.section]!]!;
  private dirty = true;
  /** Some motor is between its positions. */
  private moving = false;
  /** Trains lifted off or set down since the last step. */
  private handled: { train: number; off: boolean }[] = [];
  private plannedFor = 0;
  /** No current flows in the track while a train stands. */
  private readonly closes: boolean;
  /** What drivers read off signals in this step. */
  private aspectOf: (signal: number) => Aspect = () => NO_ASPECT;
  private readonly stopsInOf = (signal: number) => this.aspectOf(signal).stopsIn;
  private readonly points = (motor: number) => this.motors[motor]!.position;

  constructor(
    private readonly parameters: PlantParameters,
    private readonly partition: Partition,
    readings: readonly SignalReading[],
    toleranceOf: (train: number) => Tolerance,
    /** Drivers look the line up at every step instead of keeping what they found; the run is the same. */
    private readonly looksAlways = false,
  ) {
    this.closes = parameters.closes;
    this.motors = partition.graph.motors.map(({ lies, throwMs }) => new TurnoutMotor(lies, throwMs));
    this.detected = new Uint8Array(partition.fields.all.length);
    this.lastDetected = new Uint8Array(partition.fields.all.length);
    this.power = new Uint8Array(partition.sections.length).fill(FULL_POWER);
    this.signalsOn = signalsAlong(partition, readings);
    for (let index = 0; index < parameters.trains.length; index++) this.place(index, toleranceOf(index));
    this.proximity = new Proximity(partition, this.trains);
    this.sense();
    this.lastDetected.set(this.detected);
  }

  private place(index: number, tolerance: Tolerance): void {
    const train = this.parameters.trains[index]!;
    const { start, ...figures } = train;
    if (!start) return;
    const piece = pieceAt(this.partition, start.line, start.at, start.facing === 'up' ? 'down' : 'up');
    const exit: EdgeEnd = start.facing === 'up' ? 1 : 0;
    const tape = layTape(this.partition, piece, exit, mmOf(start.at), train.consist.lengthMm, this.points);
    if (!tape) {
      this.notPlaced.push({
        train: train.id,
        problem: `${train.name} does not fit: the track behind its nose is too short.`,
      });
      return;
    }
    const rolling = new RollingTrain(
      this.partition,
      {
        ...figures,
        topMmPerS: train.topMmPerS * (1 + tolerance.speed),
        startDelayMs: train.startDelayMs * (1 + tolerance.startDelay),
      },
      tape,
    );
    const mine = new Map(rolling.standsOn().map((s) => [s.piece, s]));
    for (const other of this.trains) {
      const clash = other.standsOn().some((theirs) => {
        const own = mine.get(theirs.piece);
        if (!own) return false;
        const [a, b] = this.extent(own);
        const [c, d] = this.extent(theirs);
        return a < d && c < b;
      });
      if (clash) {
        this.notPlaced.push({
          train: train.id,
          problem: `${train.name} would stand in ${other.figures.name}. Give it another place to start.`,
        });
        return;
      }
    }
    this.trains.push(rolling);
  }

  private extent(stands: { entry: Parameters<typeof lineMm>[1]; from: number; to: number }): [number, number] {
    const a = lineMm(this.partition, stands.entry, stands.from);
    const b = lineMm(this.partition, stands.entry, stands.to);
    return a < b ? [a, b] : [b, a];
  }

  private tapeChanges(): number {
    let sum = 0;
    for (const train of this.trains) sum += train.tapeChanges;
    return sum;
  }

  private sense(): void {
    this.detected.fill(0);
    const { all } = this.partition.fields;
    const isFed = ({ fedBy }: Field) => fedBy === undefined || POWER_LEVELS[this.power[fedBy]!]!.feeds;
    for (const train of this.trains) {
      const closed = this.closes && train.speed === 0;
      for (const field of train.detectedIn)
        if (isFed(all[field]!) && !(closed && all[field]!.fedBy !== undefined)) this.detected[field] = 1;
    }
  }

  /**
   * One step of 20 ms under the given commands. Events are added to `events` in a fixed order. `commanded`: commands may be others than at the last step.
   */
  step(
    drives: (turnout: number) => 'straight' | 'diverging',
    aspectOf: (signal: number) => Aspect,
    events: PlantEvent[],
    powers: readonly PowerOf[] = [],
    commanded = true,
  ): void {
    let crossed = this.handled.length > 0;
    if (commanded) {
      for (const { section, level } of powers) {
        const now = level();
        if (this.power[section] === now) continue;
        this.power[section] = now;
        events.push({ kind: 'power', section, level: now });
        crossed = true;
      }
    }
    for (const { train, off } of this.handled) if (!off) this.setDownOnMoving(train, events);
    if (commanded || this.moving) this.moveMotors(drives, events);
    if (this.dirty || this.looksAlways) {
      for (const train of this.trains) train.lookAgain();
      this.dirty = false;
    }
    if (this.handled.length > 0)
      for (const { train, off } of this.handled.splice(0)) events.push({ kind: 'handled', train, off });
    for (let t = 0; t < this.trains.length; t++) {
      if (this.move(t, this.trains[t]!, aspectOf, events, powers.length > 0)) crossed = true;
    }
    if (crossed) {
      this.sense();
      for (let f = 0; f < this.detected.length; f++) {
        if (this.detected[f] === this.lastDetected[f]) continue;
        this.lastDetected[f] = this.detected[f]!;
        if (this.partition.fields.all[f]!.sensors.length > 0)
          events.push({ kind: 'sensor', field: f, on: this.detected[f] === 1 });
      }
      const changes = this.tapeChanges();
      if (changes !== this.plannedFor) this.proximity.plan();
      this.plannedFor = changes;
    }
    const contacts = this.proximity.newContacts();
    for (let c = 0; c < contacts.length; c++) {
      const [train, other] = contacts[c]!;
      this.trains[train]!.strand();
      this.trains[other]!.strand();
      events.push({ kind: 'collision', train, other });
    }
  }

  /** Points that have begun to move go on under a train that is set down on them. */
  private setDownOnMoving(train: number, events: PlantEvent[]): void {
    this.motors.forEach(({ position }, motor) => {
      if (position === 'between' && this.proximity.trainsOver(motor).includes(train))
        events.push({ kind: 'points moved under', train, motor });
    });
  }

  private moveMotors(drives: (turnout: number) => 'straight' | 'diverging', events: PlantEvent[]): void {
    this.moving = false;
    for (let m = 0; m < this.motors.length; m++) {
      const motor = this.motors[m]!;
      if (motor.send(drives(m))) {
        events.push({ kind: 'points', motor: m, position: 'between' });
        for (const train of this.proximity.trainsOver(m)) events.push({ kind: 'points moved under', train, motor: m });
        this.dirty = true;
      }
      if (motor.step(SCAN_S * 1000)) {
        events.push({ kind: 'points', motor: m, position: motor.position });
        this.dirty = true;
      }
      if (motor.position === 'between') this.moving = true;
    }
  }

  /** Moves one train; true when something of it crossed a boundary of a field or of a piece of track. */
  private move(
    index: number,
    train: RollingTrain,
    aspectOf: (signal: number) => Aspect,
    events: PlantEvent[],
    powers: boolean,
  ): boolean {
    if (train.off) return false;
    const before = train.speed;
    const ahead = train.lookAhead(this.points, this.signalsOn);
    const signal = train.nextSignal(ahead);
    const power = powers ? train.powerFrom(this.levelOn) : POWER_LEVELS[FULL_POWER]!;
    const freeTo = train.onSight
      ? freeOnSight(train, this.trains, this.partition, this.points)
      : Number.POSITIVE_INFINITY;
    this.aspectOf = aspectOf;
    train.drive(ahead, this.stopsInOf, power, freeTo);
    if (before === 0 && train.speed > 0) events.push({ kind: 'starts', train: index });
    if (before > 0 && train.speed === 0) events.push({ kind: 'stands', train: index, signal });
    const changes = this.closes && (before === 0) !== (train.speed === 0);
    if (train.speed === 0) return changes;
    while (ahead[0] && ahead[0].signal >= 0 && train.head >= ahead[0].at) {
      const { signal: passed } = ahead.shift()!;
      const aspect = aspectOf(passed);
      events.push({ kind: 'passes', train: index, signal: passed, aspect, dropped: train.pass(passed) });
      const { share, atNext } = this.paceOf(aspect, train.figures.topMmPerS);
      train.share = share;
      train.shareAtNext = atNext;
      train.onSight = aspect.onSight ?? false;
      if (aspect.stopsIn === 0) train.stranded = true;
    }
    if (train.head < train.nextCrossing) return changes;
    const mishap = train.extend(this.points);
    if (mishap) events.push({ kind: 'mishap', train: index, mishap });
    train.planCrossing();
    return true;
  }

  /** How fast an aspect lets a train run from its signal on, and past the next one, as shares of its top speed. */
  private paceOf({ stopsIn, speed, speedAtNext }: Aspect, topMmPerS: number): { share: number; atNext: number } {
    const shareOf = (limit: SpeedLimit | undefined, otherwise: number) => {
      if (!limit) return otherwise;
      if (limit.share !== undefined) return limit.share;
      return Math.min(1, this.parameters.mmPerS(limit.kmh!) / topMmPerS);
    };
    return { share: shareOf(speed, stopsIn === 1 ? CAUTION_SHARE : 1), atNext: shareOf(speedAtNext, 1) };
  }

  /** Turns a standing train back, or says why not. */
  turnBack(index: number): 'moving' | WhyNotTurnBack | undefined {
    const train = this.trains[index]!;
    if (train.speed > 0) return 'moving';
    const problem = whyNotTurnBack(this.partition, this.signalsOn, train.body(), train.tail, train.head);
    if (problem) return problem;
    train.turn();
    this.proximity.plan();
    return undefined;
  }

  liftOff(index: number): void {
    this.trains[index]!.liftOff();
    this.byHand(index);
  }
  /** Sets a train down where it began; the number of the train that stands there instead when it cannot be. */
  setDown(index: number): number | undefined {
    const there = new Set(this.trains[index]!.piecesAtStart());
    const other = this.trains.findIndex((train) => train.body().some(({ piece }) => there.has(piece)));
    if (other >= 0) return other;
    this.trains[index]!.setDown();
    this.byHand(index);
    return undefined;
  }
  private byHand(index: number): void {
    this.proximity.forget(index);
    this.proximity.plan();
    this.handled.push({ train: index, off: this.trains[index]!.off });
  }

  /** Where a train lies, nose first, in mm of each line. */
  positionOf(index: number): { line: string; from: number; to: number }[] {
    return this.trains[index]!.standsOn()
      .reverse()
      .map((stands) => ({
        line: this.partition.pieces[stands.piece]!.line,
        from: lineMm(this.partition, stands.entry, stands.to),
        to: lineMm(this.partition, stands.entry, stands.from),
      }));
  }
}
