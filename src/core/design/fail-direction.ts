import type { BlockId } from '../detection';
import { lampsOut } from '../kinds';
import { cutsOff } from '../patterns';
import type { SignalReading } from '../signals';
import { systemOf } from '../survey';
import { ALL, type Some } from './aspect-matrix';
import type { Design } from './check-design';
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
  /** By the fault, in the order of `FAULTS`; left out where it cannot strike. */
  outcomes: (FailOutcome | undefined)[];
}

interface Situation {
  design: Design;
  free: FreeLayout;
  reading: SignalReading;
  /** What it shows, by number, with a train in the block and one that comes to it. */
  shows(block: BlockId, put?: Put): number;
  /** Blocks ahead on ways that are set, with the truth for a train in each. */
  ahead: { block: BlockId; sensors: string[]; truth: number }[];
}

/** What can fail at a signal: the head of a column, and what comes of it. */
interface Fault {
  says: string;
  outcome(situation: Situation): FailOutcome | undefined;
}

/** The worst of what is shown while a train stands ahead, against the truth. */
function worst(
  { design, ahead, reading }: Situation,
  shown: (block: BlockId, sensors: string[]) => number,
): FailOutcome | undefined {
  const { aspects, document } = design.scheme;
  const order = systemOf(document, reading.signal.system).aspects.map(({ id }) => id);
  const rank = (shows: number) => order.indexOf(aspects[shows]!.id);
  const all = ahead.map(({ block, sensors, truth }) => ({ shows: shown(block, sensors), truth }));
  if (all.length === 0) return undefined;
  const bad = all.find(({ shows, truth }) => rank(shows) > rank(truth));
  const name = (shows: number) => aspects[shows]!.id;
  return bad
    ? { says: `${name(bad.shows)} instead of ${name(bad.truth)}`, safe: false }
    : { says: name(all[0]!.shows), safe: true };
}

/** Where the rules have a sensor, by its id. */
const detectorOf = ({ design: { system } }: Situation, id: string): number =>
  system.terminals.slot(
    'detector',
    system.sensors.findIndex((sensor) => sensor.id === id),
  );

/** What comes of inputs that read so when their wires are broken; not known where nobody has said how they are wired. */
function broken(situation: Situation, sensorsOf: (own: string[]) => string[]): FailOutcome | undefined {
  const { sensors } = situation.design.scheme.document;
  const reads = new Map(sensors.map(({ id, broken }) => [id, broken]));
  const unsaid = situation.ahead
    .flatMap(({ sensors: own }) => sensorsOf(own))
    .some((id) => reads.get(id) === undefined);
  if (unsaid) return { says: 'not said how it is wired', safe: undefined };
  return worst(situation, (block, own) =>
    situation.shows(
      block,
      new Map(sensorsOf(own).map((id) => [detectorOf(situation, id), reads.get(id) === 'occupied' ? 1 : 0])),
    ),
  );
}

export const FAULTS: readonly Fault[] = [
  {
    says: 'Power comes on',
    outcome: (situation) =>
      worst(situation, (block) => {
        const { design, free, reading } = situation;
        const { partition, document, aspects } = design.scheme;
        const slot = design.system.terminals.slot('aspect', reading.index);
        const order = systemOf(document, reading.signal.system).aspects.map(({ id }) => id);
        let most = 0;
        free.powerUp(new Set([partition.blocks[reading.rear]!.id, block]), (values) => {
          const shows = values[slot]!;
          if (order.indexOf(aspects[shows]!.id) > order.indexOf(aspects[most]!.id)) most = shows;
        });
        return most;
      }),
  },
  {
    says: 'A lamp is out',
    outcome({ design, reading }) {
      const bad = lampsOut(systemOf(design.scheme.document, reading.signal.system)).find(({ worse }) => worse);
      return bad
        ? { says: `${bad.read!.id} instead of ${bad.aspect.id}`, safe: false }
        : { says: 'no more than was meant', safe: true };
    },
  },
  {
    says: 'Its wire breaks, or its relay is dead',
    outcome({ reading: { signal } }) {
      if (signal.broken === undefined) return { says: 'not said how it is wired', safe: undefined };
      return { says: signal.broken, safe: signal.broken === 'stop' };
    },
  },
  { says: 'A detector is dead, or its wire breaks', outcome: (situation) => broken(situation, (own) => own) },
  {
    says: 'A detector is stuck',
    outcome: (situation) =>
      worst(situation, (block, own) =>
        situation.shows(block, new Map(own.map((id) => [detectorOf(situation, id), 1]))),
      ),
  },
  {
    says: 'A module is lost',
    outcome(situation) {
      const { sensors } = situation.design.scheme.document;
      const module = new Map(sensors.map(({ id, input }) => [id, input.split('.')[0]!]));
      const onModules = situation.ahead.flatMap(({ sensors: own }) => own.map((id) => module.get(id)));
      if (onModules.every((one) => !one)) return undefined;
      return broken(situation, (own) =>
        sensors
          .filter(({ id }) => own.some((o) => module.get(o) !== '' && module.get(o) === module.get(id)))
          .map(({ id }) => id),
      );
    },
  },
  {
    says: 'The relay of the section before it is dead',
    outcome({ reading: { signal } }) {
      if (!cutsOff(signal)) return undefined;
      if (signal.relay === undefined) return { says: 'not said how it is wired', safe: undefined };
      return { says: signal.relay === 'off' ? 'no power' : 'power at stop', safe: signal.relay === 'off' };
    },
  },
  {
    says: 'That relay is welded',
    outcome: ({ reading: { signal } }) =>
      cutsOff(signal) ? { says: 'power at stop: its aspect still holds', safe: false } : undefined,
  },
];

/** What every signal has after each fault, with the points as they lie. */
export function failDirections(
  design: Design,
  free: FreeLayout,
  lies: (motor: string) => string,
  some: Some = ALL,
): FailRow[] {
  const { scheme } = design;
  const { partition, routesOf } = scheme;
  const readings = scheme.readings.slice(some.from, some.to);
  return readings.map((reading) => {
    const rear = partition.blocks[reading.rear]!.id;
    const told = towards(design.system, reading);
    const slot = design.system.terminals.slot('aspect', reading.index);
    const shows = (block: BlockId, put?: Put) => free.setDown(new Set([rear, block]), told, put)[slot]!;
    const set = routesOf[reading.index]!.filter(({ route }) =>
      route.conditions.every(({ motor, position }) => lies(partition.graph.motors[motor]!.id) === position),
    );
    const blocks = [...new Set(set.flatMap(({ route }) => route.blocks.map(({ block }) => block)))].filter(
      (b) => b !== reading.rear,
    );
    const ahead = blocks.map((b) => {
      const block = partition.blocks[b]!;
      return { block: block.id, sensors: partition.sections[block.section]!.sensors, truth: shows(block.id) };
    });
    const situation = { design, free, reading, shows, ahead };
    return {
      id: reading.signal.id,
      name: reading.signal.name,
      outcomes: FAULTS.map((fault) => fault.outcome(situation)),
    };
  });
}
