import type { Block } from '../detection';
import { combine, gather } from './gather';
import * as names from './names';
import type { RuleBook } from './rule-book';
import type { Scheme } from './scheme';

/** Blocks, all or some, and whether they are occupied. */
export function writeBlocks(scheme: Scheme, book: RuleBook, blocks: readonly Block[] = scheme.partition.blocks): void {
  for (const block of blocks) {
    const terms = gather('occupied', scheme, block);
    const blind = terms.length === 0;
    book.flag(['occupied', block.index], names.occupied(block), 'bool', combine('occupied', terms), {
      about: block.id,
      fact: 'always',
      yes: blind ? `${block.name} has no detector, so it counts as occupied` : `${block.name} is occupied`,
      no: `${block.name} is free`,
    });
  }
}
