import { Packing, type PackingMachine } from '../engine/packing';
import { committedValues } from './committed';
import type { ProofTrain } from './proof-train';
import { ORDERS } from './touch';

/** A state of the rules is one whole word. */
const MOST_RULE_STATES = 2 ** 32;
const twosOf = (trains: number) => (trains * (trains - 1)) / 2;

/** What a state says of the plant. */
export interface Present {
  /** The placement of each train, and what it is committed to pass (`committed.ts`). */
  at: Int32Array;
  committed: Int32Array;
  /** How turnouts lie: straight, diverging, or on the way there (`MOVING`). */
  turnouts: Int32Array;
  /** For each pair of trains on one piece of track, which lies lower (`touch.ts`). */
  orders: Int32Array;
}

/** What is packed of a state: where each train is, what it is committed to pass, how pairs are ordered, and last the state of the rules. */
export function plantMachine(trains: ProofTrain[], mayLift: boolean): PackingMachine {
  const packing = new Packing();
  const count = trains.length;
  const twos = twosOf(count);
  for (const [t, { placements }] of trains.entries()) packing.field(t, placements.length + (mayLift ? 1 : 0));
  for (const [t, { placements }] of trains.entries()) {
    const things = Math.max(...placements.map(({ before }) => before.length));
    if (things > 0) packing.field(count + t, committedValues(things));
  }
  for (let i = 0; i < twos; i++) packing.field(2 * count + i, ORDERS);
  packing.field(2 * count + twos, MOST_RULE_STATES);
  return packing.start(2 * count + twos + 1);
}

/** The parts of these fields; how turnouts lie belongs to the state of the rules, and is written out beside them. */
export const presentIn = (fields: Int32Array, trains: number, turnouts: number): Present => ({
  at: fields.subarray(0, trains),
  committed: fields.subarray(trains, 2 * trains),
  turnouts: new Int32Array(turnouts),
  orders: fields.subarray(2 * trains, 2 * trains + twosOf(trains)),
});
