import type { Finding } from '../findings';
import { fromMm, STOP_SHORT_MM, showLength } from '../measure';
import { asTyped, type Edit, type LayoutDocument } from '../survey';
import type { EdgeEnd } from '../track';
import { consistOf } from './consist';
import { type Block, type Partition, type Piece, withinBlock } from './partition';
import { resistorAxles } from './resistor-axles';

/** A place in the middle of a block, for a remedy or for a click to lead to. */
export function middleOf(partition: Partition, block: Block): { line: string; at: number } {
  const longest = block.pieces
    .map((p) => partition.pieces[p]!)
    .reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
  return { line: longest.line, at: Math.round((longest.from + longest.to) / 2) };
}

/** Track no detector sees, sections with two detectors, blocks shorter than a train, trains no detector sees. */
export function detectionFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  for (const section of partition.sections) {
    const blocks = section.blocks.map((b) => partition.blocks[b]!);
    const names = blocks.map((b) => b.name).join(', ');
    const place = middleOf(partition, blocks[0]!);
    if (section.detectors.length === 0) {
      findings.push({
        id: `no-detector ${names}`,
        kind: 'track without detection',
        severity: 'check',
        subject: blocks[0]!.name,
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
        remedies: [
          {
            says: `Add a current detector to ${names}`,
            edit: { do: 'add detector', line: place.line, at: asTyped(place.at, document.shownUnit) },
          },
        ],
      });
    }
    if (section.detectors.length > 1) {
      const [first, ...extra] = section.detectors.map((id) => document.detectors.find((d) => d.id === id)!);
      findings.push({
        id: `two-detectors ${names}`,
        kind: 'two detectors in one section',
        severity: 'check',
        subject: blocks[0]!.name,
        says: `${names} has no gap between detectors ${[first, ...extra].map((d) => d!.name).join(' and ')}, so both see the same trains.`,
        figures: [],
        advice: 'Cut a gap between them, or delete one.',
        remedies: extra.map((d) => ({
          says: `Delete detector ${d!.name}`,
          edit: { do: 'delete' as const, id: d!.id },
        })),
      });
    }
  }

  const trains = document.trains.map((train) => ({ train, consist: consistOf(document, train) }));
  const longest = trains.reduce<(typeof trains)[number] | undefined>(
    (a, b) => (a && a.consist.lengthMm >= b.consist.lengthMm ? a : b),
    undefined,
  );
  if (longest) {
    const needed = fromMm(longest.consist.lengthMm);
    for (const block of partition.blocks) {
      if (block.turnouts.length > 0 || block.length >= needed) continue;
      const fitting = trains.filter(({ consist }) => fromMm(consist.lengthMm) <= block.length).length;
      findings.push({
        id: `short-block ${block.name}`,
        kind: 'block shorter than the longest train',
        severity: 'note',
        subject: block.name,
        says: `${block.name} is ${shown(needed - block.length)} shorter than ${longest.train.name}, which then occupies the block behind it too.`,
        figures: [
          { name: 'block', value: shown(block.length) },
          { name: 'longest train', value: shown(needed) },
          { name: 'trains that fit', value: `${fitting} of ${trains.length}` },
        ],
        advice: 'Lengthen the block, or keep that train out of it.',
        remedies: [],
      });
    }
  }
  const shortest = partition.graph.turnouts.map((node) => ({
    turnout: node.turnout,
    room: seenAcross(partition, node.index),
  }));
  for (const { train, consist } of trains) {
    const blind = fromMm(consist.blindMm);
    const hidden = shortest.filter(({ room }) => room < blind);
    if (consist.axlesMm.length > 0 && hidden.length > 0) {
      findings.push({
        id: `unseen-middle ${train.id}`,
        kind: 'unseen over points',
        severity: 'unsafe',
        subject: train.id,
        says: `${shown(blind)} of ${train.name} is not seen. That part can stand over ${hidden.map((h) => h.turnout.name).join(', ')} while the block there reads free and the points can move.`,
        figures: [
          { name: 'unseen stretch', value: shown(blind) },
          { name: 'shortest watched way over points', value: shown(Math.min(...hidden.map((h) => h.room))) },
        ],
        advice: 'Fit resistor axles to more of its vehicles, or lengthen those blocks.',
        remedies: resistorAxles(document, train, ({ blindMm }) =>
          shortest.every(({ room }) => room >= fromMm(blindMm)),
        ),
      });
    }
    if (consist.axlesMm.length === 0) {
      findings.push({
        id: `unseen-train ${train.id}`,
        kind: 'train no detector sees',
        severity: 'unsafe',
        subject: train.id,
        says: `${train.name} has no axle that a current detector can see. To the signals it is not there.`,
        figures: [],
        advice: 'Fit resistor axles, or lights, to at least its first and its last vehicle.',
        remedies: resistorAxles(document, train),
      });
    } else if (consist.unseenTailMm > STOP_SHORT_MM) {
      findings.push({
        id: `unseen-tail ${train.id}`,
        kind: 'unseen tail',
        severity: 'unsafe',
        subject: train.id,
        says: `The last ${shown(fromMm(consist.unseenTailMm))} of ${train.name} is not seen. A block reads free while that part still stands in it, and the next driver stops only ${shown(fromMm(STOP_SHORT_MM))} before its end.`,
        figures: [{ name: 'unseen tail', value: shown(fromMm(consist.unseenTailMm)) }],
        advice: 'Fit a resistor axle near the end of its last vehicle.',
        remedies: resistorAxles(document, train, ({ unseenTailMm }) => unseenTailMm <= STOP_SHORT_MM),
      });
    }
  }
  return findings;
}

/** The shortest way over a turnout's blades from one end of its block to another. */
function seenAcross(partition: Partition, index: number): number {
  const node = partition.graph.turnouts[index]!;
  const pieceOf = (leg: { edge: number; end: EdgeEnd }): Piece => {
    const own = partition.piecesOfEdge[leg.edge]!;
    return leg.end === 0 ? own[0]! : own[own.length - 1]!;
  };
  const home = pieceOf(node.stem).block;
  /** From entering a piece to the nearest end of the block. */
  const toEnd = (piece: Piece, enters: EdgeEnd, seen: number[]): number => {
    if (piece.block !== home || seen.includes(piece.index)) return 0;
    const on = withinBlock(partition, piece, enters === 0 ? 1 : 0);
    return (
      piece.to -
      piece.from +
      (on.length === 0 ? 0 : Math.min(...on.map((next) => toEnd(next.piece, next.enters, [...seen, piece.index]))))
    );
  };
  const away = (leg: { edge: number; end: EdgeEnd }) => toEnd(pieceOf(leg), leg.end, []);
  return away(node.stem) + Math.min(away(node.straight), away(node.diverging));
}
