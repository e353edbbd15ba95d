import type { BlockId } from '../detection';
import { namesIn, type Program } from '../logic';
import { names } from '../patterns';
import type { Design } from './check-design';
import type { FreeLayout } from './free-layout';
import { towards } from './towards';

/** What each signal shows to a train that comes to it, while another one stands in a block. */
export interface AspectMatrix {
  signals: { id: string; name: string; rear: string }[];
  /** With no other train on the layout: the aspect of each signal. */
  alone: string[];
  /** The other train’s block; undefined where it stands in the block from which the signal is read. */
  rows: { block: BlockId; name: string; aspects: (string | undefined)[] }[];
}

/** Which of the signals, by number: of a long line not all at once. */
export interface Some {
  from: number;
  to: number;
}
export const ALL: Some = { from: 0, to: Number.POSITIVE_INFINITY };

/**
 * Every cell is what the rules make of two axles: one in the block from which the signal is read, told to have come towards it,
 * and one in the row’s block. A block of which no rule of the signal hears changes nothing, and is not tried.
 */
export function aspectMatrix({ scheme, program }: Design, free: FreeLayout, some: Some = ALL): AspectMatrix {
  const { partition, stretches, aspects } = scheme;
  const readings = scheme.readings.slice(some.from, some.to);
  const hearsOf = blocksHeard(
    program,
    new Map(partition.blocks.map((block) => [block.id, block.section])),
    partition.sections,
  );
  const columns = readings.map((reading) => {
    const rear = partition.blocks[reading.rear]!.id;
    const told = towards(reading, stretches);
    const slot = free.compiled.slots.get(names.shows(reading.signal))!;
    const shows = (...occupied: BlockId[]) => aspects[free.setDown(new Set(occupied), told)[slot]!]!.id;
    const heard = hearsOf(names.shows(reading.signal));
    const alone = shows(rear);
    return {
      alone,
      cell: (block: BlockId) => (block === rear ? undefined : heard.has(block) ? shows(rear, block) : alone),
    };
  });
  return {
    signals: readings.map(({ signal: { id, name }, rear }) => ({ id, name, rear: partition.blocks[rear]!.name })),
    alone: columns.map(({ alone }) => alone),
    rows: partition.blocks.map(({ id, name }) => ({ block: id, name, aspects: columns.map(({ cell }) => cell(id)) })),
  };
}

/** The blocks of whose sensors a rule hears, itself or by other rules. */
function blocksHeard(
  { declarations }: Program,
  sectionOf: ReadonlyMap<BlockId, number>,
  sections: Design['scheme']['partition']['sections'],
): (rule: string) => ReadonlySet<BlockId> {
  const needs = new Map(declarations.map(({ name, expr }) => [name, expr ? [...namesIn(expr)] : []]));
  const blocks = [...sectionOf].map(([block, section]) => ({
    block,
    inputs: [names.taken({ id: block }), ...sections[section]!.sensors.map((id) => names.detect({ id }))],
  }));
  return (rule) => {
    const heard = new Set([rule]);
    for (const one of heard) for (const other of needs.get(one) ?? []) heard.add(other);
    return new Set(blocks.filter(({ inputs }) => inputs.some((input) => heard.has(input))).map(({ block }) => block));
  };
}
