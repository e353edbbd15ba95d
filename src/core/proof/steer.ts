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
import type { LayoutDocument } from '../survey';
import { type ProofModel, STANDING_TICKS } from './model';
import { MOVES } from './moves';
import type { Property } from './prove';
import type { Deed, StoryStep } from './story';

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
export function steerStory(
  document: LayoutDocument,
  model: ProofModel,
  property: Property,
  story: StoryStep[],
): Steered {
  const tried = WAYS_TO_DRIVE.map((way) => () => steerOnce(document, model, property, story, way));
  const first = tried[0]!();
  for (let i = 1, last = first; !last.confirmed && property !== 'deadlock' && i < tried.length; i++) {
    last = tried[i]!();
    if (last.confirmed) return last;
  }
  return first;
}

function steerOnce(
  document: LayoutDocument,
  model: ProofModel,
  property: Property,
  story: StoryStep[],
  { waitsAt, runsOn }: (typeof WAYS_TO_DRIVE)[number],
): Steered {
  const run = new Rehearsal(document, SEED);
  const commands: TimedCommand[] = [];
  const met = new Set<HarmId>();
  const sink = (event: RehearsalEvent) => {
    const harm = harmOfEvent(event);
    if (harm) met.add(harm);
  };
  const step = () => {
    run.step(sink);
    for (const harm of harmsNow(run)) met.add(harm);
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
  /** Running distance of each train’s nose at which the placement begins that the story has it in. */
  const due = new Map<number, number>();

  /** Begins a deed; returns what tells that it is done, or undefined when it cannot be. */
  const begin = (deed: Deed, nth: number): (() => boolean) | undefined => {
    const { index } = deed;
    switch (MOVES[deed.kind]!.name) {
      case 'goes on': {
        const train = rolling(index);
        const begins = (due.get(index) ?? train.head + model.trains[index]!.leadMm) + deed.runMm;
        due.set(index, begins);
        const goal = begins + waitsAt * deed.longMm;
        /** One that will pass a signal at stop must not stop before. */
        let beyond = 0;
        for (const { deeds } of story.slice(nth + 1)) {
          const own = deeds.find((d) => d.kind === deed.kind && d.index === index);
          if (own && !own.late && !runsOn) break;
          if (own) beyond += own.runMm + own.longMm;
        }
        tell({ kind: 'draw up', train: model.trains[index]!.id, mm: Math.max(1, goal + beyond - train.head) });
        return () => train.head >= goal - 1 || !train.running || train.stranded;
      }
      case 'timer ends': {
        const { name } = model.rules.wiring.compiled.timerRules[index]!;
        const before = run.evaluator.valueOf(name);
        return () => run.evaluator.valueOf(name) !== before;
      }
      case 'points are asked for': {
        const { id } = document.turnouts[index]!;
        tell({ kind: 'throw', turnout: id, to: deed.choice === 1 ? 'diverging' : 'straight' });
        const from = run.tick;
        return () => run.tick >= from + 2;
      }
      case 'points arrive':
        return () => run.plant.motors[index]!.position !== 'between';
      case 'turns back': {
        const train = rolling(index);
        tell({ kind: 'run', train: model.trains[index]!.id, on: false });
        if (!until(() => train.speed === 0)) return undefined;
        if (!tell({ kind: 'turn back', train: model.trains[index]!.id })) return undefined;
        due.set(index, train.head - waitsAt * deed.longMm);
        return () => true;
      }
      case 'comes to a stand': {
        tell({ kind: 'run', train: model.trains[index]!.id, on: false });
        return () => rolling(index).speed === 0;
      }
      case 'is held by hand': {
        const { id } = model.scheme.readings[index]!.signal;
        tell({ kind: 'hold', signal: id, on: deed.choice === 1 });
        return () => true;
      }
      default:
        return undefined;
    }
  };

  for (const [nth, { deeds }] of story.entries()) {
    if (reached()) break;
    const done = deeds.map((deed) => begin(deed, nth));
    if (done.some((one) => one === undefined)) break;
    const timed = deeds.some(({ kind }) => MOVES[kind]!.name === 'timer ends');
    if (!until(() => done.every((one) => one!())) && !timed) break;
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
    if (MOVES[kind]!.name === 'goes on' && !reached()) tell({ kind: 'run', train: model.trains[index]!.id, on: true });
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
