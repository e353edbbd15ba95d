import {
  allRoads,
  isChosen,
  isTwoRoads,
  pointsOf,
  RELEASED_BY,
  type Scheme,
  TWO_ROAD_PATTERNS,
  trainsSetRoutes,
} from '../patterns';
import type { ProofModel } from '../proof';
import type { Rehearsal } from '../simulation';
import type { System } from '../system';

/** Of what takes turns beyond points, whose turn it is. */
interface Turn {
  motor: number;
  name: string;
  slot: number;
}

/** Where trains wait for what works by itself, and what it remembers: by these alone the steps of a cycle are told apart. */
export interface WaitingPlaces {
  /** Blocks, by number. */
  blocks: ReadonlySet<number>;
  turns: readonly Turn[];
}

/** The blocks before signals that wait for a release, a turn or a route set by a train; before every signal where none does. */
export function waitingPlaces({ scheme, system }: { scheme: Scheme; system: System }): WaitingPlaces {
  const { readings } = scheme;
  const taking = scheme.partition.graph.motors.flatMap((motor) => {
    const roads = allRoads(scheme)[motor.index]!;
    const takes = TWO_ROAD_PATTERNS.some((pattern) => pointsOf(scheme, motor)?.patterns?.includes(pattern));
    return takes && isTwoRoads(roads) ? [...roads.straight.blocks, ...roads.diverging.blocks] : [];
  });
  const waiting = readings.filter(({ signal }) =>
    [...RELEASED_BY, trainsSetRoutes].some(({ id }) => isChosen({ id }, signal)),
  );
  const found = [...taking, ...waiting.map(({ rear }) => rear)];
  return {
    blocks: new Set(found.length > 0 ? found : readings.map(({ rear }) => rear)),
    turns: system.terminals
      .ofKind('turn')
      .map(({ of, slot }) => ({ motor: of, slot, name: scheme.partition.graph.motors[of]!.name })),
  };
}

/** A step of a cycle: the block in which each train waits, undefined where it is on the line or off the track, and whose turn it is. */
export interface Standing {
  trains: (number | undefined)[];
  turns: boolean[];
}

const LINE = -1;

/** How trains stand in a state of the proof, and in a moment of a rehearsal, as one short text each; the same text, the same step. */
export function standingInProof(system: System, { blocks, turns }: WaitingPlaces): (model: ProofModel) => string {
  const occupied = system.partition.blocks.map(({ index }) => system.terminals.slot('occupied', index));
  return (model) => {
    const { pieces } = system.partition;
    const values = model.rules.valuesIn(model.ruleState);
    const at = model.trains.map(({ placements }, t) => {
      const nose = model.isOff(t) ? undefined : placements[model.present.at[t]!]!.tape.at(-1);
      const block = nose === undefined ? LINE : pieces[nose.piece]!.block;
      return blocks.has(block) && values[occupied[block]!] === 1 ? block : LINE;
    });
    return [...at, ...turns.map(({ slot }) => values[slot]!)].join();
  };
}
export const standingInRun =
  (system: System, { blocks, turns }: WaitingPlaces) =>
  ({ plant, controller }: Rehearsal): string => {
    const { pieces } = system.partition;
    const at = plant.trains.map((train) => {
      const nose = train.held().at(-1);
      const block = nose === undefined ? LINE : pieces[nose.piece]!.block;
      return blocks.has(block) && controller.isOn('occupied', block) ? block : LINE;
    });
    return [...at, ...turns.map(({ slot }) => controller.values[slot]!)].join();
  };

/** What such a text says. */
export function readStanding(text: string, trains: number): Standing {
  const all = text.split(',').map(Number);
  return {
    trains: all.slice(0, trains).map((block) => (block === LINE ? undefined : block)),
    turns: all.slice(trains).map((value) => value === 1),
  };
}
