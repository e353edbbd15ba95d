import { and, type Expr, name, not, or, previous } from '../logic';
import * as names from './names';
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
      const pairs = partition.told.get(block.index);
      if (!pairs) continue;
      const about = block.id;
      const [came, went]: [Expr[], Expr[]] = [[], []];
      pairs.forEach(({ inner, outer }, nth) => {
        const of = (what: string) => names.atEnd(block, nth, what);
        const [atInner, atOuter] = [name(names.detect(inner)), name(names.detect(outer))];
        const over = of('over');
        const rule = (what: string, expr: Expr, yes: string) =>
          book.rule(of(what), 'bool', expr, {
            about,
            yes: `${yes} (${outer.name} and ${inner.name})`,
            no: `It is not so that ${yes.charAt(0).toLowerCase()}${yes.slice(1)} (${outer.name} and ${inner.name})`,
          });
        rule('over', or(atInner, atOuter), `Something is over the spots at an end of ${block.name}`);
        /** Both are kept for a scan longer than anything is over them: then it is asked what has happened. */
        const gone = and(not(name(over)), not(previous(over)));
        const first = (one: Expr, other: Expr) => and(one, not(other), not(previous(over)));
        rule(
          'inwards',
          { op: 'RS', set: first(atOuter, atInner), reset: gone, starts: true },
          `What is there came from beyond ${block.name}`,
        );
        rule(
          'outwards',
          { op: 'RS', set: first(atInner, atOuter), reset: gone, starts: false },
          `What is there came from within ${block.name}`,
        );
        rule(
          'within',
          { op: 'RS', set: and(atInner, not(atOuter)), reset: and(atOuter, not(atInner)), starts: false },
          `The inner spot was the last to see something at that end of ${block.name}`,
        );
        const ended = and(previous(over), not(name(over)));
        came.push(and(ended, name(of('inwards')), name(of('within'))));
        went.push(and(ended, name(of('outwards')), not(name(of('within')))));
      });
      book.input(names.taken(block), 'bool', {
        about,
        yes: `A person says that a train stands in ${block.name}`,
        no: `Nobody says that a train stands in ${block.name}`,
      });
      book.input(names.freed(block), 'bool', {
        about,
        yes: `A person says that ${block.name} is free`,
        no: `Nobody says that ${block.name} is free`,
      });
      book.rule(
        names.inside(block),
        'bool',
        {
          op: 'RS',
          set: or(...came, name(names.taken(block))),
          reset: or(...went, name(names.freed(block))),
          starts: true,
        },
        {
          about,
          yes: `A train came into ${block.name} and has not come out, or nobody has said yet that it is free`,
          no: `What came into ${block.name} has come out again`,
        },
      );
    }
  },
  occupied({ partition }, block) {
    const pairs = partition.told.get(block.index);
    if (!pairs) return [];
    return [
      { expr: name(names.inside(block)), says: `what came into ${block.name} has not come out` },
      ...pairs.map(({ inner }) => ({ expr: name(names.detect(inner)), says: `${inner.name} sees a train` })),
    ];
  },
};
