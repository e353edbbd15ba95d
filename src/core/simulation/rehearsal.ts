import { type Fault, MissedPulses, struckBy } from '../faults';
import type { Aspect } from '../kinds';
import { DELAY_DEVIATION, SCAN_S, SPEED_DEVIATION } from '../measure';
import { type NamedRoute, rivalsOf } from '../patterns';
import { type Plant, type PlantEvent, PlantProcess, POSITIONS, type RollingTrain, type WayTo } from '../plant';
import { Controller, Digest, isAskedOtherwise, type Running, type System } from '../system';
import type { Motor } from '../track';
import { type Command, carryOut, type TimedCommand } from './commands';
import { codeOf, type RehearsalEvent, type TimedEvent } from './events';
import { Orders } from './orders';
import { Random } from './random';
import { RouteQueue } from './route-queue';
import { SentTrains } from './sent-trains';
import { type SaidAtFirst, saidAtFirst, slotOf, type Telling, takenOf, tellingsOf } from './tell-direction';

export const TICK_MS = SCAN_S * 1000;
/** A train that was sent somewhere asks for its turnouts this often, and for those within this reach of its nose. */
const ERRAND_TICKS = 25;
const ERRAND_REACH_MM = 6000;
/** Positions are folded into the trace this often. */
const HASH_EVERY_TICKS = 50;

type Sink = (event: RehearsalEvent) => void;

/** A controller and the simulated plant in one loop. The same System, seed and commands give the same trace, byte for byte. */
export class Rehearsal {
  readonly controller: Controller;
  readonly plant: Plant;
  /** The motors of all points, by number. */
  readonly motors: readonly Motor[];
  tick = 0;
  readonly process: PlantProcess;
  private readonly digest = new Digest();
  private readonly events: PlantEvent[] = [];
  private readonly aspectSlots: readonly number[];
  private readonly aspects: Aspect[];
  readonly missed = new MissedPulses();
  readonly orders: Orders;
  /** Routes that people want set as soon as they can be. */
  readonly queue: RouteQueue;
  /** All that fails now. */
  readonly failures = new Map<string, Fault>();
  /** Which of the people is at each post, by its id. */
  readonly atPost = new Map<string, number>();
  private readonly saidAtFirst: SaidAtFirst;
  private throws: { motor: number; to: 'straight' | 'diverging' }[] = [];
  /** Signals whose buttons at a post were pressed since the last scan. */
  private pressed: number[] = [];
  /** Buttons that were pressed at this tick, and of these such as were let go before it was scanned. */
  private readonly pressedNow = new Set<number>();
  private readonly letGoNow = new Set<number>();
  /** Signals at which a train that was sent somewhere takes no route of its own choice. */
  readonly sent: SentTrains;
  /** Something began to fail, or ceased to, since outputs were read. */
  private failed = false;

  constructor(
    readonly system: System,
    readonly seed: number,
    options: Running & { looksAlways?: boolean } = {},
  ) {
    this.controller = new Controller(system, options);
    const random = new Random(seed);
    const tolerance = system.plant.trains.map(() => ({
      speed: random.normal() * SPEED_DEVIATION,
      startDelay: Math.max(-0.9, random.normal() * DELAY_DEVIATION),
    }));
    this.process = new PlantProcess(
      this.controller,
      (train) => tolerance[train]!,
      options.looksAlways,
      (slot, value) => this.missed.noticed(slot, value),
    );
    this.plant = this.process.plant;
    this.motors = system.partition.graph.motors;
    this.aspectSlots = system.readings.map(({ index }) => system.terminals.slot('aspect', index));
    this.aspects = system.readings.map(() => system.aspects[0]!);
    this.orders = new Orders(system.partition, this.plant);
    this.queue = new RouteQueue(system.commanded);
    this.sent = new SentTrains(system, this.controller, this.orders, (train, way) =>
      this.routesAhead(this.plant.trains[train]!, way),
    );
    const directions = this.plant.trains.flatMap((_, train) =>
      this.tellDirection(train).map(({ trafficSection, which }) => ({ train, trafficSection, side: which! })),
    );
    const held = this.plant.trains.map((train) => train.held());
    this.saidAtFirst = saidAtFirst(system, held, directions);
    const { terminals } = system;
    for (const block of this.saidAtFirst.taken) this.controller.pulse(terminals.slot('said occupied', block));
    for (const block of this.saidAtFirst.free) this.controller.pulse(terminals.slot('said free', block));
    this.scan();
  }

  private sink: Sink | undefined;
  private readonly emit = (event: RehearsalEvent): void => {
    this.fold(event);
    this.sink?.(event);
  };

  /** What drivers read off a signal. */
  readOff(signal: number): Aspect {
    return this.process.readOff(signal);
  }

