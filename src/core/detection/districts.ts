import { type Booster, type FeatureOf, isKind, type LayoutDocument } from '../survey';
import { pieceAt } from './division';
import type { Partition } from './partition';

export type Feeder = FeatureOf<'feeder'>;

/** What feeders lead to each section, by its index. A section with none is not in it. */
export function feedersOf(document: LayoutDocument, partition: Partition): Map<number, Feeder[]> {
  const found = new Map<number, Feeder[]>();
  for (const feeder of document.features.filter(isKind('feeder'))) {
    const { section } = pieceAt(partition, feeder.line, feeder.at.tenthUm, 'up');
    const own = found.get(section);
    if (own) own.push(feeder);
    else found.set(section, [feeder]);
  }
  return found;
}

/** All that one booster feeds. */
export interface District {
  booster: Booster;
  feeders: Feeder[];
  /** Indices of its sections. */
  sections: number[];
}

/** The districts, in the order of the alphabet; one for each booster, which may feed nothing yet. */
export function districtsOf(document: LayoutDocument, partition: Partition): District[] {
  const districts = new Map(
    document.boosters.map((booster): [string, District] => [booster.id, { booster, feeders: [], sections: [] }]),
  );
  for (const [section, feeders] of feedersOf(document, partition))
    for (const feeder of feeders) {
      const own = feeder.booster === undefined ? undefined : districts.get(feeder.booster);
      if (!own) continue;
      own.feeders.push(feeder);
      if (own.sections.at(-1) !== section) own.sections.push(section);
    }
  return [...districts.values()].sort((a, b) => (a.booster.name < b.booster.name ? -1 : 1));
}
