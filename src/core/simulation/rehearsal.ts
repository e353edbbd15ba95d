import { type Aspect, sensorKind } from '../kinds';
import { type Compiled, compileProgram, type Evaluator, evaluatorOf, Interpreter, type Program } from '../logic';
import { DELAY_DEVIATION, SCAN_S, SPEED_DEVIATION } from '../measure';
import { compileScheme, names, rivalsOf, type Scheme, writeRuleProgram } from '../patterns';
import { Plant, type PlantEvent, type PowerOf } from '../plant';
import type { LayoutDocument } from '../survey';
import type { Motor } from '../track';
import { type Command, type TimedCommand, WORKED_BY } from './command';
import { MissedPulses } from './missed-pulses';
import { Orders } from './orders';
import { Random } from './random';
import { saidAtPowerUp, type Telling, takenOf, tellingsOf } from './tell-direction';
import { TraceHash } from './trace-hash';

export const TICK_MS = SCAN_S * 1000;
const POSITIONS = ['straight', 'diverging', 'between'] as const;
/** A train that was sent somewhere asks for its turnouts this often, and for those within this reach of its nose. */
const ERRAND_TICKS = 25;
const ERRAND_REACH_MM = 6000;
/** Positions are folded into the trace this often. */
const HASH_EVERY_TICKS = 50;

export type RehearsalEvent =
  | PlantEvent
  | { kind: 'aspect'; signal: number; aspect: Aspect }
  | { kind: 'refused'; turnout: number; locked: boolean }
  | { kind: 'told'; command: Command }
  /** A button at a post was pressed to no effect: one that conflicts lets trains on, or it does so itself. */
  | { kind: 'not cleared'; signal: number; rival?: number }
  /** A train stands where it was sent. */
  | { kind: 'done'; train: number; block: string };

export interface TimedEvent {
  tick: number;
  event: RehearsalEvent;
}

const WHY_NOT_TURN_BACK = {
  moving: 'is still moving. Halt it first.',
  'in several blocks':
    'stands in more than one block. It can turn back only within one, behind the signal that guards the way back.',
  'no signal guards the way back':
    'cannot turn back here: no signal guards the way back. Place one, or turn it back at the end of a line.',
};

const EVENT_CODES = [
  'sensor',
  'points',
  'passes',
  'stands',
  'starts',
  'collision',
  'points moved under',
  'mishap',
  'aspect',
  'refused',
  'told',
  'done',
  'handled',
  'power',
  'not cleared',
] as const;

/** Plant and rule program in one loop. The same document, seed and commands give the same trace, byte for byte. */
export class Rehearsal {
  readonly scheme: Scheme;
  readonly program: Program;
  readonly compiled: Compiled;
  readonly evaluator: Evaluator;
  readonly plant: Plant;
  /** The motors of all points. What events and commands call a turnout is one of them, by number or by id. */
  readonly motors: readonly Motor[];
  tick = 0;
  private readonly hash = new TraceHash();
  private readonly events: PlantEvent[] = [];
  private readonly aspectSlots: number[];
  /** What trains read, which is stop where lamps are dark. */
  readonly readSlots: readonly number[];
  private readonly driveSlots: number[];
  private readonly pointSlots: number[];
  private readonly detectSlots: { slot: number; field: number }[];
  private readonly aspects: Aspect[];
  private readonly powers: PowerOf[];
  private pulses: { slot: number; ticks: number }[] = [];
  private readonly missed = new MissedPulses();
  readonly orders: Orders;
  /** Which of the people is at each post, by its id. */
  readonly atPost = new Map<string, number>();
  private throws: { turnout: number; diverging: boolean }[] = [];
  /** Signals whose buttons at a post were pressed since the last scan. */
  private pressed: string[] = [];
  private readonly drives = (turnout: number) =>
    this.evaluator.values[this.driveSlots[turnout]!] ? 'diverging' : 'straight';
  /** What trains read off a signal. */
  readonly readOff = (signal: number) => this.scheme.aspects[this.evaluator.values[this.readSlots[signal]!]!]!;

