import type { Finding } from '../findings';
import { fromMm, showLength, type TenthUm } from '../measure';
import type { Edit, LayoutDocument } from '../survey';
import { consistOf } from './consist';
import type { Partition } from './partition';
import { endsOf, NEAR, pairAt, type SpotPair, tellingSpots } from './spot-pairs';
import { watchIt } from './watch-it';

/** Blocks that spots tell of, those that lack a pair for it, and pairs that a short train can slip through. */
export function spotBlockFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  const trains = document.trains.map((train) => ({
    name: train.name,
    long: fromMm(consistOf(document, train).lengthMm),
  }));
  const shortest = trains.reduce<(typeof trains)[number] | undefined>(
    (a, b) => (a && a.long <= b.long ? a : b),
    undefined,
  );
  const spots = tellingSpots(document);
  if (spots.length === 0) return findings;
  for (const block of partition.blocks) {
    if (partition.sections[block.section]!.sensors.length > 0) continue;
    const pairs = partition.told.get(block.index);
    if (!pairs) {
      const ends = endsOf(partition, block);
      const there = ends.filter(({ piece, end }) => pairAt(spots, partition, partition.pieces[piece]!, end));
      if (there.length === 0 || there.length === ends.length) continue;
      findings.push({
        id: `lacks-pair ${block.id}`,
        kind: 'block told by spots at one end only',
        severity: 'check',
        subject: block.id,
        says: `${block.name} has two spots at ${there.length} of its ${ends.length} ends: what leaves by the ${ends.length - there.length === 1 ? 'other' : 'others'} is never noticed, so that it always counts as occupied.`,
        figures: [],
        advice: `Put an optical spot on either side of each boundary, within ${shown(NEAR)} of it.`,
        remedies: [],
      });
      continue;
    }
    findings.push({
      id: `by-spots ${block.id}`,
      kind: 'block told by spots alone',
      severity: 'check',
      subject: block.id,
      says: `${block.name} is told by what passes its spots, and seen by nothing in between: what is put down, lifted off or left behind there is not noticed. Two trains that come to one of its ends from both sides and turn back there look like one that has gone out: it then reads free with a train in it.`,
      figures: pairs.map(({ inner, outer }) => ({
        name: `${outer.name} and ${inner.name}`,
        value: `${shown(apartOf({ inner, outer }))} apart`,
      })),
      advice:
        'After power-up say of each such block whether it is free, and let no train stand over its spots then. Let no two trains come to one end of it and turn back. A detector for the whole of it needs none of that.',
      remedies: [watchIt(document, partition, block, block.name)],
    });
    for (const pair of pairs) {
      const apart = apartOf(pair);
      if (!shortest || shortest.long > apart) continue;
      findings.push({
        id: `slips-through ${block.id} ${pair.inner.id}`,
        kind: 'spots farther apart than a train is long',
        severity: 'unsafe',
        subject: pair.inner.id,
        says: `${pair.outer.name} and ${pair.inner.name} are ${shown(apart)} apart, and ${shortest.name} is only ${shown(shortest.long)} long: it passes one after the other, and ${block.name} reads free with it inside.`,
        figures: [],
        advice: 'Move them together, or run nothing so short.',
        remedies: [],
      });
    }
  }
  return findings;
}

/** How far apart two spots of one line are; of two lines, as far as they may be at most. */
const apartOf = ({ inner, outer }: SpotPair): TenthUm =>
  inner.anchor.line === outer.anchor.line
    ? Math.min(2 * NEAR, Math.abs(inner.anchor.at.tenthUm - outer.anchor.at.tenthUm))
    : 2 * NEAR;
