import { and, type Expr, name, not, or, previous } from '../logic';
import type { Sensor } from '../survey';
import * as names from './names';
import { saidOf } from './passings';
import type { Pattern } from './pattern';

/**
 * A block of which nothing is noticed that would tell that it is free: a timer assumes so some time after a spot in it noticed something last; at
 * a virtual end people say so, and a spot in it says that a train has come; a toggle is turned over by each pulse of a spot; a chained board is set by
 * the nose of a train over a spot in it, and reset by the nose over the next one beyond. All count as occupied at power-up, the timer for its time,
 * the others until somebody, or a spot, says otherwise.
 */
export const assumed: Pattern = {
  id: 'assumed',
  general({ partition }, _, book) {
    for (const block of partition.blocks) {
      const inferred = partition.inferred.get(block.index);
      if (!inferred || !('sensor' in inferred)) continue;
      const { sensor, setOff } = inferred;
      const spots = setOff.map((spot) => name(names.detect(spot)));
      const about = sensor.id;
      const rule = (expr: Expr, yes: string, no: string) =>
        book.flag(['inferred', block.index], names.inside(block), 'bool', expr, { about, yes, no });
      if (inferred.by === 'time') {
        rule(
          { op: 'TOF', in: or(...spots), ms: sensor.holdMs, starts: true },
          `${sensor.name} runs: a train was noticed in ${block.name}, or it was switched on, less than its time ago`,
          `${sensor.name} has run out: ${block.name} is assumed to be free`,
        );
        continue;
      }
      const { taken, freed } = saidOf(book, block);
      if (inferred.by === 'turns') {
        const turned = previous(names.inside(block));
        const pulse: Expr = { op: 'R_TRIG', in: or(...spots), starts: true };
        rule(
          { op: 'RS', set: or(taken, and(pulse, not(turned))), reset: or(freed, and(pulse, turned)), starts: true },
          `${sensor.name} was turned to occupied by the last pulse in ${block.name}, or by power-up`,
          `${sensor.name} was turned to free by the last pulse in ${block.name}, or by somebody`,
        );
      } else if (inferred.by === 'nose') {
        /** Once for each train: what is noticed of it is kept over the gaps between its cars. */
        const nose = (spot: Sensor): Expr => ({ op: 'R_TRIG', in: name(names.seen(spot)), starts: true });
        const gone = inferred.out.flatMap(({ next }) => next);
        rule(
          { op: 'RS', set: or(...setOff.map(nose), taken), reset: or(...gone.map(nose), freed), starts: true },
          `A train, or power-up, has set ${sensor.name}, and no nose has come to the next spot since`,
          `The nose of a train has come out of ${block.name} to the next spot, or somebody has said that it is free`,
        );
      } else
        rule(
          { op: 'RS', set: or(...spots, taken), reset: freed, starts: true },
          `Nobody has said that ${block.name} is free since a train came, or since power-up`,
          `Somebody has said that ${block.name} is free, and nothing has said otherwise`,
        );
    }
  },
  occupied({ partition }, block) {
    const inferred = partition.inferred.get(block.index);
    if (inferred?.by === 'time')
      return [{ expr: name(names.inside(block)), says: `${inferred.sensor.name} has not run out in ${block.name}` }];
    if (inferred?.by === 'turns')
      return [
        { expr: name(names.inside(block)), says: `${inferred.sensor.name} stands at occupied for ${block.name}` },
      ];
    if (inferred?.by === 'nose')
      return [{ expr: name(names.inside(block)), says: `no nose has come out of ${block.name} yet` }];
    if (inferred?.by === 'people')
      return [{ expr: name(names.inside(block)), says: `nobody has said that ${block.name} is free` }];
    return [];
  },
};
