import { expose } from 'comlink';
import {
  type Command,
  frameOf,
  isMishap,
  PathRecorder,
  type PathSample,
  Rehearsal,
  type RehearsalFrame,
  SAMPLE_TICKS,
  sayEvent,
  TICK_MS,
  type TimedCommand,
} from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';

export interface SpokenEvent {
  tick: number;
  says: string;
  bad: boolean;
}

/** What the page is told: the present moment, and what came since the last report. */
export interface Report {
  frame: RehearsalFrame;
  samples: PathSample[][];
  events: SpokenEvent[];
  hash: string;
  notPlaced: string[];
}

const MOST_TICKS_A_SLICE = 400;
const REPORT_MS = 33;

let rehearsal: Rehearsal | undefined;
let recorder: PathRecorder | undefined;
let commands: TimedCommand[] = [];
let speed = 0;
let owed = 0;
let last = 0;
let timer: ReturnType<typeof setInterval> | undefined;
let pending: Pick<Report, 'samples' | 'events'> = { samples: [], events: [] };
let listener: ((report: Report) => void) | undefined;

function advance(ticks: number): void {
  const run = rehearsal;
  if (!run || !recorder) return;
  for (let i = 0; i < ticks; i++) {
    run.step((event) => {
      const says = sayEvent(run, event);
      if (says) pending.events.push({ tick: run.tick, says, bad: isMishap(event) });
    });
    if (run.tick % SAMPLE_TICKS === 0) pending.samples.push(recorder.sample());
  }
}

function report(): void {
  if (!rehearsal || !listener) return;
  const { samples, events } = pending;
  pending = { samples: [], events: [] };
  listener({
    frame: frameOf(rehearsal),
    samples,
    events,
    hash: rehearsal.traceHash,
    notPlaced: rehearsal.plant.notPlaced.map((p) => p.problem),
  });
}

function beat(): void {
  const now = performance.now();
  owed += ((now - last) * speed) / TICK_MS;
  last = now;
  const ticks = Math.min(Math.floor(owed), MOST_TICKS_A_SLICE);
  owed = ticks === MOST_TICKS_A_SLICE ? 0 : owed - ticks;
  if (ticks === 0) return;
  advance(ticks);
  report();
}

/** Runs a rehearsal in real time or faster; the page only asks and listens. */
const worker = {
  listen(to: (report: Report) => void): void {
    listener = to;
  },
  begin(document: LayoutDocument, seed: number): void {
    rehearsal = new Rehearsal(document, seed);
    recorder = new PathRecorder(rehearsal);
    commands = [];
    pending = { samples: [recorder.sample()], events: [] };
    report();
  },
  play(times: number): void {
    speed = times;
    last = performance.now();
    owed = 0;
    if (timer) clearInterval(timer);
    timer = times > 0 ? setInterval(beat, REPORT_MS) : undefined;
  },
  step(ticks: number): void {
    advance(ticks);
    report();
  },
  command(command: Command): string | undefined {
    if (!rehearsal) return 'Nothing runs yet.';
    const problem = rehearsal.command(command);
    if (!problem) commands.push({ tick: rehearsal.tick, command });
    report();
    return problem;
  },
  /** What a server needs to run the same again. */
  recording(): { seed: number; ticks: number; commands: TimedCommand[]; hash: string } {
    return { seed: rehearsal?.seed ?? 0, ticks: rehearsal?.tick ?? 0, commands, hash: rehearsal?.traceHash ?? '' };
  },
  /** The present value of every name, for reasoning. */
  values(): Record<string, number> {
    const run = rehearsal;
    return run ? Object.fromEntries(run.compiled.names.map((name, i) => [name, run.evaluator.values[i]!])) : {};
  },
};

export type RehearsalWorker = typeof worker;
expose(worker);
