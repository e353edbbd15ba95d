import type { Compiled, Program } from '../logic';
import { names } from '../patterns';
import { type Rehearsal, TICK_MS } from '../simulation';
import { locksOf } from './locks';

/** Where a rule program meets the plant: slots of its inputs and outputs, each in the order of the document’s lists. */
export interface Wiring {
  program: Program;
  compiled: Compiled;
  detects: number[];
  points: number[];
  drives: number[];
  /** The locks that refuse a request for a turnout; none where requests may do anything else. */
  refusedBy: number[][];
  aspects: number[];
  /** Inputs that hold a signal at stop by hand; none when nobody does. */
  holds: number[];
}

/** What a program holds in the moment from which it is looked at. */
export interface Standing {
  values: Int32Array;
  before: Int32Array;
  state: Int32Array;
  /** How each turnout lies: 0 straight, 1 diverging. */
  turnouts: number[];
  nowMs: number;
}

export function wiringOf({ document, compiled, program, scheme }: Rehearsal, mayHold: boolean): Wiring {
  const slot = (name: string) => compiled.slots.get(name)!;
  const { sensors } = document;
  const { motors } = scheme.partition.graph;
  return {
    program,
    compiled,
    detects: sensors.map(({ name }) => slot(names.detect(name))),
    points: motors.map(({ name }) => slot(names.points(name))),
    drives: motors.map(({ name }) => slot(names.drive(name))),
    refusedBy: motors.map(({ name }) => locksOf(program, name).map(slot)),
    aspects: scheme.readings.map(({ signal }) => slot(names.shows(signal.name))),
    holds: mayHold ? scheme.readings.map(({ signal }) => slot(names.hold(signal.name))) : [],
  };
}

export const standingOf = ({ evaluator, plant, tick }: Rehearsal): Standing => ({
  values: evaluator.values,
  before: evaluator.before,
  state: evaluator.state,
  turnouts: plant.motors.map(({ position }) => (position === 'diverging' ? 1 : 0)),
  nowMs: tick * TICK_MS,
});
