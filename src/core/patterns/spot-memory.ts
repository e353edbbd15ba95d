import { name, or } from '../logic';
import * as names from './names';
import { passingOver, saidOf } from './passings';
import type { Pattern } from './pattern';

/**
 * A block that nothing watches throughout is told by two spots at each of its ends: a train that leaves the inner one last, having come to
 * the outer one first, is in; the other way about it is out. It counts as occupied from power-up until a person says that it is free, or a
 * train has come out; and for as long as an inner spot sees anything.
 */
export const spotMemory: Pattern = {
  id: 'spot memory',
  general({ partition }, book) {
    for (const block of partition.blocks) {
      const told = partition.told.get(block.index);
      if (told?.by !== 'last spot') continue;
      const passings = told.pairs.map((pair, nth) => passingOver(book, block, nth, pair));
      const { taken, freed } = saidOf(book, block);
      book.rule(
        names.inside(block),
        'bool',
        {
          op: 'RS',
          set: or(...passings.map(({ came }) => came), taken),
          reset: or(...passings.map(({ went }) => went), freed),
          starts: true,
        },
        {
          about: block.id,
          yes: `A train came into ${block.name} and has not come out, or nobody has said yet that it is free`,
          no: `What came into ${block.name} has come out again`,
        },
      );
    }
  },
  occupied({ partition }, block) {
    const told = partition.told.get(block.index);
    if (told?.by !== 'last spot') return [];
    return [
      { expr: name(names.inside(block)), says: `what came into ${block.name} has not come out` },
      ...told.pairs.map(({ inner }) => ({ expr: name(names.detect(inner)), says: `${inner.name} sees a train` })),
    ];
  },
};
