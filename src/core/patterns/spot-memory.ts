import type { Block } from '../detection';
import { and, name, not, or, previous } from '../logic';
import * as names from './names';
import { passingOver, saidOf } from './passings';
import type { Pattern } from './pattern';

const reached = (block: Block, nth: number): string => names.atEnd(block, nth, 'reached');

/**
 * A block that nothing watches throughout is told by two spots at each of its ends: a train that leaves the inner one last, having come to
 * the outer one first, is in; the other way about it is out. It counts as occupied from power-up until a person says that it is free, or a
 * train has come out; and from when anything is at an inner spot until it is at neither: between the two it may still be in.
 */
export const spotMemory: Pattern = {
  id: 'spot memory',
  general({ partition }, _, book) {
    for (const block of partition.blocks) {
      const inferred = partition.inferred.get(block.index);
      if (inferred?.by !== 'last spot') continue;
      const passings = inferred.pairs.map((pair, nth) => passingOver(book, block, nth, pair));
      inferred.pairs.forEach(({ inner, outer }, nth) => {
        const over = names.atEnd(block, nth, 'over');
        book.rule(
          reached(block, nth),
          'bool',
          {
            op: 'RS',
            set: name(names.detect(inner)),
            reset: and(not(name(over)), not(previous(over))),
            starts: false,
          },
          {
            about: block.id,
            yes: `What is at that end of ${block.name} has been at its inner spot (${outer.name} and ${inner.name})`,
            no: `Nothing at that end of ${block.name} has been at its inner spot (${outer.name} and ${inner.name})`,
          },
        );
      });
      const { taken, freed } = saidOf(book, block);
      book.flag(
        ['inferred', block.index],
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
    const inferred = partition.inferred.get(block.index);
    if (inferred?.by !== 'last spot') return [];
    return [
      { expr: name(names.inside(block)), says: `what came into ${block.name} has not come out` },
      ...inferred.pairs.map(({ inner, outer }, nth) => ({
        expr: name(reached(block, nth)),
        says: `${inner.name} has seen what ${inner.name} or ${outer.name} sees`,
      })),
    ];
  },
};