  /** Something fails from the next tick on, or does so no longer. False where it cannot fail so, or it is not known how. */
  fail(fault: Fault, on: boolean): boolean {
    const struck = struckBy(this.system, fault);
    if (!struck) return false;
    const by = `${fault.fault} ${fault.thing}`;
    for (const { terminal, puts } of struck.terminals) this.process.fail(terminal.slot, by, on ? puts : undefined);
    this.failed = true;
    if (on) this.failures.set(by, fault);
    else this.failures.delete(by);
    return true;
  }

  /** Runs one tick of 20 ms; events go to `sink` in order. */
  step(sink?: Sink): void {
    this.tick += 1;
    this.sink = sink;
    const { emit } = this;
    if (this.tick === 1) this.tellWhatWasSaid();
    if (this.orders.size > 0 && this.tick % ERRAND_TICKS === 0) this.runErrands(emit);
    if (this.queue.size > 0)
      for (const { button } of this.queue.due(this.controller.values)) this.controller.pulse(button);
    this.events.length = 0;
    const changed = this.process.step(this.events);
    if (this.orders.size + this.sent.size > 0) this.sent.serve();
    for (let e = 0; e < this.events.length; e++) emit(this.events[e]!);
    if (this.scan(changed) || this.failed) this.readOutputs(emit);
    if (this.pressedNow.size > 0) this.letGo();
    if (this.tick % HASH_EVERY_TICKS === 0) {
      const { trains } = this.plant;
      for (let t = 0; t < trains.length; t++) this.digest.add(Math.round(trains[t]!.head * 1000));
    }
  }

  /** A button is pressed, or let go; a press is never lost, however short: one let go before the rules have seen it is let go once they have. */
  workButton(slot: number, on: boolean): void {
    if (on) {
      this.letGoNow.delete(slot);
      this.pressedNow.add(slot);
      this.controller.set(slot, 1);
    } else if (this.pressedNow.has(slot)) this.letGoNow.add(slot);
    else this.controller.set(slot, 0);
  }
  private letGo(): void {
    for (const slot of this.letGoNow) this.controller.set(slot, 0);
    this.letGoNow.clear();
    this.pressedNow.clear();
  }

  private scan(changed = true): boolean {
    if (changed || this.controller.isWorked) {
      this.process.setInputs();
      this.controller.setWorked();
    }
    return this.controller.scan(this.tick * TICK_MS);
  }

  private readOutputs(emit: Sink): void {
    this.failed = false;
    const { controller, system } = this;
    for (let s = 0; s < this.aspectSlots.length; s++) {
      const aspect = system.aspects[this.process.sent(this.aspectSlots[s]!)]!;
      if (aspect === this.aspects[s]) continue;
      this.aspects[s] = aspect;
      emit({ kind: 'aspect', signal: s, aspect });
    }
    if (this.pressed.length + this.throws.length === 0) return;
    for (const signal of this.pressed.splice(0)) {
      if (controller.isOn('given', signal)) continue;
      const rival = rivalsOf(system, system.readings[signal]!).find(({ index }) => controller.isOn('proceed', index));
      emit({ kind: 'not cleared', signal, ...(rival && { rival: rival.index }) });
    }
    for (const { motor, to } of this.throws.splice(0)) {
      if (this.process.drives(motor) === to) continue;
      const both = isAskedOtherwise(system, controller.values, motor, to);
      const because = controller.isLocked(motor) ? 'locked' : both ? 'asked both ways' : 'otherwise';
      emit({ kind: 'refused', motor, because });
    }
  }

  /** Carries out a command at the next tick. Returns a sentence when it cannot be. */
  command(command: Command, sink?: Sink): string | undefined {
    const problem = carryOut(this, command);
    if (problem === undefined) {
      const event: RehearsalEvent = { kind: 'told', command };
      this.digest.add(this.tick);
      this.fold(event);
      sink?.(event);
    }
    return problem;
  }

  /** Asks for the points of a motor. `byHand`: a person who is told when it is refused. */
  ask(motor: number, to: 'straight' | 'diverging', byHand: boolean): void {
    this.controller.pulse(this.system.terminals.slot('request', motor, to));
    if (byHand) this.throws.push({ motor, to });
  }
  /** The button of a signal at a post is pressed. */
  press(signal: number): void {
    this.pressed.push(signal);
  }

  /** Asks for the next turnout on the way of each train that was sent, once it is near; locking may refuse and is asked again. */
  private runErrands(emit: Sink): void {
    for (const [index, order] of [...this.orders]) {
      const train = this.plant.trains[index]!;
      if (!order.way) continue;
      if (train.goalAt === undefined) {
        this.orders.drop(index);
        emit({ kind: 'done', train: index, block: this.system.partition.blocks[order.block]!.name });
        continue;
      }
      this.orders.lookAgain(index);
      const { way } = order;
      if (!way) continue;
      this.prepareFor(train, way);
      const next = way.turnouts.find(
        ({ motor, position, at }) => at > train.head && this.plant.motors[motor]!.position !== position,
      );
      if (!next || next.at > train.head + ERRAND_REACH_MM || this.plant.motors[next.motor]!.position === 'between')
        continue;
      if (!this.controller.isLocked(next.motor)) this.ask(next.motor, next.position, false);
    }
  }

