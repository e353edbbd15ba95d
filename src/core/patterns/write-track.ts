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

/** Sections whose power rules decide. */
export function writePower(scheme: Scheme, book: RuleBook): void {
  for (const section of scheme.partition.sections) {
    const terms = gather('power', scheme, section, book.declarations);
    if (terms.length === 0) continue;
    const head = names.headOf(scheme.partition, section);
    book.output(['power', section.index], names.power(head), 'power', combine('power', terms), {
      about: head.id,
      yes: `The power of ${head.name} is {}`,
      no: '',
    });
  }
}

/** Lamps that belong to sensors. */
export function writeLamps(scheme: Scheme, book: RuleBook): void {
  for (const [index, sensor] of scheme.document.sensors.entries()) {
    const terms = gather('lamp', scheme, sensor);
    if (terms.length === 0) continue;
    book.output(['lamp', index], names.lamp(sensor), 'lamp', combine('lamp', terms), {
      about: sensor.id,
      yes: `The lamp of ${sensor.name} is {}`,
      no: '',
    });
  }
}
