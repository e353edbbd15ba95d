import { type Expr, name, or } from '../logic';
import * as names from './names';
import { saidOf } from './passings';
import type { Pattern } from './pattern';

/**
 * A block of which nothing is noticed that would tell that it is free: a timer assumes so some time after a spot in it noticed something last; at
 * a virtual end people say so, and a spot in it says that a train has come. Both count as occupied at power-up, the one for its time, the
 * other until somebody says otherwise.
 */
export const assumed: Pattern = {
  id: 'assumed',
  general({ partition }, book) {
    for (const block of partition.blocks) {
      const told = partition.told.get(block.index);
      if (told?.by !== 'time' && told?.by !== 'people') continue;
      const { sensor, setOff } = told;
      const { taken, freed } = saidOf(book, block);
      const comes = or(...setOff.map((spot) => name(names.detect(spot))), taken);
      const about = sensor.id;
      const rule = (expr: Expr, yes: string, no: string) =>
        book.rule(names.inside(block), 'bool', expr, { about, yes, no });
      if (told.by === 'time')
        rule(
          { op: 'TOF', in: comes, ms: sensor.holdMs, starts: true },
          `${sensor.name} runs: a train was noticed in ${block.name}, or it was switched on, less than its time ago`,
          `${sensor.name} has run out: ${block.name} is assumed to be free`,
        );
      else
        rule(
          { op: 'RS', set: comes, reset: freed, starts: true },
          `Nobody has said that ${block.name} is free since a train came, or since power-up`,
          `Somebody has said that ${block.name} is free, and nothing has said otherwise`,
        );
    }
  },
  occupied({ partition }, block) {
    const told = partition.told.get(block.index);
    if (told?.by === 'time')
      return [{ expr: name(names.inside(block)), says: `${told.sensor.name} has not run out in ${block.name}` }];
    if (told?.by === 'people')
      return [{ expr: name(names.inside(block)), says: `nobody has said that ${block.name} is free` }];
    return [];
  },
};