  constructor(
    readonly document: LayoutDocument,
    readonly seed: number,
    options: { skipSettled?: boolean; interpreted?: boolean; looksAlways?: boolean } = {},
  ) {
    this.scheme = compileScheme(document);
    this.program = writeRuleProgram(this.scheme);
    this.compiled = compileProgram(this.program);
    const skip = options.skipSettled ?? true;
    this.evaluator = options.interpreted ? new Interpreter(this.compiled, skip) : evaluatorOf(this.compiled, skip);
    const random = new Random(seed);
    const spread = document.trains.map(() => ({
      speed: random.normal() * SPEED_DEVIATION,
      startDelay: Math.max(-0.9, random.normal() * DELAY_DEVIATION),
    }));
    const { partition, readings } = this.scheme;
    const { motors } = partition.graph;
    this.motors = motors;
    this.plant = new Plant(document, partition, readings, (train) => spread[train]!, options.looksAlways);
    const slot = (name: string) => this.compiled.slots.get(name)!;
    const { slots } = this.compiled;
    this.aspectSlots = this.scheme.readings.map((reading) => slot(names.shows(reading.signal)));
    this.readSlots = this.scheme.readings.map((reading) => slot(names.asRead(slots, reading.signal)));
    this.driveSlots = motors.map((motor) => slot(names.drive(motor)));
    this.pointSlots = motors.map((motor) => slot(names.points(motor)));
    this.detectSlots = document.sensors.map((sensor, s) => ({
      slot: slot(names.detect(sensor)),
      field: partition.fields.ofSensor[s]!,
    }));
    this.aspects = this.scheme.readings.map(() => this.scheme.aspects[0]!);
    this.powers = this.program.declarations.flatMap(({ name, commands }) => {
      if (commands?.kind !== 'power') return [];
      const at = slot(name);
      return [{ section: commands.of, level: () => this.evaluator.values[at]! }];
    });
    this.orders = new Orders(partition, this.plant);
    for (let t = 0; t < this.plant.trains.length; t++) this.tellDirection(t);
    for (const input of saidAtPowerUp(
      this.scheme,
      this.plant.trains.map((train) => train.held()),
    ))
      this.pulses.push({ slot: slot(input), ticks: 1 });
    this.writeInputs();
    this.evaluator.scan(0);
  }

  /** Runs one tick of 20 ms; events go to `sink` in order. */
  step(sink?: (event: RehearsalEvent) => void): void {
    this.tick += 1;
    const emit = (event: RehearsalEvent) => {
      this.fold(event);
      sink?.(event);
    };
    if (this.orders.size > 0 && this.tick % ERRAND_TICKS === 0) this.runErrands(emit);
    this.events.length = 0;
    this.plant.step(this.drives, this.readOff, this.events, this.powers);
    for (const event of this.events) emit(event);
    if (this.events.length > 0 || this.pulses.length > 0) this.writeInputs();
    if (this.evaluator.scan(this.tick * TICK_MS)) this.readOutputs(emit);
    if (this.tick % HASH_EVERY_TICKS === 0) {
      for (const train of this.plant.trains) this.hash.add(Math.round(train.head * 1000));
    }
  }

  private writeInputs(): void {
    const { evaluator, plant } = this;
    for (const { slot, field } of this.detectSlots)
      evaluator.setInput(slot, this.missed.noticed(slot, plant.felt[field]!));
    for (let t = 0; t < this.pointSlots.length; t++)
      evaluator.setInput(this.pointSlots[t]!, POSITIONS.indexOf(plant.motors[t]!.position));
    if (this.pulses.length === 0) return;
    for (const pulse of this.pulses) {
      evaluator.setInput(pulse.slot, pulse.ticks > 0 ? 1 : 0);
      pulse.ticks -= 1;
    }
    this.pulses = this.pulses.filter((pulse) => pulse.ticks >= 0);
  }

  private readOutputs(emit: (event: RehearsalEvent) => void): void {
    const { values } = this.evaluator;
    for (let s = 0; s < this.aspectSlots.length; s++) {
      const aspect = this.scheme.aspects[values[this.aspectSlots[s]!]!]!;
      if (aspect === this.aspects[s]) continue;
      this.aspects[s] = aspect;
      emit({ kind: 'aspect', signal: s, aspect });
    }
    for (const id of this.pressed.splice(0)) {
      if (this.evaluator.valueOf(names.given({ id })) === 1) continue;
      const reading = this.scheme.readings.find(({ signal }) => signal.id === id)!;
      const rival = rivalsOf(this.scheme, reading).find(
        ({ signal }) => this.evaluator.valueOf(names.proceed(signal)) === 1,
      );
      emit({ kind: 'not cleared', signal: reading.index, ...(rival && { rival: rival.index }) });
    }
    if (this.throws.length === 0) return;
    for (const { turnout, diverging } of this.throws) {
      if ((values[this.driveSlots[turnout]!] === 1) === diverging) continue;
      emit({
        kind: 'refused',
        turnout,
        locked: this.evaluator.valueOf(names.locked(this.motors[turnout]!)) === 1,
      });
    }
    this.throws = [];
  }