  /** The routes of the signal that a train stands before which its way can take. */
  private routesAhead(train: RollingTrain, way: WayTo): NamedRoute[] {
    const { readings, routesOf } = this.system;
    const head = train.held().at(-1);
    const wanted = new Map(
      way.turnouts.flatMap(({ motor, position, at }) => (at > train.head ? [[motor, position] as const] : [])),
    );
    return readings
      .filter(({ piece, exit }) => piece === head?.piece && exit === head.exit)
      .flatMap(({ index }) => routesOf[index]!)
      .filter(({ route }) =>
        route.conditions.every(({ motor, position }) => (wanted.get(motor) ?? position) === position),
      );
  }

  /**
   * Before a train that was sent somewhere, somebody throws the points that guard the route of its next signal; where people set routes, they set
   * it, once nothing that conflicts is set.
   */
  private prepareFor(train: RollingTrain, way: WayTo): void {
    const ahead = this.routesAhead(train, way);
    const { values } = this.controller;
    const { commanded } = this.system;
    const toSet = commanded.filter(({ signal, route }) =>
      ahead.some(({ reading, id }) => signal === reading.index && route === id),
    );
    const next = toSet.find(
      ({ isSet, rivals }) => values[isSet] !== 1 && rivals.every((nth) => values[commanded[nth]!.isSet] !== 1),
    );
    if (next) this.controller.pulse(next.button);
    if (toSet.length > 0 || !ahead[0]) return;
    for (const { motor, position } of this.system.beside(ahead[0]))
      if (this.plant.motors[motor]!.position !== position && !this.controller.isLocked(motor))
        this.ask(motor, position, false);
  }

  /** Directions alone are told, but are no part of the trace: they follow from how the trains stand. */
  private tellWhatWasSaid(): void {
    const { directions, ...ofBlocks } = this.saidAtFirst;
    const event = { kind: 'said at first', ...this.saidAtFirst } as const;
    if (Object.values(ofBlocks).some(({ length }) => length > 0)) this.emit(event);
    else if (directions.length > 0) this.sink?.(event);
  }

  /**
   * A person says which way a train came into the traffic section it stands in: when trains are put on the track and when one
   * turns back. Not said where another train stands in the same section, since that one may hold it rightly.
   */
  tellDirection(train: number): Telling[] {
    return this.tell(train, tellingsOf(this.system, this.plant.trains[train]!.held()));
  }
  /** And that it is there at all, where nothing would see it. */
  tellPutDown(train: number): void {
    this.tellDirection(train);
    this.tell(train, takenOf(this.system, this.plant.trains[train]!.held()));
  }
  private tell(train: number, told: Telling[]): Telling[] {
    const { partition, trafficSections } = this.system;
    const held = this.plant.trains.map((rolling) => rolling.held());
    return told.filter((telling) => {
      const { trafficSection, always } = telling;
      const slot = slotOf(this.system, telling);
      const shared = held.some(
        (theirs, t) =>
          t !== train &&
          theirs.some(({ piece }) => trafficSections.ofBlock[partition.pieces[piece]!.block] === trafficSection),
      );
      if (slot === undefined || (!always && shared && this.tick > 0)) return false;
      this.controller.pulse(slot);
      return true;
    });
  }

  private fold(event: RehearsalEvent): void {
    const { digest } = this;
    digest.add(this.tick);
    digest.add(codeOf(event));
    if ('train' in event) digest.add(event.train);
    if ('signal' in event) digest.add(event.signal);
    if ('motor' in event) digest.add(event.motor);
    if ('field' in event) digest.add(event.field * 2 + (event.on ? 1 : 0));
    if ('level' in event) digest.add(event.section * 4 + event.level);
    if ('aspect' in event) digest.add(this.system.aspects.indexOf(event.aspect));
    if ('position' in event) digest.add(POSITIONS.indexOf(event.position));
    if (event.kind === 'told')
      for (const character of JSON.stringify(event.command)) digest.add(character.codePointAt(0)!);
  }

  get traceHash(): string {
    return this.digest.text;
  }
  aspectAt(signal: number): Aspect {
    return this.aspects[signal]!;
  }
}

/** Runs a whole rehearsal from its commands: what the server does to check a browser's run. */
export function replay(
  system: System,
  seed: number,
  ticks: number,
  commands: TimedCommand[],
  sink?: (event: TimedEvent) => void,
): Rehearsal {
  const rehearsal = new Rehearsal(system, seed);
  let next = 0;
  const forward = sink && ((event: RehearsalEvent) => sink({ tick: rehearsal.tick, event }));
  const giveDue = () => {
    while (next < commands.length && commands[next]!.tick <= rehearsal.tick)
      rehearsal.command(commands[next++]!.command, forward);
  };
  while (rehearsal.tick < ticks) {
    giveDue();
    rehearsal.step(forward);
  }
  giveDue();
  return rehearsal;
}
