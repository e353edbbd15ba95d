import type { RollingTrain } from '../plant';
import {
  type Command,
  footprintNow,
  type HazardId,
  hazardOfEvent,
  hazardsNow,
  Rehearsal,
  type RehearsalEvent,
  type TimedCommand,
} from '../simulation';
import type { CounterexampleStep } from './counterexample';
import type { ProofModel } from './model/model';
import { STANDING_TICKS } from './model/standing-start';
import { MOVES } from './moves';
import type { Property } from './prove';

/** A counterexample as a run of the rehearsal. */
export interface Steered {
  seed: number;
  commands: TimedCommand[];
  ticks: number;
  /** Whether the rehearsal came to the very hazard that the counterexample tells of; if not, the counterexample is possible but not confirmed. */
  confirmed: boolean;
  /** Another hazard that it came to first. */
  instead?: HazardId;
}

/** A rehearsal in which a counterexample is played, and what each kind of move needs to be played in it. */
export interface Steering {
  run: Rehearsal;
  model: ProofModel;
  counterexample: CounterexampleStep[];
  /** Running distance of each train’s nose at which the placement begins that the counterexample has it in. */
  due: Map<number, number>;
  /** Where in a placement a train waits, as a share of it; or it does not wait but runs on. */
  waitsAt: number;
  runsOn: boolean;
  /** False when the rehearsal refuses. */
  tell(command: Command): boolean;
  /** Lets time pass until something is so, or has not come to be for long. */
  until(done: () => boolean): boolean;
  rolling(train: number): RollingTrain;
}

/** A step that the rehearsal has not taken within a minute will not be taken. */
const MOST_TICKS_A_STEP = 3000;
/** A standstill is confirmed when no train leaves its block for this long though every one is told to go. */
const STANDSTILL_TICKS = 3000;
/** After the last step the hazard may still be a little way ahead. */
const AFTERMATH_TICKS = 3000;
const SEED = 1;

/**
 * How trains are driven through a counterexample. Of a stretch in which nothing is noticed, a train waits in the middle, at the end or at
 * the beginning; or it does not wait at all but runs on, and what is done by others is done as it comes by.
 */
const WAYS_TO_DRIVE = [
  { waitsAt: 0.5, runsOn: false },
  { waitsAt: 0.97, runsOn: false },
  { waitsAt: 0.03, runsOn: false },
  { waitsAt: 0.97, runsOn: true },
  { waitsAt: 0.5, runsOn: true },
];

/** Plays a counterexample in the rehearsal, step by step, in one way after another until it comes to its hazard. */
export function steerCounterexample(
  model: ProofModel,
  property: Property,
  counterexample: CounterexampleStep[],
): Steered {
  const tried = WAYS_TO_DRIVE.map((way) => () => steerOnce(model, property, counterexample, way));
  const first = tried[0]!();
  for (let i = 1, last = first; !last.confirmed && property !== 'deadlock' && i < tried.length; i++) {
    last = tried[i]!();
    if (last.confirmed) return last;
  }
  return first;
}

function steerOnce(
  model: ProofModel,
  property: Property,
  counterexample: CounterexampleStep[],
  { waitsAt, runsOn }: (typeof WAYS_TO_DRIVE)[number],
): Steered {
  const run = new Rehearsal(model.system, SEED);
  const commands: TimedCommand[] = [];
  const met = new Set<HazardId>();
  const sink = (event: RehearsalEvent) => {
    const hazard = hazardOfEvent(event);
    if (hazard) met.add(hazard);
  };
  const step = () => {
    run.step(sink);
    for (const { id } of hazardsNow(run)) met.add(id);
  };
  const reached = () => met.has(property as HazardId);
  const tell = (command: Command) => {
    const problem = run.command(command);
    if (problem === undefined) commands.push({ tick: run.tick, command });
    return problem === undefined;
  };
  const until = (done: () => boolean): boolean => {
    for (let i = 0; i < MOST_TICKS_A_STEP && !reached(); i++) {
      if (done()) return true;
      step();
    }
    return reached() || done();
  };
  const rolling = (train: number) => run.plant.trains.find((t) => t.figures.id === model.trains[train]!.id)!;

  for (const train of model.trains) tell({ kind: 'run', train: train.id, on: false });
  for (let i = 0; i < STANDING_TICKS && !reached(); i++) step();
  const due = new Map<number, number>();

  const steering: Steering = { run, model, counterexample, due, waitsAt, runsOn, tell, until, rolling };
  for (const [nth, { deeds }] of counterexample.entries()) {
    if (reached()) break;
    const done = deeds.map((deed) => MOVES[deed.kind]!.steer(steering, deed, nth));
    if (done.some((one) => one === undefined)) break;
    if (!until(() => done.every((one) => one!())) && !deeds.some(({ kind }) => MOVES[kind]!.passesBy)) break;
  }
  if (property === 'deadlock') {
    const blocks = () => run.plant.trains.map((train) => JSON.stringify(footprintNow(run, train).blocks)).join();
    for (const train of model.trains) tell({ kind: 'run', train: train.id, on: true });
    const before = blocks();
    for (let i = 0; i < STANDSTILL_TICKS; i++) step();
    return { seed: SEED, commands, ticks: run.tick, confirmed: blocks() === before };
  }
  /** Those the counterexample speaks of last go on of themselves. */
  for (const { kind, index } of counterexample[counterexample.length - 1]?.deeds ?? [])
    if (MOVES[kind]!.movesOn && !reached()) tell({ kind: 'run', train: model.trains[index]!.id, on: true });
  for (let i = 0; i < AFTERMATH_TICKS && !reached(); i++) step();
  if (counterexample.length === 0)
    for (const { id } of model.trains) {
      tell({ kind: 'run', train: id, on: true });
      for (let i = 0; i < AFTERMATH_TICKS && !reached(); i++) step();
    }
  const [instead] = [...met].filter((hazard) => hazard !== property);
  return {
    seed: SEED,
    commands,
    ticks: run.tick,
    confirmed: reached(),
    ...(!reached() && instead && { instead }),
  };
}
