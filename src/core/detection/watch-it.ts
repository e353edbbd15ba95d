import type { Fix } from '../findings';
import { SENSOR_KIND_IDS, sensorKind } from '../kinds';
import { asTyped, type Edit, type LayoutDocument } from '../survey';
import type { Block } from './division';
import type { Partition } from './partition';

/** A place in the middle of a block, for a fix or for a click to lead to. */
export function middleOf(partition: Partition, block: Block): { line: string; at: number } {
  const longest = block.pieces
    .map((p) => partition.pieces[p]!)
    .reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
  return { line: longest.line, at: Math.round((longest.from + longest.to) / 2) };
}

/** A sensor of the kind that is proposed, in the middle of a block that none watches. */
export function watchIt(document: LayoutDocument, partition: Partition, block: Block, called: string): Fix<Edit> {
  const { line, at } = middleOf(partition, block);
  return {
    says: `Add a ${sensorKind(SENSOR_KIND_IDS[0]!).title.toLowerCase()} to ${called}`,
    edit: { do: 'add sensor', line, at: asTyped(at, document.shownUnit) },
  };
}
