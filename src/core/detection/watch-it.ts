import type { Fix } from '../findings';
import { CURRENT, SENSOR_KIND_IDS, type SensorKindId, sensorKind, TRACK_POWERS } from '../kinds';
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

/** The kind of sensor that is proposed for whole sections: the first that notices something without current where none is in the track; undefined where none does. */
export const kindForSections = ({ power }: Pick<LayoutDocument, 'power'>): SensorKindId | undefined =>
  SENSOR_KIND_IDS.find((id) => {
    const { reachMm, notices } = sensorKind(id);
    return reachMm === 'section' && (notices !== CURRENT || TRACK_POWERS[power].inTrack);
  });

/** A sensor of the kind that is proposed, in the middle of a block that none watches. */
export function watchIt(document: LayoutDocument, partition: Partition, block: Block, called: string): Fix<Edit>[] {
  const kind = kindForSections(document);
  if (!kind) return [];
  const { line, at } = middleOf(partition, block);
  return [
    {
      says: `Add ${withArticle(sensorKind(kind).title.toLowerCase())} to ${called}`,
      edit: { do: 'add sensor', line, at: asTyped(at, document.shownUnit), kind },
    },
  ];
}

const withArticle = (word: string) => `${/^[aeiou]/.test(word) ? 'an' : 'a'} ${word}`;
