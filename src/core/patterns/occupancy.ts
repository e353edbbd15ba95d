import { name, or } from '../logic';
import * as names from './names';
import { RuleBook, type Scheme, SETTLE_MS } from './scheme';

/** What detectors say becomes what blocks are: drop-outs are held over, and what no detector sees counts as occupied. */
export function occupancyRules(scheme: Scheme): RuleBook {
  const book = new RuleBook('occupancy');
  const { document, partition } = scheme;
  book.rule(
    names.SETTLED,
    'bool',
    { op: 'TON', in: { op: 'true' }, ms: SETTLE_MS, starts: false },
    {
      about: 'power-up',
      yes: 'The inputs have settled since power-up',
      no: 'The inputs have not settled since power-up',
    },
  );
  const detectors = new Map(document.detectors.map((detector) => [detector.id, detector]));
  for (const detector of document.detectors) {
    book.input(names.detect(detector.name), 'bool', {
      about: detector.id,
      yes: `Detector ${detector.name} sees a train`,
      no: `Detector ${detector.name} sees nothing`,
    });
    book.rule(
      names.seen(detector.name),
      'bool',
      { op: 'TOF', in: name(names.detect(detector.name)), ms: detector.holdMs, starts: true },
      {
        about: detector.id,
        yes: `Detector ${detector.name} counts as seeing a train: it does, or it did, or was switched on, less than its hold time ago`,
        no: `Detector ${detector.name} has seen nothing for its hold time`,
      },
    );
  }
  for (const block of partition.blocks) {
    const own = partition.sections[block.section]!.detectors;
    const expr =
      own.length === 0 ? ({ op: 'true' } as const) : or(...own.map((id) => name(names.seen(detectors.get(id)!.name))));
    const blind = own.length === 0;
    book.rule(names.occupied(block.name), 'bool', expr, {
      about: block.name,
      fact: 'always',
      yes: blind ? `${block.name} has no detector, so it counts as occupied` : `${block.name} is occupied`,
      no: `${block.name} is free`,
    });
  }
  return book;
}
