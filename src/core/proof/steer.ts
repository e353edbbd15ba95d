import { mmOf } from '../measure';
import { type Command, Rehearsal, type RehearsalEvent, type TimedCommand } from '../simulation';
import type { LayoutDocument } from '../survey';
import { type ProofModel, STANDING_TICKS } from './model';
import type { Property } from './prove';
import type { StoryStep } from './story';

/** A story as a run of the rehearsal. */
export interface Steered {
  seed: number;
  commands: TimedCommand[];
  ticks: number;
  /** Whether the rehearsal came to the harm that the story tells of; if not, the story is possible but not confirmed. */
  confirmed: boolean;
}

/** A step that the rehearsal has not taken within a minute will not be taken. */
const MOST_TICKS_A_STEP = 3000;
/** A standstill is confirmed when nothing moves for this long though every train is told to go. */
const STANDSTILL_TICKS = 3000;
const SEED = 1;

/** Plays a story in the rehearsal, move by move: each train runs only when its turn comes. */
export function steerStory(
  document: LayoutDocument,
  model: ProofModel,
  property: Property,
  story: StoryStep[],
): Steered {
  const run = new Rehearsal(document, SEED);
  const commands: TimedCommand[] = [];
  let harmed = false;
  const sink = (event: RehearsalEvent) => {
    if (property === 'points moved under a train' && event.kind === 'points moved under') harmed = true;
    if (property === 'points lie wrong' && event.kind === 'mishap' && event.mishap.kind === 'points wrong')
      harmed = true;
    if (property === 'two trains in a block' && event.kind === 'collision') harmed = true;
  };
  const tell = (command: Command) => {
    commands.push({ tick: run.tick, command });
    run.command(command);
  };
  const until = (done: () => boolean): boolean => {
    for (let i = 0; i < MOST_TICKS_A_STEP && !harmed; i++) {
      if (done()) return true;
      run.step(sink);
    }
    return harmed || done();
  };
  const rolling = (train: number) => run.plant.trains.find((t) => t.figures.id === model.trains[train]!.id)!;

  for (const train of model.trains) tell({ kind: 'run', train: train.id, on: false });
  for (let i = 0; i < STANDING_TICKS; i++) run.step(sink);
  const started = new Set<number>();
  for (const step of story) {
    const { move } = step;
    let taken = true;
    if (move.kind === 'advance') {
      const { id, leadMm } = model.trains[move.train]!;
      const mm = step.runMm + (started.has(move.train) ? 0 : leadMm);
      started.add(move.train);
      tell({ kind: 'draw up', train: id, mm });
      taken = until(() => !rolling(move.train).running || rolling(move.train).stranded);
    } else if (move.kind === 'timer') {
      const { name } = model.compiled.timerRules[move.timer]!;
      const before = run.evaluator.valueOf(name);
      until(() => run.evaluator.valueOf(name) !== before);
    } else if (move.kind === 'throw') {
      tell({
        kind: 'throw',
        turnout: document.turnouts[move.turnout]!.id,
        to: move.diverging ? 'diverging' : 'straight',
      });
      run.step(sink);
      run.step(sink);
    } else taken = until(() => run.plant.motors[move.turnout]!.position !== 'between');
    if (!taken || harmed) break;
  }
  if (property === 'deadlock') {
    for (const train of model.trains) tell({ kind: 'run', train: train.id, on: true });
    const heads = run.plant.trains.map((t) => t.head);
    for (let i = 0; i < STANDSTILL_TICKS; i++) run.step(sink);
    const shortest = mmOf(Math.min(...run.scheme.partition.blocks.map((block) => block.length)));
    harmed = run.plant.trains.every((t, i) => t.head - heads[i]! < shortest);
  } else if (!harmed) harmed = sharesTrack(run, property === 'opposing trains');
  return { seed: SEED, commands, ticks: run.tick, confirmed: harmed };
}

/** Whether two trains stand in one block, or, where directions matter, on one single line. */
function sharesTrack(run: Rehearsal, onStretch: boolean): boolean {
  const { partition, stretches } = run.scheme;
  const held = run.plant.trains.map(
    (train) =>
      new Set(
        train.standsOn().map(({ piece }) => {
          const { block } = partition.pieces[piece]!;
          return onStretch ? stretches.ofBlock[block]! : block;
        }),
      ),
  );
  return held.some((mine, i) => held.some((theirs, k) => k > i && [...mine].some((place) => theirs.has(place))));
}
