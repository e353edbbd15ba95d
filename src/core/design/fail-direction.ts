import { type BlockId, spotsOf } from '../detection';
import { FAULT_IDS, FAULTS, type FaultId, type FaultKind, struckBy, thingsStruck } from '../faults';
import { FULL_POWER } from '../kinds';
import type { SignalReading } from '../signals';
import type { System, TerminalKind } from '../system';
import { ALL, type Some } from './aspect-matrix';
import type { FreeLayout, Put } from './free-layout';
import { towards } from './towards';

/** What a signal, or the section before it, has after a fault; and whether that is at least as restrictive as the truth. */
export interface FailOutcome {
  says: string;
  /** Undefined where it depends on wiring that nobody has said. */
  safe: boolean | undefined;
}
export interface FailRow {
  id: string;
  name: string;
  /** By the fault, in the order of `FAILURES`; left out where it cannot strike. */
  outcomes: (FailOutcome | undefined)[];
}

interface Situation {
  system: System;
  free: FreeLayout;
  reading: SignalReading;
  /** The least restrictive that it shows, by number, with a train there and one that comes to it, when inputs go wrong before these come, or once they stand there. */
  showsAtWorst(ahead: Ahead, put: Put): number;
  /** Blocks ahead on ways that are set, once for each way in which a train may have come in. */
  ahead: Ahead[];
}

/** A block ahead with a train in it: by where it is said to have come in, if anybody says so, and what the signal shows then in truth. */
interface Ahead {
  block: BlockId;
  name: string;
  sensors: number[];
  spots: number[];
  said: readonly number[];
  /** Pulses that automatic working is given then, so that it lets the train before the signal go. */
  given: readonly number[];
  truth: number;
}

const UNSAID: FailOutcome = { says: 'not said how it is wired', safe: undefined };

const compared = FAULT_IDS.filter((id) => (FAULTS[id] as FaultKind).compared);
/** What can fail at a signal: the heads of the columns. */
export const FAILURES: readonly string[] = ['Power comes on', ...compared.map((id) => FAULTS[id].title)];

/** The place of an aspect among those of the signal, the most restrictive first. */
const rankOf =
  (system: System, reading: SignalReading) =>
  (shows: number): number =>
    system.aspectSystems[reading.index]!.aspects.findIndex(({ id }) => id === system.aspects[shows]!.id);

/** The worst of what is shown while a train stands ahead, against the truth. */
function worst(
  situation: Situation,
  shown: (ahead: Ahead) => number | undefined,
  among: readonly Ahead[] = situation.ahead,
): FailOutcome | undefined {
  const { aspects } = situation.system;
  const rank = rankOf(situation.system, situation.reading);
  const all = among.map((one) => ({ shows: shown(one), truth: one.truth }));
  if (all.length === 0) return undefined;
  if (all.some(({ shows }) => shows === undefined)) return UNSAID;
  const bad = all.find(({ shows, truth }) => rank(shows!) > rank(truth));
  const name = (shows: number) => aspects[shows]!.id;
  return bad
    ? { says: `${name(bad.shows!)} instead of ${name(bad.truth)}`, safe: false }
    : { says: name(all[0]!.shows!), safe: true };
}

/** Power comes on while a train stands ahead, and nobody says anything. */
function powerUp(situation: Situation): FailOutcome | undefined {
  const { free, reading, system, ahead } = situation;
  const slot = system.terminals.slot('aspect', reading.index);
  const rank = rankOf(system, reading);
  const shown = ({ block }: Ahead) => {
    let most = 0;
    free.powerUp(new Set([system.partition.blocks[reading.rear]!.id, block]), (values) => {
      if (rank(values[slot]!) > rank(most)) most = values[slot]!;
    });
    return most;
  };
  return worst(
    situation,
    shown,
    ahead.filter(({ said, given }) => said.length + given.length === 0),
  );
}

/** Detectors ahead fail: what the rules make of it. */
function ofInputs(situation: Situation, fault: FaultId): FailOutcome | undefined {
  const { system } = situation;
  const things = new Map(thingsStruck(system, fault).map(({ of, id }) => [of, id]));
  /** What such a block reads depends on how trains came and went, and not only on where they stand. */
  const inferred = situation.ahead.find(({ spots }) => spots.some((of) => things.has(of)));
  if (inferred)
    return { says: `not looked at: spots tell of ${inferred.name}. Let it fail in Rehearse or Prove`, safe: undefined };
  if (!situation.ahead.some(({ sensors }) => sensors.some((of) => things.has(of)))) {
    const isOfOne = (FAULTS[fault] as FaultKind).together === undefined;
    return isOfOne ? worst(situation, ({ truth }) => truth) : undefined;
  }
  const rank = rankOf(system, situation.reading);
  /** One at a time, whichever of those that watch the block is the worst. */
  return worst(situation, (ahead) => {
    let most: number | undefined;
    for (const of of ahead.sensors) {
      const thing = things.get(of);
      if (thing === undefined) continue;
      const struck = struckBy(system, { fault, thing });
      if (!struck) return undefined;
      const put = new Map(struck.terminals.map(({ terminal, puts }) => [terminal.slot, puts(1) as 0 | 1]));
      const shows = situation.showsAtWorst(ahead, put);
      if (most === undefined || rank(shows) > rank(most)) most = shows;
    }
    return most ?? ahead.truth;
  });
}

