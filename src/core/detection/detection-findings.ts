import type { Finding } from '../findings';
import { SENSORS, type SensorKind } from '../kinds';
import { fromMm, STOP_SHORT_MM, showLength } from '../measure';
import type { Edit, LayoutDocument } from '../survey';
import { type Consist, consistOf, noticedInSections, partsOf, unseenOf } from './consist';
import type { Partition } from './partition';
import { seeAll } from './resistor-axles';
import { watchIt } from './watch-it';
import { seenAcross } from './watched-ways';

/** Track no detector sees, sections with two detectors, blocks shorter than a train, trains no detector sees. */
export function detectionFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  for (const section of partition.sections) {
    const all = section.blocks.map((b) => partition.blocks[b]!);
    /** Those that spots tell of are spoken of elsewhere. */
    const blocks = section.sensors.length > 0 ? all : all.filter((block) => !partition.inferred.get(block.index));
    if (blocks.length === 0) continue;
    const names = blocks.map((b) => b.name).join(', ');
    if (section.sensors.length === 0) {
      findings.push({
        id: `no-detector ${blocks[0]!.id}`,
        kind: 'track without detection',
        severity: 'check',
        subject: blocks[0]!.id,
        says: `No detector watches ${names}. A train there is not seen, so signals into it stay at stop.`,
        figures: [
          {
            name: 'length unseen',
            value: shown(
              blocks
                .flatMap((b) => b.pieces)
                .reduce((sum, p) => sum + partition.pieces[p]!.to - partition.pieces[p]!.from, 0),
            ),
          },
        ],
        fixes: [watchIt(document, partition, blocks[0]!, names)],
      });
    }
    if (section.sensors.length > 1) {
      const [first, ...extra] = section.sensors.map((id) => document.sensors.find((s) => s.id === id)!);
      findings.push({
        id: `two-detectors ${blocks[0]!.id}`,
        kind: 'two detectors in one section',
        severity: 'check',
        subject: blocks[0]!.id,
        says: `${names} has no gap between detectors ${[first, ...extra].map((d) => d!.name).join(' and ')}, so both see the same trains.`,
        figures: [],
        advice: 'Cut a gap between them, or delete one.',
        fixes: extra.map((d) => ({
          says: `Delete detector ${d!.name}`,
          edit: { do: 'delete' as const, id: d!.id },
        })),
      });
    }
  }

  const trains = document.trains.map((train) => {
    const consist = consistOf(document, train);
    return { train, consist, unseen: unseenOf(document, consist) };
  });
  const longest = trains.reduce<(typeof trains)[number] | undefined>(
    (a, b) => (a && a.consist.lengthMm >= b.consist.lengthMm ? a : b),
    undefined,
  );
  if (longest) {
    const needed = fromMm(longest.consist.lengthMm);
    for (const block of partition.blocks) {
      if (block.points.length > 0 || block.length >= needed) continue;
      const fitting = trains.filter(({ consist }) => fromMm(consist.lengthMm) <= block.length).length;
      findings.push({
        id: `short-block ${block.id}`,
        kind: 'block shorter than the longest train',
        severity: 'note',
        subject: block.id,
        says: `${block.name} is ${shown(needed - block.length)} shorter than ${longest.train.name}, which then occupies the block behind it too.`,
        figures: [
          { name: 'block', value: shown(block.length) },
          { name: 'longest train', value: shown(needed) },
          { name: 'trains that fit', value: `${fitting} of ${trains.length}` },
        ],
        advice: 'Lengthen the block, or keep that train out of it.',
        fixes: [],
      });
    }
  }
  const shortest = partition.graph.points.map((node) => ({ name: node.name, room: seenAcross(partition, node) }));
  for (const { train, consist, unseen } of trains) {
    const blind = fromMm(unseen.blindMm);
    const hidden = shortest.filter(({ room }) => room < blind);
    if (!unseen.all && hidden.length > 0) {
      findings.push({
        id: `unseen-middle ${train.id}`,
        kind: 'unseen over points',
        severity: 'unsafe',
        subject: train.id,
        says: `${shown(blind)} of ${train.name} is not seen. That part can stand over ${hidden.map((h) => h.name).join(', ')} while the block there reads free and the points can move.`,
        figures: [
          { name: 'unseen stretch', value: shown(blind) },
          { name: 'shortest watched way over points', value: shown(Math.min(...hidden.map((h) => h.room))) },
        ],
        ...seeAll(
          document,
          train,
          'Fit resistor axles to more of its vehicles, or lengthen those blocks.',
          ({ blindMm }) => shortest.every(({ room }) => room >= fromMm(blindMm)),
        ),
      });
    }
    if (unseen.all) {
      findings.push({
        id: `unseen-train ${train.id}`,
        kind: 'train no detector sees',
        severity: 'unsafe',
        subject: train.id,
        says: `${train.name} has no ${wanted(document, consist)}. To the signals it is not there.`,
        figures: [],
        ...seeAll(document, train, 'Fit resistor axles, or lights, to at least its first and its last vehicle.'),
      });
    } else if (unseen.tailMm > STOP_SHORT_MM) {
      findings.push({
        id: `unseen-tail ${train.id}`,
        kind: 'unseen tail',
        severity: 'unsafe',
        subject: train.id,
        says: `The last ${shown(fromMm(unseen.tailMm))} of ${train.name} is not seen. A block reads free while that part still stands in it, and the next driver stops only ${shown(fromMm(STOP_SHORT_MM))} before its end.`,
        figures: [{ name: 'unseen tail', value: shown(fromMm(unseen.tailMm)) }],
        ...seeAll(
          document,
          train,
          'Fit a resistor axle near the end of its last vehicle.',
          ({ tailMm }) => tailMm <= STOP_SHORT_MM,
        ),
      });
    }
  }
  return findings;
}

/** What a train has none of and would need to be seen everywhere. */
function wanted(document: LayoutDocument, consist: Consist): string {
  const missing = noticedInSections(document).find((notice) => partsOf(consist, notice).length === 0);
  const kinds: SensorKind[] = Object.values(SENSORS);
  return kinds.find(({ notices, reachMm }) => notices.id === missing && reachMm === 'section')!.wants;
}
