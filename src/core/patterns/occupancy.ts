import { sensorKind } from '../kinds';
import { name, or } from '../logic';
import * as names from './names';
import { RuleBook, type Scheme, SETTLE_MS } from './scheme';

/** What sensors say becomes what blocks are: drop-outs are held over, and track whose section none watches counts as occupied. */
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
  for (const { id, name: called, kind, holdMs } of document.sensors) {
    const { sees, seesNothing } = sensorKind(kind);
    book.input(names.detect(called), 'bool', {
      about: id,
      yes: `Detector ${called} ${sees}`,
      no: `Detector ${called} ${seesNothing}`,
    });
    book.rule(
      names.seen(called),
      'bool',
      { op: 'TOF', in: name(names.detect(called)), ms: holdMs, starts: true },
      {
        about: id,
        yes: `Detector ${called} counts as seeing a train: it does, or it did, or was switched on, less than its hold time ago`,
        no: `Detector ${called} has seen nothing for its hold time`,
      },
    );
  }
  for (const block of partition.blocks) {
    const { sensors } = partition.sections[block.section]!;
    const blind = sensors.length === 0;
    /** What watches a place alone can tell that a train is there, never that none is. */
    const own = document.sensors.filter(({ id }, s) => {
      const { section, blocks } = partition.fields.all[partition.fields.ofSensor[s]!]!;
      return section === undefined ? blocks.includes(block.index) : sensors.includes(id);
    });
    const expr = blind ? ({ op: 'true' } as const) : or(...own.map((sensor) => name(names.seen(sensor.name))));
    book.rule(names.occupied(block.name), 'bool', expr, {
      about: block.id,
      fact: 'always',
      yes: blind ? `${block.name} has no detector, so it counts as occupied` : `${block.name} is occupied`,
      no: `${block.name} is free`,
    });
  }
  return book;
}
