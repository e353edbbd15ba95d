import { isSaid } from '../../detection';
import { faultsIn, sayFault } from '../../faults';
import { POWER_LEVELS } from '../../kinds';
import type { Compiled, Program } from '../../logic';
import { assumedPosition } from '../../patterns';
import { type Command, type Rehearsal, TICK_MS } from '../../simulation';
import type { Automatic, Commanded, Release, System } from '../../system';
import { locksOf } from './locks';

/** Where a rule program meets the plant: slots of its inputs and outputs, each in the order of what they belong to. */
export interface Wiring {
  program: Program;
  compiled: Compiled;
  detects: number[];
  /** Outputs that can cut a section off, with the sensors that notice nothing then. */
  powers: { slot: number; detects: number[] }[];
  points: number[];
  drives: number[];
  /** Of each timer, the motor that has moved over before it ends, where there is one. */
  outlasts: (number | undefined)[];
  /** The locks that refuse a request for a turnout; none where requests may do anything else. */
  refusedBy: number[][];
  aspects: number[];
  /** Of each aspect, by its number, whether it orders trains to stop at the signal. */
  stops: boolean[];
  /** Blocks of which people can say that they are free: the input, and the rule that says that they are not. */
  frees: { block: number; slot: number; inside: number; taken: number }[];
  /** Runs that people can give up, and routes that they set and cancel; whether these are cancelled in the face of a train, too. */
  releases: readonly Release[];
  commanded: readonly Commanded[];
  cancelsAtAnyMoment: boolean;
  /** What works by itself and waits for pulses that people can give. */
  pulsed: readonly Automatic[];
  /** Inputs that are worked at any moment: by people, or by what fails. */
  hands: Hand[];
}

/** An input that is worked: on, and off again. */
export interface Hand {
  slot: number;
  /** Not people work it, but something fails while it is on. */
  fails?: true;
  says(on: boolean): string;
  command(on: boolean): Command;
  /** Of something that may be refused: that it was not. */
  took?(run: Rehearsal): boolean;
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

export function wiringOf(system: System, mayHold: boolean, maySwitch = false): Wiring {
  const { compiled, program, terminals, partition, sensors, readings } = system;
  const { motors } = partition.graph;
  return {
    program,
    compiled,
    detects: sensors.map((_, s) => terminals.slot('detector', s)),
    powers: powersOf(system),
    points: motors.map((_, m) => terminals.slot('contact', m)),
    drives: motors.map((_, m) => terminals.slot('drive', m)),
    outlasts: outlastsOf(system),
    refusedBy: motors.map((_, m) => locksOf(system, m)),
    aspects: readings.map((_, s) => (terminals.find('read', s) ?? terminals.find('aspect', s))!.slot),
    stops: system.aspects.map(({ stopsIn }) => stopsIn === 0),
    frees: partition.blocks.flatMap(({ index }) =>
      isSaid(partition, index)
        ? [
            {
              block: index,
              slot: terminals.slot('said free', index),
              inside: terminals.slot('inferred', index),
              taken: terminals.slot('said occupied', index),
            },
          ]
        : [],
    ),
    releases: system.releases,
    commanded: system.commanded,
    cancelsAtAnyMoment: mayHold,
    pulsed: maySwitch ? system.automatic.filter(({ pulse }) => pulse !== undefined) : [],
    hands: [
      ...(mayHold ? holdsOf(system) : []),
      ...(maySwitch ? switchesOf(system) : []),
      ...postHands(system),
      ...faultHands(system),
    ],
  };
}

/** A timer that begins as a motor is sent, and takes longer than that does. */
function outlastsOf({ compiled, program, terminals, partition }: System): Wiring['outlasts'] {
  const motorOf = new Map(terminals.ofKind('sent').map(({ name, of }) => [name, of]));
  const rules = new Map(program.declarations.map((one) => [one.name, one]));
  return compiled.timerRules.map(({ name }) => {
    const [motor, rule] = [motorOf.get(name), rules.get(name)];
    if (motor === undefined || rule?.expr?.op !== 'TON' || rule.why?.pattern !== assumedPosition.id) return undefined;
    return rule.expr.ms > partition.graph.motors[motor]!.throwMs ? motor : undefined;
  });
}

const holdsOf = ({ readings, terminals }: System): Hand[] =>
  readings.map(({ signal: { id, name }, index }) => ({
    slot: terminals.slot('hold', index),
    says: (on) => (on ? `Somebody holds ${name} at stop.` : `Somebody lets ${name} work again.`),
    command: (on) => ({ kind: 'hold', signal: id, on }),
  }));

const switchesOf = ({ automatic }: System): Hand[] =>
  automatic.map(({ id, name, what, off }) => ({
    slot: off,
    says: (on) => `Automatic working of ${name} is switched ${on ? 'off' : 'on'}.`,
    command: (on) => ({ kind: 'switch automatic', thing: id, what, on: !on }),
  }));

/** Posts are taken and left, and buttons of their signals pressed and let go. */
const postHands = ({ posts, terminals }: System): Hand[] =>
  posts.flatMap(({ id, name, readings }, p) => [
    {
      slot: terminals.slot('post', p),
      says: (on) => `Somebody ${on ? 'takes' : 'leaves'} the post of ${name}.`,
      command: (on): Command => ({ kind: 'man', post: id, on }),
    },
    ...readings.map(({ signal, index }) => ({
      slot: terminals.slot('clear button', index),
      says: (on: boolean) =>
        on ? `Somebody clears ${signal.name} for one train.` : `The button of ${signal.name} is let go.`,
      command: (on: boolean): Command => ({ kind: 'give', signal: signal.id, on }),
      took: ({ controller }: Rehearsal) => controller.isOn('given', index),
    })),
  ]);

/** What fails does so at any moment, and is well again at any other. */
const faultHands = (system: System): Hand[] =>
  faultsIn(system).map(({ slot, fault }) => ({
    slot,
    fails: true,
    says: (on) => `${sayFault(system, fault, on)}.`,
    command: (on) => ({ kind: 'fail', ...fault, on }),
  }));

function powersOf({ terminals, partition: { fields } }: System): Wiring['powers'] {
  return terminals.ofKind('power').map(({ slot, of }) => ({
    slot,
    detects: [...fields.ofSensor.keys()].filter((s) => fields.all[fields.ofSensor[s]!]!.fedBy === of),
  }));
}

export const standingOf = ({ controller: { evaluator }, plant, system, tick }: Rehearsal): Standing => ({
  values: evaluator.values,
  before: evaluator.before,
  state: evaluator.state,
  dead: system.terminals.ofKind('power').map(({ of }) => (POWER_LEVELS[plant.power[of]!]!.feeds ? 0 : 1)),
  turnouts: plant.motors.map(({ position }) => (position === 'diverging' ? 1 : 0)),
  nowMs: tick * TICK_MS,
});
