import type { System } from '../../system';
import { bitsOf } from '../engine/bits';
import type { ProofTrain } from './proof-train';

/** In place of the one signal before a train: there is none, or there are several things. */
export const [NONE, SEVERAL] = [-1, -2];

/** What sees a train, and what matters to its driver, for each of its placements. */
export interface Sight {
  /** The one signal before it, whatever the points; NONE, or SEVERAL. */
  alone: Int32Array;
  /** The sensors that notice it, as bits; and a last time for a train that is off the track. */
  seenBy: Int32Array;
  /** Signals before it, and turnouts that it lies over, comes onto or that decide what comes, now or one step on, as bits: signals first. */
  looksAt: Int32Array;
}

export function sightOf(
  { placements }: ProofTrain,
  { partition, readings, sensors: all }: System,
  words: { inputs: number; things: number },
): Sight {
  const numbers = new Map(all.map(({ id }, s) => [id, s]));
  const watching = partition.fields.all.map(({ sensors }) => sensors.map((id) => numbers.get(id)!));
  const looks = placements.map(({ before, over, advances }) => {
    const deciding = [...before.flatMap((thing) => thing.over), ...advances.flatMap(({ turnouts }) => turnouts)];
    const turnouts = [...over, ...deciding.map(({ motor }) => motor)];
    return [
      ...before.flatMap(({ signal }) => (signal >= 0 ? [signal] : [])),
      ...turnouts.map((t) => readings.length + t),
    ];
  });
  const seenBy = [...placements.map(({ detected }) => detected), []];
  return {
    alone: Int32Array.from(placements, ({ before: [thing, ...more] }) =>
      !thing ? NONE : more.length + thing.over.length > 0 || thing.signal < 0 ? SEVERAL : thing.signal,
    ),
    seenBy: Int32Array.from(
      seenBy.flatMap((fields) =>
        bitsOf(
          fields.flatMap((field) => watching[field]!),
          words.inputs,
        ),
      ),
    ),
    looksAt: Int32Array.from(
      placements.flatMap(({ advances }, p) => {
        const known = new Set([p, ...advances.map(({ to }) => to)].flatMap((at) => looks[at]!));
        return bitsOf([...known], words.things);
      }),
    ),
  };
}
