import type { RollingTrain } from '../plant';
import {
  type Command,
  type HarmId,
  harmOfEvent,
  harmsNow,
  Rehearsal,
  type RehearsalEvent,
  stanceNow,
  type TimedCommand,
} from '../simulation';
import type { ProofModel } from './model';
import { MOVES } from './moves';
import type { Property } from './prove';
import { STANDING_TICKS } from './standing-start';
import type { StoryStep } from './story';

/** A story as a run of the rehearsal. */
export interface Steered {
  seed: number;
  commands: TimedCommand[];
  ticks: number;
  /** Whether the rehearsal came to the very harm that the story tells of; if not, the story is possible but not confirmed. */
  confirmed: boolean;
  /** Another harm that it came to first. */
  instead?: HarmId;
}

/** A rehearsal in which a story is played, and what each kind of move needs to be played in it. */
export interface Steering {
  run: Rehearsal;
  model: ProofModel;
  story: StoryStep[];
  /** Running distance of each train’s nose at which the placement begins that the story has it in. */
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
/** After the last step the harm may still be a little way ahead. */
const AFTERMATH_TICKS = 3000;
const SEED = 1;

/**
 * How trains are driven through a story. Of a stretch in which nothing is noticed, a train waits in the middle, at the end or at
 * the beginning; or it does not wait at all but runs on, and what is done by others is done as it comes by.
 */
const WAYS_TO_DRIVE = [
  { waitsAt: 0.5, runsOn: false },
  { waitsAt: 0.97, runsOn: false },
  { waitsAt: 0.03, runsOn: false },
  { waitsAt: 0.97, runsOn: true },
  { waitsAt: 0.5, runsOn: true },
];

/** Plays a story in the rehearsal, step by step, in one way after another until it comes to its harm. */
export function steerStory(model: ProofModel, property: Property, story: StoryStep[]): Steered {
  const tried = WAYS_TO_DRIVE.map((way) => () => steerOnce(model, property, story, way));
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
  story: StoryStep[],
  { waitsAt, runsOn }: (typeof WAYS_TO_DRIVE)[number],
): Steered {
  const run = new Rehearsal(model.system, SEED);
  const commands: TimedCommand[] = [];
  const met = new Set<HarmId>();
  const sink = (event: RehearsalEvent) => {
    const harm = harmOfEvent(event);
    if (harm) met.add(harm);
  };
  const step = () => {
    run.step(sink);
    for (const { id } of harmsNow(run)) met.add(id);
  };
  const reached = () => met.has(property as HarmId);
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

  const steering: Steering = { run, model, story, due, waitsAt, runsOn, tell, until, rolling };
  for (const [nth, { deeds }] of story.entries()) {
    if (reached()) break;
    const done = deeds.map((deed) => MOVES[deed.kind]!.steer(steering, deed, nth));
    if (done.some((one) => one === undefined)) break;
    if (!until(() => done.every((one) => one!())) && !deeds.some(({ kind }) => MOVES[kind]!.passesBy)) break;
  }
  if (property === 'deadlock') {
    const blocks = () => run.plant.trains.map((train) => JSON.stringify(stanceNow(run, train).blocks)).join();
    for (const train of model.trains) tell({ kind: 'run', train: train.id, on: true });
    const before = blocks();
    for (let i = 0; i < STANDSTILL_TICKS; i++) step();
    return { seed: SEED, commands, ticks: run.tick, confirmed: blocks() === before };
  }
  /** Those the story speaks of last go on of themselves. */
  for (const { kind, index } of story[story.length - 1]?.deeds ?? [])
    if (MOVES[kind]!.movesOn && !reached()) tell({ kind: 'run', train: model.trains[index]!.id, on: true });
  for (let i = 0; i < AFTERMATH_TICKS && !reached(); i++) step();
  if (story.length === 0)
    for (const { id } of model.trains) {
      tell({ kind: 'run', train: id, on: true });
      for (let i = 0; i < AFTERMATH_TICKS && !reached(); i++) step();
    }
  const [instead] = [...met].filter((harm) => harm !== property);
  return {
    seed: SEED,
    commands,
    ticks: run.tick,
    confirmed: reached(),
    ...(!reached() && instead && { instead }),
  };
}