  /** Carries out a command at the next tick. Returns a sentence when it cannot be. */
  command(command: Command): string | undefined {
    const problem = this.carryOut(command);
    if (problem === undefined) {
      this.hash.add(this.tick);
      this.fold({ kind: 'told', command });
    }
    return problem;
  }

  private carryOut(command: Command): string | undefined {
    const slot = (name: string) => this.compiled.slots.get(name)!;
    switch (command.kind) {
      case 'throw': {
        const turnout = this.motors.findIndex(({ id }) => id === command.turnout);
        if (turnout < 0) return 'That turnout is no longer there.';
        this.pulses.push({ slot: slot(names.ask(this.motors[turnout]!, command.to)), ticks: 1 });
        this.throws.push({ turnout, diverging: command.to === 'diverging' });
        return undefined;
      }
      case 'hold':
      case 'man':
      case 'give': {
        const id = command.kind === 'man' ? command.post : command.signal;
        const input = this.compiled.slots.get(WORKED_BY[command.kind]({ id }));
        if (input === undefined)
          return command.kind === 'hold' ? 'That signal is no longer there.' : 'There is no post that works it.';
        const people = Math.max(1, this.document.people ?? 1);
        if (command.kind === 'man' && (command.by ?? 1) > people) return `Only ${people} run this layout.`;
        if (command.kind === 'man' && command.on) this.atPost.set(id, command.by ?? 1);
        else if (command.kind === 'man') this.atPost.delete(id);
        this.evaluator.setInput(input, command.on ? 1 : 0);
        if (command.kind === 'give' && command.on) this.pressed.push(id);
        return undefined;
      }
      case 'say': {
        const block = this.scheme.partition.blocks.find(({ id }) => id === command.block);
        const input = block && this.compiled.slots.get((command.free ? names.freed : names.taken)(block));
        if (input === undefined) return 'Of that block its sensors tell; there is nothing to say.';
        this.pulses.push({ slot: input, ticks: 1 });
        return undefined;
      }
      case 'fault': {
        const sensor = this.document.sensors.findIndex(({ id }) => id === command.sensor);
        if (!this.document.sensors[sensor] || !sensorKind(this.document.sensors[sensor].kind).pulses)
          return 'That sensor gives no pulses.';
        const { slot, field } = this.detectSlots[sensor]!;
        if (command.what === 'miss') this.missed.missNext(slot, this.plant.felt[field]!);
        else this.pulses.push({ slot, ticks: 1 });
        return undefined;
      }
      case 'run':
      case 'draw up':
      case 'send':
      case 'take back':
      case 'turn back':
      case 'lift off':
      case 'set down': {
        const index = this.plant.trains.findIndex((t) => t.figures.id === command.train);
        const train = this.plant.trains[index];
        if (!train) return 'That train is not on the track.';
        if (command.kind === 'set down') return this.setDown(index);
        if (train.off) return `${train.figures.name} is not on the track. Set it down first.`;
        if (command.kind === 'lift off') {
          this.orders.drop(index);
          this.plant.liftOff(index);
          return undefined;
        }
        if (command.kind === 'run') {
          if (command.on) train.stranded = false;
          if (command.on && this.orders.of(index)) this.orders.begin(index);
          else train.running = command.on;
          if (!this.orders.of(index)) train.goalAt = undefined;
          return undefined;
        }
        if (command.kind === 'send') return this.orders.give(index, command.block);
        if (command.kind === 'take back') {
          if (!this.orders.of(index)) return `${train.figures.name} has no order to take back.`;
          this.orders.drop(index);
          train.running = false;
          return undefined;
        }
        if (command.kind === 'draw up') {
          this.orders.drop(index);
          train.goalAt = train.head + command.mm;
          train.running = true;
          return undefined;
        }
        const problem = this.plant.turnBack(index);
        if (problem) return `${train.figures.name} ${WHY_NOT_TURN_BACK[problem]}`;
        this.orders.turned(index);
        this.tellDirection(index);
        return undefined;
      }
    }
  }

