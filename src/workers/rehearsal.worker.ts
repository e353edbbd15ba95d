import { expose } from 'comlink';
import { type FaultChoice, faultsAbout } from '@/core/faults';
import type { Explanation } from '@/core/logic';
import {
  type Beat,
  type Command,
  explainRun,
  frameOf,
  PathRecorder,
  type Recording,
  Rehearsal,
  type RehearsalEvent,
  type RehearsalFrame,
  type RunSummary,
  SAMPLE_TICKS,
  type Sample,
  type SharedCommand,
  type SpokenEvent,
  spokenEvent,
  summariseRun,
  TICK_MS,
} from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem, type System } from '@/core/system';
import { type Drawing, straighten } from '@/core/track';

/** What the page is told: the present moment, and what came since the last report. */
export interface Report {
  frame: RehearsalFrame;
  samples: Sample[];
  events: SpokenEvent[];
  hash: string;
  /** The number that the page gave this course. */
  course: number;
  notPlaced: string[];
  /** The farthest moment of this course; the present one may have been wound back before it. */
  reached: number;
  /** Commands that were given later in this course and will be given again. */
  toCome: number;
  /** The course has changed: what was after this moment is no longer so. */
  forgetAfter?: number;
}

const MOST_TICKS_A_SLICE = 400;
const REPORT_MS = 33;
/** Winding goes on in slices of this many ticks, so that a later wish can take over. */
const WIND_SLICE = 10_000;

let rehearsal: Rehearsal | undefined;
let recorder: PathRecorder | undefined;
/** Every command of this course, in order, and how many of them have been given by now. */
let commands: SharedCommand[] = [];
let given = 0;
/** How many of them have been told of, when they were first given. */
let heard = 0;
let reached = 0;
let course = 0;
let winding = 0;
let summing = 0;
let speed = 0;
let owed = 0;
let last = 0;
let timer: ReturnType<typeof setInterval> | undefined;
let pending: Pick<Report, 'samples' | 'events' | 'forgetAfter'> = { samples: [], events: [] };
let listener: MessagePort | undefined;
/** Who one is in a run that is shared; why what was told last cannot be done; and what is still to be reckoned of it. */
let me: string | undefined;
let refused: string | undefined;
let following: Promise<unknown> = Promise.resolve();

function step(run: Rehearsal): void {
  const isNew = run.tick >= reached;
  const hear = isNew ? (event: RehearsalEvent) => keep(run, event) : undefined;
  giveWhatIsDue(run, hear);
  run.step(hear);
  if (!isNew) return;
  reached = run.tick;
  if (run.tick % SAMPLE_TICKS === 0) pending.samples.push(recorder!.sample());
}

/** Commands of this course whose moment has come; of the own ones in a run that is shared it is kept why the last was refused. */
function giveWhatIsDue(run: Rehearsal, hear: ((event: RehearsalEvent) => void) | undefined): void {
  for (; given < commands.length && commands[given]!.tick <= run.tick; given++) {
    const { command, by } = commands[given]!;
    const problem = run.command(command, given >= heard ? hear : undefined);
    if (given >= heard && by !== undefined && by === me) refused = problem;
  }
  heard = Math.max(heard, given);
}

function keep(run: Rehearsal, event: RehearsalEvent): void {
  const spoken = spokenEvent(run, event);
  if (spoken) pending.events.push(spoken);
}

function report(): void {
  if (!rehearsal || !listener) return;
  const now = pending;
  pending = { samples: [], events: [] };
  const told: Report = {
    ...now,
    frame: frameOf(rehearsal),
    hash: rehearsal.traceHash,
    course,
    notPlaced: rehearsal.plant.notPlaced.map((p) => p.problem),
    reached,
    toCome: commands.length - given,
  };
  listener.postMessage(told);
}

function beat(): void {
  const now = performance.now();
  owed += ((now - last) * speed) / TICK_MS;
  last = now;
  const ticks = Math.min(Math.floor(owed), MOST_TICKS_A_SLICE);
  owed = ticks === MOST_TICKS_A_SLICE ? 0 : owed - ticks;
  if (ticks === 0 || !rehearsal) return;
  for (let i = 0; i < ticks; i++) step(rehearsal);
  report();
}

/** What is rehearsed, and the sheet on which its places are told. */
interface Rehearsed {
  system: System;
  drawing: Drawing;
}
let rehearsed: Rehearsed | undefined;

function begin({ system, drawing }: Rehearsed, seed: number): void {
  rehearsal = new Rehearsal(system, seed);
  recorder = new PathRecorder(rehearsal, drawing);
  given = 0;
}

