import { type CounterexampleStep, ProofRun, type Switch, standingStart } from '../proof';
import { type HazardId, hazardOfEvent, type Rehearsal, TICK_MS } from '../simulation';
import type { Design } from './check-design';
import { readStanding, type Standing, standingInProof, standingInRun, waitingPlaces } from './waiting-places';

/** More states than this are not looked at: it is said that more are left. */
const MOST_STATES = 40_000;
const STATES_A_STEP = 500;
/** Only trains, timers and motors move; two things may fall into one scan. */
const TRIED: ReadonlySet<Switch> = new Set<Switch>(['one scan']);

/** One way in which trains can wait, and what can come after it. */
export interface CycleStep extends Standing {
  /** Numbers of steps, in the order in which they were found. */
  next: number[];
}

/** All that trains come to by themselves, whatever the order of their moves, once those that wait for a pulse have had one. */
export interface Cycle {
  /** The first is how they begin. */
  steps: CycleStep[];
  states: number;
  finished: boolean;
  /** The shortest way to where trains touch, and to where no train can ever get anywhere again. */
  hit: CounterexampleStep[] | undefined;
  stuck: CounterexampleStep[] | undefined;
  /** What else can go wrong. */
  hazards: HazardId[];
}

/** Explores what trains do by themselves. Yields how far it is at most, from 0 to 1. Throws RuleProgramError when the rules cannot be compiled. */
export function* exploreCycle(design: Design, mostStates = MOST_STATES): Generator<number, Cycle> {
  const { system } = design;
  const run = new ProofRun(system, mostStates, TRIED, true);
  const { explorer } = run;
  const textOf = standingInProof(system, waitingPlaces(design));
  const numbers = new Map<string, number>();
  const next: Set<number>[] = [];
  const numberOf = (text: string): number => {
    const known = numbers.get(text);
    if (known !== undefined) return known;
    numbers.set(text, next.length);
    next.push(new Set());
    return next.length - 1;
  };
  let from = numberOf(textOf(explorer.model));
  explorer.watch = {
    from: (model) => {
      from = numberOf(textOf(model));
    },
    to: (model) => {
      const to = numberOf(textOf(model));
      if (to !== from) next[from]!.add(to);
    },
  };
  while (!run.step(STATES_A_STEP)) yield Math.min(1, explorer.states / mostStates);
  const { verdicts, finished } = run.result();
  const storyOf = (property: string) => verdicts.find((one) => one.property === property)?.counterexample;
  const trains = explorer.model.trains.length;
  return {
    steps: [...numbers].map(([text, nth]) => ({ ...readStanding(text, trains), next: [...next[nth]!] })),
    states: explorer.states,
    finished,
    hit: storyOf('trains touch'),
    stuck: storyOf('deadlock'),
    hazards: [...explorer.hazards.keys()].filter((hazard) => hazard !== 'trains touch'),
  };
}

/** Steps that come again for ever, once each, in order; undefined where trains come to a stand, or where it is open which step comes next. */
export function roundOf({ steps }: Pick<Cycle, 'steps'>): number[] | undefined {
  const seen: number[] = [];
  for (let at = 0; !seen.includes(at); ) {
    const { next } = steps[at]!;
    if (next.length !== 1) return undefined;
    seen.push(at);
    at = next[0]!;
    if (seen.includes(at)) return seen.slice(seen.indexOf(at));
  }
  return undefined;
}

/** What a rehearsal came to: trains still run, none has run for a long time, or two have touched; and the steps that it passed, with how long each lasted. */
export interface Rehearsed {
  ends: 'runs' | 'waits' | 'hit';
  afterS: number;
  passed: (Standing & { ms: number })[];
}

/** No train has moved for so long. */
const WAITS_TICKS = 90_000 / TICK_MS;
/** What lasts no longer is on its way to what comes next: rules, sensors and trains do not change within one moment. */
const PASSES_BY_TICKS = 10;

/** Between two reports. */
const REPORT_TICKS = 3000;

/** Trains run by themselves for some minutes, from where the exploration begins. Yields how far it is, from 0 to 1. */
export function* rehearsing(design: Design, seed: number, minutes: number): Generator<number, Rehearsed> {
  const { system } = design;
  const { start: run } = standingStart(system, { pulsed: true, seed });
  for (const train of run.plant.trains) train.running = true;
  const textOf = standingInRun(system, waitingPlaces(design));
  const passed: { text: string; ticks: number }[] = [];
  const began = run.tick;
  let [moved, hit] = [run.tick, false];
  const until = run.tick + (minutes * 60_000) / TICK_MS;
  while (run.tick < until && !hit) {
    run.step((event) => {
      hit ||= hazardOfEvent(event) === 'trains touch';
    });
    if (isMoving(run)) moved = run.tick;
    else if (run.tick - moved > WAITS_TICKS) break;
    if (run.tick % REPORT_TICKS === 0) yield (run.tick - began) / (until - began);
    const text = textOf(run);
    const last = passed.at(-1);
    if (last?.text === text) last.ticks += 1;
    else passed.push({ text, ticks: 1 });
  }
  const trains = run.plant.trains.length;
  return {
    ends: hit ? 'hit' : run.tick - moved > WAITS_TICKS ? 'waits' : 'runs',
    afterS: ((hit ? run.tick : moved) - began) * (TICK_MS / 1000),
    passed: joined(passed.filter(({ ticks }, nth) => ticks > PASSES_BY_TICKS || nth === 0)).map(({ text, ticks }) => ({
      ...readStanding(text, trains),
      ms: ticks * TICK_MS,
    })),
  };
}

/** The same as a whole. */
export function rehearseCycle(design: Design, seed: number, minutes: number): Rehearsed {
  const work = rehearsing(design, seed, minutes);
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}

const isMoving = ({ plant }: Rehearsal): boolean => plant.trains.some(({ speed }) => speed > 0);

function joined(all: readonly { text: string; ticks: number }[]): { text: string; ticks: number }[] {
  const found: { text: string; ticks: number }[] = [];
  for (const { text, ticks } of all) {
    const last = found.at(-1);
    if (last?.text === text) last.ticks += ticks;
    else found.push({ text, ticks });
  }
  return found;
}

/** A round that a rehearsal has come into: its steps in order, each with how long it lasts. Undefined where what it passed last does not come again. */
export function timedRound({ passed }: Rehearsed): Rehearsed['passed'] | undefined {
  /** What it was in when it was ended may have been cut short. */
  const all = passed.slice(0, -1);
  const textOf = ({ trains, turns }: Standing) => JSON.stringify([trains, turns]);
  const texts = all.map(textOf);
  for (let period = 1; period * 2 <= texts.length; period++) {
    const again = texts.slice(-period);
    if (again.some((text, i) => text !== texts[texts.length - 2 * period + i])) continue;
    return all.slice(-period);
  }
  return undefined;
}