  private setDown(index: number): string | undefined {
    const { name } = this.plant.trains[index]!.figures;
    if (!this.plant.trains[index]!.off) return `${name} stands on the track.`;
    const other = this.plant.setDown(index);
    if (other !== undefined)
      return `${name} cannot be set down where it began: ${this.plant.trains[other]!.figures.name} stands there.`;
    this.tellPutDown(index);
    return undefined;
  }

  /** Asks for the next turnout on the way of each train that was sent, once it is near; locking may refuse and is asked again. */
  private runErrands(emit: (event: RehearsalEvent) => void): void {
    for (const [index, order] of [...this.orders]) {
      const train = this.plant.trains[index]!;
      if (!order.way) continue;
      if (train.goalAt === undefined) {
        this.orders.drop(index);
        emit({ kind: 'done', train: index, block: this.scheme.partition.blocks[order.block]!.name });
        continue;
      }
      this.orders.lookAgain(index);
      const { way } = order;
      if (!way) continue;
      const next = way.turnouts.find(
        ({ turnout, position, at }) => at > train.head && this.plant.motors[turnout]!.position !== position,
      );
      if (!next || next.at > train.head + ERRAND_REACH_MM || this.plant.motors[next.turnout]!.position === 'between')
        continue;
      const motor = this.motors[next.turnout]!;
      if (this.evaluator.valueOf(names.locked(motor)) === 1) continue;
      this.pulses.push({ slot: this.compiled.slots.get(names.ask(motor, next.position))!, ticks: 1 });
    }
  }

  /**
   * A person says which way a train came into the stretch it stands in: when trains are put on the track and when one
   * turns back. Not said where another train stands in the same stretch, since that one may hold it rightly.
   */
  private tellDirection(train: number): void {
    this.tell(train, tellingsOf(this.scheme, this.plant.trains[train]!.held()));
  }
  /** And that it is there at all, where nothing would see it. */
  private tellPutDown(train: number): void {
    this.tellDirection(train);
    this.tell(train, takenOf(this.scheme, this.plant.trains[train]!.held()));
  }
  private tell(train: number, told: Telling[]): void {
    const { partition, stretches } = this.scheme;
    const held = this.plant.trains.map((rolling) => rolling.held());
    for (const { stretch, input, always } of told) {
      const shared = held.some(
        (theirs, t) =>
          t !== train && theirs.some(({ piece }) => stretches.ofBlock[partition.pieces[piece]!.block] === stretch),
      );
      const slot = this.compiled.slots.get(input);
      if (slot !== undefined && (always || !(shared && this.tick > 0))) this.pulses.push({ slot, ticks: 1 });
    }
  }

  private fold(event: RehearsalEvent): void {
    const { hash } = this;
    hash.add(this.tick);
    hash.add(EVENT_CODES.indexOf(event.kind));
    if ('train' in event) hash.add(event.train);
    if ('signal' in event) hash.add(event.signal);
    if ('turnout' in event) hash.add(event.turnout);
    if ('field' in event) hash.add(event.field * 2 + (event.on ? 1 : 0));
    if ('level' in event) hash.add(event.section * 4 + event.level);
    if ('aspect' in event) hash.add(this.scheme.aspects.indexOf(event.aspect));
    if ('position' in event) hash.add(POSITIONS.indexOf(event.position));
    if (event.kind === 'told')
      for (const character of JSON.stringify(event.command)) hash.add(character.codePointAt(0)!);
  }

  get traceHash(): string {
    return this.hash.digest;
  }
  aspectAt(signal: number): Aspect {
    return this.aspects[signal]!;
  }
}

/** Runs a whole rehearsal from its commands: what the server does to check a browser's run. */
export function replay(
  document: LayoutDocument,
  seed: number,
  ticks: number,
  commands: TimedCommand[],
  sink?: (event: TimedEvent) => void,
): Rehearsal {
  const rehearsal = new Rehearsal(document, seed);
  let next = 0;
  const forward = sink && ((event: RehearsalEvent) => sink({ tick: rehearsal.tick, event }));
  while (rehearsal.tick < ticks) {
    while (next < commands.length && commands[next]!.tick <= rehearsal.tick)
      rehearsal.command(commands[next++]!.command);
    rehearsal.step(forward);
  }
  while (next < commands.length && commands[next]!.tick <= rehearsal.tick) rehearsal.command(commands[next++]!.command);
  return rehearsal;
}
