import { Explorer, ProofModel, STANDARD_SWITCHES, STANDING_TICKS, type Switch } from '../../src/core/proof';
import {
  type Command,
  footprintNow,
  type HazardId,
  hazardOfEvent,
  hazardsNow,
  Random,
  Rehearsal,
} from '../../src/core/simulation';
import { isKind, type LayoutDocument } from '../../src/core/survey';
import { compileSystem } from '../../src/core/system';

/** A rehearsal that came to what the proof says can never be. */
export interface Contradiction {
  says: string;
  seed: number;
}

export interface Covering {
  contradictions: Contradiction[];
  /** The proof looked at every state; else nothing was compared. */
  finished: boolean;
  /** Harms that the proof finds, and those that rehearsals met. */
  found: HazardId[];
  met: HazardId[];
  states: number;
}

/** Scans alike in a row after which the rules count as settled. */
const ALIKE = 3;
const LOOK_EVERY = 5;

/** Every state’s values of the program, and every hazard, of a layout; undefined when there are too many. */
export function explored(document: LayoutDocument, most: number, on?: ReadonlySet<Switch>) {
  const explorer = new Explorer(new ProofModel(compileSystem(document), on));
  while (!explorer.run(2000)) if (explorer.states > most) return undefined;
  const {
    model,
    search: { set },
  } = explorer;
  const { names, slots } = model.rules.wiring.compiled;
  const places = names.map((name) => slots.get(name)!);
  const state = new Int32Array(model.words);
  /** Many states of the whole have one state of the rules. */
  const ofRules = new Set<number>();
  const settled = new Set<string>();
  for (let number = 0; number < set.size; number++) {
    set.read(number, state);
    model.unpack(state);
    if (ofRules.has(model.ruleState)) continue;
    ofRules.add(model.ruleState);
    const values = model.rules.valuesIn(model.ruleState);
    settled.add(places.map((slot) => values[slot]).join(''));
  }
  return { explorer, settled };
}

/** What people do in a rehearsal by chance: `wild` ones all the time. */
export function operate(run: Rehearsal, random: Random, wild: boolean, on: ReadonlySet<Switch>): void {
  const { plant, system, motors } = run;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.uniform() * list.length)]!;
  const often = wild ? 4 : 1;
  const tell = (command: Command) => void run.command(command);
  if (plant.trains.length === 0) return;
  if (random.uniform() < 0.004 * often) {
    const train = pick(plant.trains);
    tell({ kind: 'run', train: train.figures.id, on: random.uniform() < 0.7 });
  }
  if (motors.length > 0 && random.uniform() < 0.006 * often)
    tell({ kind: 'throw', turnout: pick(motors).id, to: pick(['straight', 'diverging']) });
  if (random.uniform() < 0.002 * often) {
    const train = pick(plant.trains);
    if (train.speed === 0) tell({ kind: 'turn back', train: train.figures.id });
  }
  if (on.has('lift') && random.uniform() < 0.002 * often) {
    const { off, figures } = pick(plant.trains);
    tell({ kind: off ? 'set down' : 'lift off', train: figures.id });
  }
  if (on.has('hold') && system.readings.length > 0 && random.uniform() < 0.003 * often)
    tell({ kind: 'hold', signal: pick(system.readings).signal.id, on: random.uniform() < 0.5 });
  const posts = run.system.posts;
  if (posts.length > 0 && random.uniform() < 0.006 * often) {
    const { id, readings } = pick(posts);
    if (random.uniform() < 0.4) tell({ kind: 'man', post: id, on: random.uniform() < 0.6 });
    else tell({ kind: 'give', signal: pick(readings).signal.id, on: random.uniform() < 0.5 });
  }
  const told = [...run.system.partition.inferred.keys()];
  if (told.length > 0 && random.uniform() < 0.004 * often) {
    const block = pick(told);
    const free = plant.trains.every((train) => !footprintNow(run, train).blocks.includes(block));
    if (free) tell({ kind: 'say', block: run.system.partition.blocks[block]!.id, free });
  }
}

