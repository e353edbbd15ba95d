import type { System } from '../system';
import type { Drawing } from '../track';
import { sayCommand } from './commands';
import type { RehearsalEvent } from './events';
import type { Recording } from './recording';
import { Rehearsal, TICK_MS } from './rehearsal';
import { PathRecorder, type Sample } from './rehearsal-frame';
import { type SpokenEvent, spokenEvent } from './spoken-event';

/** What a run came to, in figures, with its course. */
export interface RunSummary {
  hash: string;
  ticks: number;
  trains: { id: string; name: string; runMm: number; stoodMs: number; stops: number }[];
  mishaps: number;
  passedAtStop: number;
  samples: Sample[];
  events: SpokenEvent[];
  /** What was done and could not be, with the reason: on a layout that was changed since. */
  refused: { tick: number; says: string }[];
}

/** A sample for each second is enough to compare two courses. */
const SAMPLE_EVERY = 1000 / TICK_MS;

/** Between two reports of how far it has come. */
const SLICE_TICKS = 10_000;

/** Runs a whole run again and counts; yields now and then up to which tick it has come. */
export function* summariseRun(
  system: System,
  drawing: Drawing,
  { seed, ticks, commands }: Recording,
): Generator<number, RunSummary, void> {
  const run = new Rehearsal(system, seed);
  const recorder = new PathRecorder(run, drawing);
  const trains = run.plant.trains.map(({ figures }) => ({
    id: figures.id,
    name: figures.name,
    runMm: 0,
    stoodMs: 0,
    stops: 0,
  }));
  const samples: Sample[] = [recorder.sample()];
  const events: SpokenEvent[] = [];
  const refused: RunSummary['refused'] = [];
  let passedAtStop = 0;
  for (let next = 0; run.tick < ticks; ) {
    const hear = (event: RehearsalEvent) => {
      if (event.kind === 'stands') trains[event.train]!.stops += 1;
      if (event.kind === 'passes' && event.aspect.stopsIn === 0) passedAtStop += 1;
      const spoken = spokenEvent(run, event);
      if (spoken) events.push(spoken);
    };
    for (; next < commands.length && commands[next]!.tick <= run.tick; next++) {
      const { command } = commands[next]!;
      const problem = run.command(command, hear);
      if (problem !== undefined) refused.push({ tick: run.tick, says: `${sayCommand(run, command)}: ${problem}` });
    }
    run.step(hear);
    run.plant.trains.forEach((train, t) => {
      if (train.speed === 0) trains[t]!.stoodMs += TICK_MS;
      trains[t]!.runMm += (train.speed * TICK_MS) / 1000;
    });
    if (run.tick % SAMPLE_EVERY === 0) samples.push(recorder.sample());
    if (run.tick % SLICE_TICKS === 0) yield run.tick;
  }
  const mishaps = events.filter((event) => event.bad).length;
  return { hash: run.traceHash, ticks: run.tick, trains, mishaps, passedAtStop, samples, events, refused };
}

/** The first moment at which two runs part, and what each then does; undefined when one is the beginning of the other. */
export function firstDifference(
  a: SpokenEvent[],
  b: SpokenEvent[],
): { tick: number; a?: string; b?: string } | undefined {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const [p, q] = [a[i], b[i]];
    if (p && q && p.tick === q.tick && p.says === q.says) continue;
    if (!p || !q) return undefined;
    return { tick: Math.min(p.tick, q.tick), a: p.says, b: q.says };
  }
  return undefined;
}
