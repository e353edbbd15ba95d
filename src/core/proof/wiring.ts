import { POWER_LEVELS } from '../kinds';
import type { Compiled, Program } from '../logic';
import { names, postsOf } from '../patterns';
import { type Command, isSaid, type Rehearsal, TICK_MS } from '../simulation';
import { locksOf } from './locks';

/** Where a rule program meets the plant: slots of its inputs and outputs, each in the order of the document’s lists. */
export interface Wiring {
  program: Program;
  compiled: Compiled;
  detects: number[];
  /** Outputs that can cut a section off, with the sensors that notice nothing then. */
  powers: { slot: number; detects: number[] }[];
  points: number[];
  drives: number[];
  /** The locks that refuse a request for a turnout; none where requests may do anything else. */
  refusedBy: number[][];
  aspects: number[];
  /** Blocks of which people can say that they are free: the input, and the rule that says that they are not. */
  frees: { block: number; slot: number; inside: number }[];
  /** Inputs that people work, at any moment. */
  hands: Hand[];
}

/** An input that people work: on, and off again. */
export interface Hand {
  slot: number;
  says(on: boolean): string;
  command(on: boolean): Command;
}

/** What a program holds in the moment from which it is looked at. */
export interface Standing {
  values: Int32Array;
  before: Int32Array;
  state: Int32Array;
  /** How each turnout lies: 0 straight, 1 diverging. */
  turnouts: number[];
  /** Of each output for power, whether its section is cut off. */
  dead: number[];
  nowMs: number;
}

export function wiringOf(start: Rehearsal, mayHold: boolean): Wiring {
  const { document, compiled, program, scheme } = start;
  const slot = (name: string) => compiled.slots.get(name)!;
  const { sensors } = document;
  const { motors } = scheme.partition.graph;
  return {
    program,
    compiled,
    detects: sensors.map((sensor) => slot(names.detect(sensor))),
    powers: powersOf(start),
    points: motors.map((motor) => slot(names.points(motor))),
    drives: motors.map((motor) => slot(names.drive(motor))),
    refusedBy: motors.map((motor) => locksOf(program, motor).map(slot)),
    aspects: [...start.readSlots],
    frees: scheme.partition.blocks.flatMap((block) =>
      isSaid(scheme.partition, block.index)
        ? [{ block: block.index, slot: slot(names.freed(block)), inside: slot(names.inside(block)) }]
        : [],
    ),
    hands: [...(mayHold ? holdsOf(start) : []), ...postHands(start)],
  };
}

const holdsOf = ({ scheme, compiled }: Rehearsal): Hand[] =>
  scheme.readings.map(({ signal: { id, name } }) => ({
    slot: compiled.slots.get(names.hold({ id }))!,
    says: (on) => (on ? `Somebody holds ${name} at stop.` : `Somebody lets ${name} work again.`),
    command: (on) => ({ kind: 'hold', signal: id, on }),
  }));

/** Posts are taken and left, and buttons of their signals pressed and let go. */
const postHands = ({ scheme, compiled }: Rehearsal): Hand[] =>
  postsOf(scheme).flatMap(({ id, name, readings }) => [
    {
      slot: compiled.slots.get(names.manned({ id }))!,
      says: (on) => `Somebody ${on ? 'takes' : 'leaves'} the post of ${name}.`,
      command: (on): Command => ({ kind: 'man', post: id, on }),
    },
    ...readings.map(({ signal }) => ({
      slot: compiled.slots.get(names.give(signal))!,
      says: (on: boolean) =>
        on ? `Somebody clears ${signal.name} for one train.` : `The button of ${signal.name} is let go.`,
      command: (on: boolean): Command => ({ kind: 'give', signal: signal.id, on }),
    })),
  ]);

function powersOf({ program, compiled, scheme }: Rehearsal): Wiring['powers'] {
  const { fields } = scheme.partition;
  return program.declarations.flatMap(({ name, commands }) => {
    if (commands?.kind !== 'power') return [];
    const fed = [...fields.ofSensor.keys()].filter((s) => fields.all[fields.ofSensor[s]!]!.fedBy === commands.of);
    return [{ slot: compiled.slots.get(name)!, detects: fed }];
  });
}

export const standingOf = ({ evaluator, plant, program, tick }: Rehearsal): Standing => ({
  values: evaluator.values,
  before: evaluator.before,
  state: evaluator.state,
  dead: program.declarations.flatMap(({ commands }) =>
    commands?.kind === 'power' ? [POWER_LEVELS[plant.power[commands.of]!]!.feeds ? 0 : 1] : [],
  ),
  turnouts: plant.motors.map(({ position }) => (position === 'diverging' ? 1 : 0)),
  nowMs: tick * TICK_MS,
});