/** Something on the way out fails: what comes of each value that goes out. */
const OUTCOMES: { [K in TerminalKind]?: (situation: Situation, fault: FaultId) => FailOutcome | undefined } = {
  detector: ofInputs,
  aspect({ system, reading }, fault) {
    const struck = struckBy(system, { fault, thing: reading.signal.id });
    if (!struck) return UNSAID;
    const rank = rankOf(system, reading);
    const { aspects } = system.aspectSystems[reading.index]!;
    const all = aspects.map(({ id }) => {
      const was = system.aspects.findIndex((aspect) => aspect.id === id);
      return { was, is: struck.terminals[0]!.puts(was) as number };
    });
    const bad = all.find(({ was, is }) => rank(is) > rank(was));
    const name = (shows: number) => system.aspects[shows]!.id;
    if (bad) return { says: `${name(bad.is)} instead of ${name(bad.was)}`, safe: false };
    const same = all.every(({ is }) => is === all[0]!.is);
    return { says: same ? name(all[0]!.is) : 'no more than was meant', safe: true };
  },
  power({ system, reading }, fault) {
    const section = system.partition.blocks[reading.rear]!.section;
    const thing = thingsStruck(system, fault).find(({ of }) => of === section);
    if (!thing) return undefined;
    const struck = struckBy(system, { fault, thing: thing.id });
    if (!struck) return UNSAID;
    const fed = struck.terminals[0]!.puts(0) === FULL_POWER;
    return { says: fed ? 'power at stop' : 'no power', safe: !fed };
  },
};

const outcomeOf = (situation: Situation, fault: FaultId): FailOutcome | undefined =>
  OUTCOMES[FAULTS[fault].at[0]]?.(situation, fault);

/** What every signal has after each fault, with the points as they lie. */
export function failDirections(
  system: System,
  free: FreeLayout,
  lies: (motor: string) => string,
  some: Some = ALL,
): FailRow[] {
  const { partition, routesOf, sensors, terminals } = system;
  const numbers = new Map(sensors.map(({ id }, of) => [id, of]));
  return system.readings.slice(some.from, some.to).map((reading) => {
    const rear = partition.blocks[reading.rear]!.id;
    const told = towards(system, reading);
    const slot = terminals.slot('aspect', reading.index);
    const shows = (
      { block, said, given }: Pick<Ahead, 'block' | 'said' | 'given'>,
      { before, after }: { before?: Put; after?: Put } = {},
    ) => {
      free.setDown(new Set([rear, block]), [...told, ...said], before, given);
      return free.inTheEnd(after)[slot]!;
    };
    const rank = rankOf(system, reading);
    const showsAtWorst = (one: Ahead, put: Put) => {
      const [before, after] = [shows(one, { before: put }), shows(one, { after: put })];
      return rank(after) > rank(before) ? after : before;
    };
    const set = routesOf[reading.index]!.filter(({ route }) =>
      route.conditions.every(({ motor, position }) => lies(partition.graph.motors[motor]!.id) === position),
    );
    const blocks = [...new Set(set.flatMap(({ route }) => route.blocks.map(({ block }) => block)))].filter(
      (b) => b !== reading.rear,
    );
    const pulses = [[], ...pulsesFor(system, reading).map((slot) => [slot])];
    const ahead = blocks.flatMap((b) => {
      const block = partition.blocks[b]!;
      const own = partition.sections[block.section]!.sensors.map((id) => numbers.get(id)!);
      const by = own.length === 0 ? partition.inferred.get(b) : undefined;
      const spots = by ? spotsOf(by).map((id) => numbers.get(id)!) : [];
      return waysIn(system, b, reading.rear).flatMap((said) =>
        pulses.map((given): Ahead => {
          const where = { block: block.id, said, given };
          return { ...where, name: block.name, sensors: own, spots, truth: shows(where) };
        }),
      );
    });
    const situation = { system, free, reading, showsAtWorst, ahead };
    const outcomes = [powerUp(situation), ...compared.map((fault) => outcomeOf(situation, fault))];
    return { id: reading.signal.id, name: reading.signal.name, outcomes };
  });
}

/** Where the rules have the pulses that may let a train before a signal go: its own, and those of points over which a route leads to it. */
function pulsesFor({ automatic, routesOf, partition }: System, { signal, index }: SignalReading): number[] {
  if (automatic.length === 0) return [];
  const leading = routesOf
    .flat()
    .filter(({ route: { ending } }) => ending.kind === 'signal' && ending.signal === index)
    .flatMap(({ route: { conditions } }) => conditions.map(({ motor }) => partition.graph.motors[motor]!.id));
  const near = new Set([signal.id, ...leading]);
  return automatic.flatMap(({ id, pulse }) => (pulse !== undefined && near.has(id) ? [pulse] : []));
}

/**
 * What may be said of a train in a block, as places among the values: nothing, or by which side it came into its traffic section. Where the train in
 * rear of the signal stands in the same section, that one is spoken of.
 */
function waysIn({ trafficSections, terminals }: System, block: number, rear: number): (readonly number[])[] {
  const section = trafficSections.ofBlock[block]!;
  if (section === trafficSections.ofBlock[rear]) return [[]];
  const { sides, bothWays } = trafficSections.all[section]!;
  const inputs = bothWays ? sides.flatMap((side) => terminals.find('direction', section, side)?.slot ?? []) : [];
  return [[], ...inputs.map((slot) => [slot])];
}

/** How many outcomes there are, how many of them are less restrictive than the truth, and how many are not known. */
export interface FailSum {
  all: number;
  bad: number;
  unknown: number;
}

export function sumOf(rows: readonly FailRow[]): FailSum {
  const outcomes = rows.flatMap((row) => row.outcomes).filter((one) => one !== undefined);
  const count = (safe: boolean | undefined) => outcomes.filter((one) => one.safe === safe).length;
  return { all: outcomes.length, bad: count(false), unknown: count(undefined) };
}
