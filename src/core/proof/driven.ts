import type { RollingTrain } from '../plant';
import {
  type Command,
  type HazardId,
  hazardOfEvent,
  hazardsNow,
  Rehearsal,
  type RehearsalEvent,
  type TimedCommand,
} from '../simulation';
import type { Deed } from './counterexample';
import { isTrial, type TimesSeen, type Timing } from './just-before';
import type { ProofModel } from './model/model';
import { STANDING_TICKS } from './model/standing-start';
import { MOVES } from './moves';
import type { Property } from './prove';
import type { Steered, Stretch } from './steer';

/** A step that the rehearsal has not taken within a minute will not be taken. */
const MOST_TICKS_A_STEP = 3000;
/** A standstill is confirmed when no train gets anywhere for this long though every one is told to go. */
const STANDSTILL_TICKS = 3000;
/** After the last step the hazard may still be a little way ahead. */
const AFTERMATH_TICKS = 3000;
/** A train that draws up to the end of where it may be takes no longer. */
const DRAWS_UP_TICKS = 1500;
const NEAR_ITS_END = 0.97;
const SEED = 1;

/** A rehearsal that is driven towards what a property says can never be, from trains that have stood since power came on. */
export class Driven {
  readonly run: Rehearsal;
  private readonly commands: TimedCommand[] = [];
  private readonly met = new Set<HazardId>();
  /** What was seen of a step that was timed. */
  readonly seen: TimesSeen = {};

  constructor(
    private readonly model: ProofModel,
    private readonly property: Property,
  ) {
    this.run = new Rehearsal(model.system, SEED);
    for (const train of model.trains) this.tell({ kind: 'run', train: train.id, on: false });
    this.pass(STANDING_TICKS);
  }

  /** It has come to pass. */
  get isThere(): boolean {
    return this.met.has(this.property as HazardId);
  }
  /** False when the rehearsal refuses. */
  readonly tell = (command: Command): boolean => {
    const problem = this.run.command(command);
    if (problem === undefined) this.commands.push({ tick: this.run.tick, command });
    return problem === undefined;
  };
  readonly rolling = (train: number): RollingTrain =>
    this.run.plant.trains.find(({ figures }) => figures.id === this.model.trains[train]!.id)!;

  private readonly sink = (event: RehearsalEvent): void => {
    const hazard = hazardOfEvent(event);
    if (hazard) this.met.add(hazard);
  };
  private step(also?: (event: RehearsalEvent) => void): void {
    this.run.step((event) => {
      this.sink(event);
      also?.(event);
    });
    for (const { id } of hazardsNow(this.run)) this.met.add(id);
  }
  /** Lets so many ticks pass, or fewer if it comes to pass. */
  private pass(ticks: number): void {
    for (let i = 0; i < ticks && !this.isThere; i++) this.step();
  }
  /** Lets time pass until something is so, it comes to pass, or neither has for long. */
  readonly until = (done: () => boolean, most = MOST_TICKS_A_STEP): boolean => {
    for (let i = 0; i < most && !this.isThere; i++) {
      if (done()) return true;
      this.step();
    }
    return this.isThere || done();
  };

  /**
   * A train is let run on, and a step begun, each after so many ticks; until the train has come by what changes in that step, or it is of no use
   * to wait. What tells that the step is done, as `begin` returns it.
   */
  timed<Done>(timing: Timing, { from: placed }: Stretch, begin: () => Done[]): Done[] {
    const { run, model, seen } = this;
    const { before, trainAfter, stepAfter } = timing;
    const rolling = this.rolling(before.train);
    const train = run.plant.trains.indexOf(rolling);
    this.until(() => rolling.speed === 0);
    const from = run.tick;
    const isThere = () =>
      before.signal !== undefined
        ? run.readOff(before.signal).stopsIn === 0
        : run.plant.motors[before.motor!]!.position === 'between';
    let was = isThere();
    let done: Done[] | undefined;
    for (let after = 0; after < MOST_TICKS_A_STEP && !this.isThere; after++) {
      if (after === trainAfter) this.tell({ kind: 'run', train: model.trains[before.train]!.id, on: true });
      if (after === stepAfter) done = begin();
      this.step((event) => {
        if (event.kind === 'passes' && event.train === train && event.signal === before.signal)
          seen.cameBy ??= run.tick - from;
      });
      const is = isThere();
      if (is && !was) seen.changed ??= run.tick - from;
      was = is;
      if (before.motor !== undefined && rolling.head >= placed + before.awayMm) seen.cameBy ??= run.tick - from;
      if (seen.cameBy !== undefined || (seen.changed !== undefined && isTrial(timing))) break;
    }
    return done ?? [];
  }

  /** Those that the last step speaks of go on of themselves; where there is no step, all do, one after another. */
  goOn(last: readonly Deed[]): void {
    for (const { kind, index } of last)
      if (MOVES[kind]!.movesOn && !this.isThere)
        this.tell({ kind: 'run', train: this.model.trains[index]!.id, on: true });
    this.pass(AFTERMATH_TICKS);
    if (last.length === 0) this.letRun([...this.model.trains.keys()]);
  }
  /** All go on, in this order: first to the end of where the counterexample has them, then as far as they come. */
  goOnInOrder(order: readonly number[], stretches: ReadonlyMap<number, Stretch>): void {
    for (const t of order) {
      const { from, longMm } = stretches.get(t)!;
      const train = this.rolling(t);
      const goal = from + NEAR_ITS_END * longMm;
      if (this.isThere || train.off || train.head >= goal) continue;
      this.tell({ kind: 'draw up', train: this.model.trains[t]!.id, mm: goal - train.head });
      this.until(() => train.head >= goal - 1 || !train.running || train.stranded, DRAWS_UP_TICKS);
    }
    this.letRun(order);
  }
  private letRun(order: readonly number[]): void {
    for (const t of order) {
      this.tell({ kind: 'run', train: this.model.trains[t]!.id, on: true });
      this.pass(AFTERMATH_TICKS);
    }
  }

  /** Whether no train gets anywhere though all are told to go: past a signal, into points set against it, or where something else notices it. */
  standsStill(): boolean {
    const { fields, pieces } = this.model.system.partition;
    const bodies = this.run.plant.trains.flatMap((train) => (train.off ? [] : train.body()));
    const sections = new Set(bodies.map(({ piece }) => pieces[piece]!.section));
    /** A train is noticed again in the section in which it stands as soon as it has current. */
    const isElsewhere = (field: number) => !sections.has(fields.all[field]!.section ?? -1);
    for (const train of this.model.trains) this.tell({ kind: 'run', train: train.id, on: true });
    let goneOn = false;
    for (let i = 0; i < STANDSTILL_TICKS && !goneOn; i++)
      this.step((event) => {
        const noticed = event.kind === 'sensor' && event.on && isElsewhere(event.field);
        goneOn ||= event.kind === 'passes' || event.kind === 'mishap' || noticed;
      });
    return !goneOn;
  }

  outcome(confirmed: boolean): Steered {
    const [instead] = [...this.met].filter((hazard) => hazard !== this.property);
    return {
      seed: SEED,
      commands: this.commands,
      ticks: this.run.tick,
      confirmed,
      ...(!confirmed && instead && this.property !== 'deadlock' && { instead }),
    };
  }
}