async function follow({ tick, commands: told }: Pick<Beat, 'tick' | 'commands'>, by: string, number: number) {
  if (!rehearsal || number !== course) return undefined;
  const run = rehearsal;
  me = by;
  refused = undefined;
  commands = [...commands, ...told];
  giveWhatIsDue(run, (event) => keep(run, event));
  while (run.tick < tick) {
    for (let i = 0; i < WIND_SLICE && run.tick < tick; i++) step(run);
    report();
    if (run.tick < tick) await new Promise((resolve) => setTimeout(resolve, 0));
    if (number !== course) return undefined;
  }
  giveWhatIsDue(run, (event) => keep(run, event));
  report();
  return refused;
}

/** Runs a rehearsal in real time or faster; the page only asks and listens. */
const worker = {
  /** Reports are told on that line. */
  listen(to: MessagePort): void {
    listener = to;
  },
  /** Begins a course; with a recording, one that has been run before, up to its end. */
  async begin(number: number, document: LayoutDocument, seed: number, recording?: Recording): Promise<void> {
    winding += 1;
    course = number;
    rehearsed = { system: compileSystem(document), drawing: straighten(document) };
    begin(rehearsed, seed);
    commands = recording ? [...recording.commands] : [];
    heard = 0;
    reached = 0;
    pending = { samples: [recorder!.sample()], events: [], forgetAfter: -1 };
    report();
    if (recording) await worker.wind(recording.ticks);
  },
  /** Goes on with a run that is shared as far as it was told, and no farther; why something that `by` told cannot be done. */
  follow(beat: Pick<Beat, 'tick' | 'commands'>, by: string, number: number): Promise<string | undefined> {
    const done = following.then(() => follow(beat, by, number));
    following = done;
    return done;
  },
  play(times: number): void {
    speed = times;
    last = performance.now();
    owed = 0;
    if (timer) clearInterval(timer);
    timer = times > 0 ? setInterval(beat, REPORT_MS) : undefined;
  },
  step(ticks: number): void {
    for (let i = 0; rehearsal && i < ticks; i++) step(rehearsal);
    report();
  },
  /** Goes to any moment: back by running the course anew up to it, which is exact. A later wish takes over. */
  async wind(tick: number): Promise<void> {
    if (!rehearsal) return;
    const mine = ++winding;
    worker.play(0);
    if (tick < rehearsal.tick) begin(rehearsed!, rehearsal.seed);
    while (rehearsal.tick < tick) {
      for (let i = 0; i < WIND_SLICE && rehearsal.tick < tick; i++) step(rehearsal);
      report();
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (mine !== winding) return;
    }
    report();
  },
  command(command: Command): string | undefined {
    if (!rehearsal) return 'Nothing runs yet.';
    const problem = rehearsal.command(command, (event) => keep(rehearsal!, event));
    if (!problem) {
      if (rehearsal.tick < reached) pending.forgetAfter = rehearsal.tick;
      commands = [...commands.slice(0, given), { tick: rehearsal.tick, command }];
      given = commands.length;
      heard = given;
      reached = rehearsal.tick;
    }
    report();
    return problem;
  },
  /** What a server needs to run the same again, up to the present moment. */
  recording(): Recording & { hash: string } {
    return {
      seed: rehearsal?.seed ?? 0,
      ticks: rehearsal?.tick ?? 0,
      commands: commands.slice(0, given).map(({ tick, command }) => ({ tick, command })),
      hash: rehearsal?.traceHash ?? '',
    };
  },
  /**
   * Runs a whole recording aside, for comparing, and says from time to time up to which tick. Undefined when it was stopped
   * or another summary was asked for.
   */
  async summarise(
    document: LayoutDocument,
    recording: Recording,
    reached: (ticks: number) => void,
  ): Promise<RunSummary | undefined> {
    const mine = ++summing;
    const summary = summariseRun(compileSystem(document), straighten(document), recording);
    for (;;) {
      const step = summary.next();
      if (step.done) return step.value;
      reached(step.value);
      await new Promise((resolve) => setTimeout(resolve, 0));
      if (mine !== summing) return undefined;
    }
  },
  stopSummary(): void {
    summing += 1;
  },
  /** In which ways a thing can fail, and of those whether it is known what comes of each. */
  faultsAbout(id: string): FaultChoice[] {
    return rehearsed ? faultsAbout(rehearsed.system, id) : [];
  },
  /** Why a name of the rules has its present value. */
  explain(rule: string): Explanation | undefined {
    return rehearsal && explainRun(rehearsal, rule);
  },
};

export type RehearsalWorker = typeof worker;
expose(worker);
