import type { BlockId } from '../detection';
import { namesIn } from '../logic';
import type { System } from '../system';
import { cameIn } from './came-in';
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
export function aspectMatrix(free: FreeLayout, some: Some = ALL): AspectMatrix {
  const { system } = free;
  const { partition, aspects, terminals } = system;
  const readings = system.readings.slice(some.from, some.to);
  const hearsOf = blocksHeard(system);
  const columns = readings.map((reading) => {
    const rear = partition.blocks[reading.rear]!.id;
    const told = towards(system, reading);
    const { slot, name } = terminals.find('aspect', reading.index)!;
    const shows = (...occupied: BlockId[]) => aspects[free.setDown(new Set(occupied), told)[slot]!]!.id;
    const heard = hearsOf(name);
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
function blocksHeard(system: System): (rule: string) => ReadonlySet<BlockId> {
  const { program, partition, terminals, sensors } = system;
  const needs = new Map(program.declarations.map(({ name, expr }) => [name, expr ? [...namesIn(expr)] : []]));
  const inputOf = new Map(sensors.map(({ id }, s) => [id, terminals.find('detector', s)!.name]));
  const blocks = partition.blocks.map(({ id, index, section }) => ({
    id,
    inputs: [
      ...cameIn(system, index).map(({ name }) => name),
      ...partition.sections[section]!.sensors.map((sensor) => inputOf.get(sensor)),
    ].flatMap((input) => input ?? []),
  }));
  return (rule) => {
    const heard = new Set([rule]);
    for (const one of heard) for (const other of needs.get(one) ?? []) heard.add(other);
    return new Set(blocks.filter(({ inputs }) => inputs.some((input) => heard.has(input))).map(({ id }) => id));
  };
}
