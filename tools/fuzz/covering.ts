import { type Fault, faultsIn, withFault } from '../../src/core/faults';
import { sensorKind } from '../../src/core/kinds';
import { turnoutsUnder } from '../../src/core/plant';
import { ProofRun, STANDARD_SWITCHES, STANDING_TICKS, type Switch } from '../../src/core/proof';
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
import { compileSystem, type System } from '../../src/core/system';

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
  /** What people did besides letting trains run and throwing points. */
  used: Switch[];
  /** What can fail did. */
  failed: boolean;
  states: number;
  /** The finished proof. */
  proof?: ProofRun;
}

/** Scans alike in a row after which the rules count as settled. */
const ALIKE = 3;
const LOOK_EVERY = 5;
/** People do something at most so often, in ticks: the rules settle between. */
const TICKS_APART = 8;

/** Every state’s values of the program, and every hazard, of a System; undefined when there are too many. */
export function explored(system: System, most: number, on?: ReadonlySet<Switch>) {
  const proof = new ProofRun(system, most, on);
  while (!proof.step(2000));
  const { explorer } = proof;
  if (!explorer.finished) return undefined;
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
  return { proof, explorer, settled };
}

/** One thing that somebody may do in a rehearsal, or that may fail: how often in a thousand ticks, for tame people, and what it is. */
interface Doing {
  perThousand: number;
  needs?: Switch;
  /** There is anything of the kind to do on a layout. */
  isThere?(run: Rehearsal): boolean;
  does(
    run: Rehearsal,
    pick: <T>(list: readonly T[]) => T,
    chance: (p: number) => boolean,
    on: ReadonlySet<Switch>,
  ): Command | undefined;
}
const DOINGS: readonly Doing[] = [
  {
    perThousand: 4,
    does: ({ plant }, pick, chance) => ({ kind: 'run', train: pick(plant.trains).figures.id, on: chance(0.7) }),
  },
  {
    perThousand: 6,
    does({ motors, plant }, pick, _chance, on) {
      const still = motors.filter(({ index }) => on.has('throw back') || plant.motors[index]!.position !== 'between');
      if (still.length === 0) return undefined;
      return { kind: 'throw', turnout: pick(still).id, to: pick(['straight', 'diverging']) };
    },
  },
  {
    perThousand: 2,
    needs: 'turn back',
    does({ plant }, pick) {
      const train = pick(plant.trains);
      return train.speed === 0 ? { kind: 'turn back', train: train.figures.id } : undefined;
    },
  },
  {
    perThousand: 2,
    needs: 'lift',
    does({ plant }, pick) {
      const { off, figures } = pick(plant.trains);
      return { kind: off ? 'set down' : 'lift off', train: figures.id };
    },
  },
  {
    perThousand: 3,
    needs: 'hold',
    does: ({ system: { readings } }, pick, chance) =>
      readings.length > 0 ? { kind: 'hold', signal: pick(readings).signal.id, on: chance(0.5) } : undefined,
  },
  {
    perThousand: 6,
    does({ system: { posts } }, pick, chance) {
      if (posts.length === 0) return undefined;
      const { id, readings } = pick(posts);
      if (chance(0.4)) return { kind: 'man', post: id, on: chance(0.6) };
      return { kind: 'give', signal: pick(readings).signal.id, on: chance(0.5) };
    },
  },
  { perThousand: 4, needs: 'say free', does: (run, pick) => say(run, pick, true) },
  { perThousand: 2, needs: 'say taken', does: (run, pick) => say(run, pick, false) },
  { perThousand: 12, isThere: ({ system: { commanded } }) => commanded.length > 0, does: setOrCancel },
  {
    perThousand: 6,
    needs: 'automatic',
    isThere: ({ system: { automatic } }) => automatic.length > 0,
    does({ system: { automatic } }, pick, chance) {
      const { id: thing, what, pulse } = pick(automatic);
      if (pulse !== undefined && chance(0.6)) return { kind: 'give pulse', thing, what };
      return { kind: 'switch automatic', thing, what, on: chance(0.5) };
    },
  },
  { perThousand: 6, needs: 'give up', isThere: ({ system: { releases } }) => releases.length > 0, does: giveUp },
  {
    perThousand: 4,
    needs: 'false pulses',
    does({ system: { sensors } }, pick, chance) {
      const pulsing = sensors.filter(({ kind }) => sensorKind(kind).pulses);
      if (pulsing.length === 0) return undefined;
      return { kind: 'fault', sensor: pick(pulsing).id, what: chance(0.5) ? 'miss' : 'extra' };
    },
  },
];

/** Somebody says what is in a block that nothing watches: free where it is, and taken whether it is or not. */
function say(run: Rehearsal, pick: <T>(list: readonly T[]) => T, free: boolean): Command | undefined {
  const told = [...run.system.partition.inferred.keys()];
  if (told.length === 0) return undefined;
  const block = pick(told);
  const isFree = run.plant.trains.every((train) => train.off || !footprintNow(run, train).blocks.includes(block));
  return free && !isFree ? undefined : { kind: 'say', block: run.system.partition.blocks[block]!.id, free };
}

