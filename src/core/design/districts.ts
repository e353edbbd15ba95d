import { type Partition, pieceAt } from '../detection';
import { type FeatureOf, isKind, type LayoutDocument } from '../survey';

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
  booster: string;
  feeders: Feeder[];
  /** Indices of its sections. */
  sections: number[];
}

/** The districts, in the order of the alphabet; none where no feeder says what it is led from. */
export function districtsOf(document: LayoutDocument, partition: Partition): District[] {
  const districts = new Map<string, District>();
  for (const [section, feeders] of feedersOf(document, partition))
    for (const feeder of feeders) {
      if (feeder.booster === undefined) continue;
      const own = districts.get(feeder.booster) ?? { booster: feeder.booster, feeders: [], sections: [] };
      districts.set(feeder.booster, own);
      own.feeders.push(feeder);
      if (own.sections.at(-1) !== section) own.sections.push(section);
    }
  return [...districts.values()].sort((a, b) => (a.booster < b.booster ? -1 : 1));
}
