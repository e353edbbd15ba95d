import type { RollingTrain } from '../plant';
import type { Command, HazardId, Rehearsal, TimedCommand } from '../simulation';
import { type CounterexampleStep, type Deed, tellCounterexample } from './counterexample';
import { Driven } from './driven';
import type { Explorer, Failure } from './explore';
import { isTrial, type JustBefore, justBefore, type Timing, timingsOf } from './just-before';
import type { ProofModel } from './model/model';
import { STARTS_AT } from './model/placement';
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

/** Where a train is in a counterexample: from which running distance of its nose on, and how long, in mm. */
export interface Stretch {
  from: number;
  longMm: number;
}

/** A rehearsal in which a counterexample is played, and what each kind of move needs to be played in it. */
export interface Steering {
  run: Rehearsal;
  model: ProofModel;
  counterexample: CounterexampleStep[];
  /** The stretch of its placement in which each train is, by its number. */
  stretches: Map<number, Stretch>;
  /** Where in a placement a train waits, as a share of it; or it does not wait but runs on. */
  waitsAt: number;
  runsOn: boolean;
  /** Something happens just before a train comes by, which is not to come to it sooner. */
  before: JustBefore | undefined;
  /** False when the rehearsal refuses. */
  tell(command: Command): boolean;
  /** Lets time pass until something is so, or has not come to be for long. */
  until(done: () => boolean): boolean;
  rolling(train: number): RollingTrain;
}

/** Trains are driven on one after another in every order of so many, and in turns of more. */
const MOST_IN_EVERY_ORDER = 3;

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

/** How trains go on after the last step: first those that it speaks of, and then all in some order, or one of the two. */
interface Ending {
  goesOn: boolean;
  order?: readonly number[];
}

/** One try: how trains are driven through the steps, and how they go on after the last. */
interface Try extends Ending {
  waitsAt: number;
  runsOn: boolean;
  /** Something happens just before a train comes by, and is timed so. */
  timing?: Timing;
}

/** So much is tried for one thing that can happen, in ticks of rehearsals: a few seconds where much stands on the layout. */
const MOST_TICKS = 600_000;
/** What is left of that. */
interface Budget {
  ticks: number;
}

/** Of several ways to a hazard, by number: the first along which a rehearsal comes to it, or else the first, with the run that does not. */
export function steerAlong(
  explorer: Explorer,
  property: Property,
  ways: readonly Failure[],
): { nth: number; run: Steered } {
  const { model } = explorer;
  const all = ways.map(({ from, move }, nth) => ({ nth, told: tellCounterexample(explorer, from, move) }));
  let first: { nth: number; run: Steered } | undefined;
  const endings = endingsFor(model.trains.length);
  const [quick, thorough] = [endings.slice(0, 1), endings.slice(1)];
  const budget = { ticks: MOST_TICKS };
  for (const [some, endings] of [
    [all, quick],
    [all.slice(0, 1), thorough],
  ] as const)
    for (const { nth, told } of some) {
      const run = steerCounterexample(model, property, told, endings, budget);
      first ??= { nth, run };
      if (run.confirmed) return { nth, run };
    }
  return first!;
}

/** Plays a counterexample in the rehearsal, step by step, in one way after another until it comes to its hazard. */
export function steerCounterexample(
  model: ProofModel,
  property: Property,
  counterexample: CounterexampleStep[],
  endings: readonly Ending[] = endingsFor(model.trains.length),
  budget: Budget = { ticks: MOST_TICKS },
): Steered {
  const steer = (one: Try) => {
    const tried = steerOnce(model, property, counterexample, one);
    budget.ticks -= tried.driven.run.tick;
    return tried;
  };
  let first: Steered | undefined;
  const before = justBefore(model, counterexample);
  for (const ending of endings)
    for (const way of WAYS_TO_DRIVE) {
      const { outcome } = steer({ ...way, ...ending });
      first ??= outcome;
      if (outcome.confirmed) return outcome;
      if (budget.ticks <= 0) return first;
      if (!before || way.runsOn) continue;
      for (const timing of timingsOf(before, (timing) => steer({ ...way, ...ending, timing }).driven)) {
        const { outcome } = steer({ ...way, ...ending, timing });
        if (outcome.confirmed) return outcome;
      }
    }
  return first!;
}

/** How so many trains go on after the last step. */
function endingsFor(trains: number): Ending[] {
  const orders = ordersOf(trains);
  const inOrder = (goesOn: boolean) => orders.map((order) => ({ goesOn, order }));
  return [{ goesOn: true }, ...inOrder(false), ...inOrder(true)];
}

/** Orders in which they do. */
function ordersOf(trains: number): number[][] {
  const all = [...Array(trains).keys()];
  if (trains > MOST_IN_EVERY_ORDER) return all.map((first) => [...all.slice(first), ...all.slice(0, first)]);
  const from = (rest: number[]): number[][] =>
    rest.length === 0 ? [[]] : rest.flatMap((one) => from(rest.filter((t) => t !== one)).map((on) => [one, ...on]));
  return from(all);
}

function steerOnce(
  model: ProofModel,
  property: Property,
  counterexample: CounterexampleStep[],
  { waitsAt, runsOn, goesOn, order, timing }: Try,
): { outcome: Steered; driven: Driven } {
  const driven = new Driven(model, property);
  const { run, tell, until, rolling } = driven;
  const stretches = new Map(
    model.trains.map(({ leadMm, longMm }, t) => [t, { from: rolling(t).head + leadMm, longMm: longMm(STARTS_AT) }]),
  );
  const steering: Steering = {
    run,
    model,
    counterexample,
    stretches,
    waitsAt,
    runsOn,
    before: timing?.before,
    tell,
    until,
    rolling,
  };
  for (const [nth, { deeds }] of counterexample.entries()) {
    if (driven.isThere) break;
    const begin = (chosen: readonly Deed[]) => chosen.map((deed) => MOVES[deed.kind]!.steer(steering, deed, nth));
    const others = () =>
      begin(deeds.filter(({ kind, index }) => !(MOVES[kind]!.movesOn && index === timing?.before.train)));
    const done =
      timing?.before.step === nth ? driven.timed(timing, stretches.get(timing.before.train)!, others) : begin(deeds);
    if (done.some((one) => one === undefined)) break;
    if (timing?.before.step === nth && isTrial(timing)) return { outcome: driven.outcome(driven.isThere), driven };
    if (!until(() => done.every((one) => one!())) && !deeds.some(({ kind }) => MOVES[kind]!.passesBy)) break;
  }
  if (property === 'deadlock') return { outcome: driven.outcome(driven.standsStill()), driven };
  if (goesOn) driven.goOn(counterexample[counterexample.length - 1]?.deeds ?? []);
  if (order) driven.goOnInOrder(order, stretches);
  return { outcome: driven.outcome(driven.isThere), driven };
}