/** Somebody works the buttons of a route; cancelled in the face of a train it is only where people hold signals at stop at any moment, too. */
function setOrCancel(
  run: Rehearsal,
  pick: <T>(list: readonly T[]) => T,
  chance: (p: number) => boolean,
  on: ReadonlySet<Switch>,
): Command | undefined {
  const { commanded, readings } = run.system;
  const { signal: index, route } = pick(commanded);
  const { signal, rear } = readings[index]!;
  if (chance(0.8)) return { kind: 'set route', signal: signal.id, route };
  const isNear = run.plant.trains.some((train) => !train.off && footprintNow(run, train).blocks.includes(rear));
  const may = on.has('hold') || !isNear || run.readOff(index).stopsIn === 0;
  return may ? { kind: 'cancel routes', signal: signal.id } : undefined;
}

/** Somebody gives up a run, once he has looked: no part of a train stands near the points that it holds. */
function giveUp(run: Rehearsal, pick: <T>(list: readonly T[]) => T): Command | undefined {
  const { system, plant, controller } = run;
  const isNear = (blocks: readonly number[], motors: readonly number[]) =>
    plant.trains.some(
      (train) =>
        !train.off &&
        (footprintNow(run, train).blocks.some((block) => blocks.includes(block)) ||
          turnoutsUnder(system.partition, train.body()).some((motor) => motors.includes(motor))),
    );
  const open = system.releases.filter(
    ({ underWay, blocks, motors }) => controller.values[underWay] === 1 && !isNear(blocks, motors),
  );
  if (open.length === 0) return undefined;
  const { signal, route } = pick(open);
  return { kind: 'give up', signal: system.readings[signal]!.signal.id, route };
}

/**
 * What people do in a rehearsal by chance, and what fails of it: `wild` ones do all the time. `done` is told each switch that was used.
 * Two things that people do are not done within one scan, since the proof says that it does not look at that.
 */
export function operate(
  run: Rehearsal,
  random: Random,
  wild: boolean,
  on: ReadonlySet<Switch>,
  done: (by: Switch) => void = () => {},
): void {
  const { plant, system } = run;
  if (plant.trains.length === 0 || run.tick % TICKS_APART !== 0) return;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.uniform() * list.length)]!;
  const chance = (p: number) => random.uniform() < p;
  for (const { slot } of faultsIn(system)) {
    if (!chance((wild ? 0.004 : 0.001) * TICKS_APART)) continue;
    run.controller.set(slot, chance(0.6) ? 1 : 0);
    return;
  }
  for (const { perThousand, needs, isThere, does } of DOINGS) {
    if (isThere && !isThere(run)) continue;
    if ((needs && !on.has(needs)) || !chance((perThousand / 1000) * TICKS_APART * (wild ? 4 : 1))) continue;
    const command = does(run, pick, chance, on);
    if (!command) continue;
    const throwsBack = command.kind === 'throw' && isBetween(run, command.turnout);
    if (run.command(command) !== undefined) continue;
    if (needs) done(needs);
    if (throwsBack) done('throw back');
    return;
  }
}
const isBetween = ({ motors, plant }: Rehearsal, id: string): boolean =>
  motors.some((motor) => motor.id === id && plant.motors[motor.index]!.position === 'between');

export interface CoveringOptions {
  /** Another layout for the proof alone, to see that the comparison can fail. */
  proved?: LayoutDocument;
  /** What people do. */
  on?: ReadonlySet<Switch>;
  /** What fails at any moment. */
  fault?: Fault | undefined;
}

/**
 * Whether whatever rehearsals come to, driven by chance, is among what the proof has found: every hazard, and every settled
 * state of the rules. A rehearsal ends when trains touch, since nothing is said of what comes after.
 */
export function covering(
  document: LayoutDocument,
  seeds: number[],
  minutes: number,
  mostStates: number,
  { proved = document, on = STANDARD_SWITCHES, fault }: CoveringOptions = {},
): Covering {
  const compiled = (of: LayoutDocument) => (fault ? withFault(compileSystem(of), fault) : compileSystem(of));
  const known = explored(compiled(proved), mostStates, on);
  if (!known)
    return { contradictions: [], finished: false, found: [], met: [], used: [], failed: false, states: mostStates };
  const { proof, explorer, settled } = known;
  const contradictions = new Map<string, Contradiction>();
  const met = new Set<HazardId>();
  const used = new Set<Switch>();
  const system = compiled(document);
  const [failing] = faultsIn(system);
  let failed = false;
  for (const seed of seeds) {
    const run = new Rehearsal(system, seed);
    const random = new Random(seed, 77);
    let over = false;
    const note = (hazard: HazardId) => {
      met.add(hazard);
      if (!explorer.hazards.has(hazard) && !explorer.ended.has('rules never settle') && !contradictions.has(hazard))
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
      if (tick > STANDING_TICKS) operate(run, random, seed % 2 === 0, on, (by) => used.add(by));
      run.step((event) => {
        const hazard = hazardOfEvent(event);
        if (hazard) note(hazard);
      });
      failed ||= failing !== undefined && values[failing.slot] === 1;
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
    used: [...used],
    failed,
    states: explorer.states,
    proof,
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
