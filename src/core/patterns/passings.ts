import type { Block, SpotPair } from '../detection';
import { and, type Expr, name, not, or, previous } from '../logic';
import * as names from './names';
import type { RuleBook } from './rule-book';

/** That something is over the spots at an end of a block, and that it has just come in there, or gone out. */
export interface Passing {
  over: Expr;
  came: Expr;
  went: Expr;
}

/**
 * Two spots that notice the same thing at once for a while: it came from the side of the one that noticed it first, and has gone to the side of the one
 * that noticed it last. Coming out the way it came in it has not passed.
 */
export function passingOver(book: RuleBook, block: Block, nth: number, { inner, outer }: SpotPair): Passing {
  const of = (what: string) => names.atEnd(block, nth, what);
  const [atInner, atOuter] = [name(names.detect(inner)), name(names.detect(outer))];
  const over = of('over');
  const rule = (what: string, expr: Expr, yes: string) =>
    book.rule(of(what), 'bool', expr, {
      about: block.id,
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
  return {
    over: name(over),
    came: and(ended, name(of('inwards')), name(of('within'))),
    went: and(ended, name(of('outwards')), not(name(of('within')))),
  };
}

/** What people say of a block that they alone can put right. */
export function saidOf(book: RuleBook, block: Block): { taken: Expr; freed: Expr } {
  const about = block.id;
  book.input(['said occupied', block.index], names.taken(block), 'bool', {
    about,
    yes: `A person says that a train stands in ${block.name}`,
    no: `Nobody says that a train stands in ${block.name}`,
  });
  book.input(['said free', block.index], names.freed(block), 'bool', {
    about,
    yes: `A person says that ${block.name} is free`,
    no: `Nobody says that ${block.name} is free`,
  });
  return { taken: name(names.taken(block)), freed: name(names.freed(block)) };
}
