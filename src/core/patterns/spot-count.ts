import { and, type Expr, name, not, or, previous, when } from '../logic';
import * as names from './names';
import { type Passing, passingOver, saidOf } from './passings';
import type { Pattern } from './pattern';

const no: Expr = { op: 'false' };

/**
 * A block that nothing watches throughout is inferred by counting, in and out, what passes two spots at each of its ends. It is free when as many have gone
 * out as came in and somebody has said once that it was empty. A count that cannot be right counts as occupied until somebody says that it is free:
 * more than it can hold, two things at two ends within one scan, and whatever stood there at power-up.
 */
export const spotCount: Pattern = {
  id: 'spot count',
  general({ partition }, _, book) {
    for (const block of partition.blocks) {
      const inferred = partition.inferred.get(block.index);
      if (inferred?.by !== 'count') continue;
      const { bits, what } = inferred.inPairs.counts!;
      const about = block.id;
      const passings = inferred.pairs.map((pair, nth) => passingOver(book, block, nth, pair));
      const said = saidOf(book, block);
      /** What is over the spots is counted when it has gone: said before, the count would be wrong at once. */
      const freed = and(said.freed, ...passings.map(({ over }) => not(over)));
      const bit = (nth: number) => names.atEnd(block, nth, 'bit');
      const all = Array.from({ length: bits }, (_, nth) => nth);
      const before = all.map((nth) => previous(bit(nth)));
      const [came, went] = [or(...passings.map((one) => one.came)), or(...passings.map((one) => one.went))];
      const up = and(came, not(went));
      const down = and(went, not(came), or(...before));
      for (const nth of all) {
        const lower = before.slice(0, nth);
        const turns = or(and(up, ...lower), and(down, ...lower.map(not)));
        book.rule(bit(nth), 'bool', when(freed, no, when(turns, not(before[nth]!), before[nth]!)), {
          about,
          yes: `The count of ${what} in ${block.name} has its ${2 ** nth}`,
          no: `The count of ${what} in ${block.name} has no ${2 ** nth}`,
        });
      }
      const full = and(up, ...before);
      book.rule(
        names.unsure(block),
        'bool',
        { op: 'RS', set: or(said.taken, full, ...atOnce(passings)), reset: freed, starts: true },
        {
          about,
          yes: `Nobody knows how many ${what} are in ${block.name}: somebody has to look, and say so when it is free`,
          no: `The count in ${block.name} can be right`,
        },
      );
      book.flag(
        ['inferred', block.index],
        names.inside(block),
        'bool',
        or(name(names.unsure(block)), ...all.map((nth) => name(bit(nth)))),
        {
          about,
          yes: `More ${what} came into ${block.name} than have gone out, or nobody knows how many`,
          no: `As many ${what} have gone out of ${block.name} as came in`,
        },
      );
    }
  },
  occupied({ partition }, block) {
    const inferred = partition.inferred.get(block.index);
    if (inferred?.by !== 'count') return [];
    const { what } = inferred.inPairs.counts!;
    return [
      { expr: name(names.inside(block)), says: `not as many ${what} have gone out of ${block.name} as came in` },
      ...inferred.pairs.map(({ inner }) => ({
        expr: name(names.detect(inner)),
        says: `${inner.name} notices something`,
      })),
    ];
  },
};

/** Two ends at which something passes in the same scan, whichever way: only one of them would be counted. */
const atOnce = (passings: readonly Passing[]): Expr[] =>
  passings.flatMap((one, nth) =>
    passings.slice(0, nth).map((other) => and(or(one.came, one.went), or(other.came, other.went))),
  );