/**
 * Whether whatever rehearsals come to, driven by chance, is among what the proof has found: every hazard, and every settled
 * state of the rules. A rehearsal ends when trains touch, since nothing is said of what comes after. `on`: what people do. `proved`
 * is another layout for the proof alone, to see that the comparison can fail.
 */
export function covering(
  document: LayoutDocument,
  seeds: number[],
  minutes: number,
  mostStates: number,
  { proved = document, on = STANDARD_SWITCHES }: { proved?: LayoutDocument; on?: ReadonlySet<Switch> } = {},
): Covering {
  const known = explored(proved, mostStates, on);
  if (!known) return { contradictions: [], finished: false, found: [], met: [], states: mostStates };
  const { explorer, settled } = known;
  const contradictions = new Map<string, Contradiction>();
  const met = new Set<HazardId>();
  for (const seed of seeds) {
    const run = new Rehearsal(compileSystem(document), seed);
    const random = new Random(seed, 77);
    let over = false;
    const note = (hazard: HazardId) => {
      met.add(hazard);
      if (!explorer.hazards.has(hazard) && !contradictions.has(hazard))
        contradictions.set(hazard, {
          says: `“${hazard}” at ${(run.tick / 50).toFixed(2)} s, seed ${seed}: proved never to happen`,
          seed,
        });
      if (hazard === 'trains touch') over = true;
    };
    for (const train of run.plant.trains) run.command({ kind: 'run', train: train.figures.id, on: false });
    const { values } = run.controller.evaluator;
    const last = new Int32Array(values.length);
    let alike = 0;
    const ticks = minutes * 3000 + STANDING_TICKS;
    for (let tick = 0; tick < ticks && !over; tick++) {
      if (tick === STANDING_TICKS)
        for (const train of run.plant.trains) run.command({ kind: 'run', train: train.figures.id, on: true });
      if (tick > STANDING_TICKS) operate(run, random, seed % 2 === 0, on);
      run.step((event) => {
        const hazard = hazardOfEvent(event);
        if (hazard) note(hazard);
      });
      if (tick < STANDING_TICKS || over) continue;
      if (tick % LOOK_EVERY === 0) {
        for (const { id } of hazardsNow(run)) note(id);
      }
      if (values.every((value, slot) => value === last[slot])) alike += 1;
      else {
        alike = 0;
        last.set(values);
      }
      if (alike !== ALIKE) continue;
      const state = run.system.compiled.names.map((name) => run.controller.evaluator.valueOf(name)).join('');
      if (!settled.has(state) && !contradictions.has('state') && explorer.ended.size === 0)
        contradictions.set('state', {
          says: `a state of the rules at ${(run.tick / 50).toFixed(2)} s, seed ${seed}, that the proof has not`,
          seed,
        });
    }
  }
  return {
    contradictions: [...contradictions.values()],
    finished: true,
    found: [...explorer.hazards.keys()],
    met: [...met],
    states: explorer.states,
  };
}

/** The same layout with as much as possible left out that still contradicts itself. */
export function smallest(document: LayoutDocument, stillShows: (smaller: LayoutDocument) => boolean): LayoutDocument {
  let kept = document;
  const without: ((d: LayoutDocument) => LayoutDocument[])[] = [
    (d) => d.trains.map((t) => ({ ...d, trains: d.trains.filter((x) => x !== t) })),
    (d) => d.features.filter(isKind('signal')).map((f) => ({ ...d, features: d.features.filter((x) => x !== f) })),
    (d) => d.features.filter(isKind('gap')).map((f) => ({ ...d, features: d.features.filter((x) => x !== f) })),
    (d) => d.sensors.map((x) => ({ ...d, sensors: d.sensors.filter((y) => y !== x) })),
    (d) => d.crossings.map((x) => ({ ...d, crossings: d.crossings.filter((y) => y !== x) })),
  ];
  for (const leaveOut of without)
    for (let i = 0; i < leaveOut(kept).length; ) {
      const smaller = leaveOut(kept)[i]!;
      let shows = false;
      try {
        shows = stillShows(smaller);
      } catch {
        shows = false;
      }
      if (shows) kept = smaller;
      else i += 1;
    }
  return kept;
}
