import { onwardPieces, type Partition, type Piece, pieceAt } from '../detection';
import type { TenthUm } from '../measure';
import type { SignalReading } from '../signals';
import type { Facing, LayoutDocument } from '../survey';
import type { EdgeEnd } from '../track';

/** A boundary that trains cross out of a block in which they can wait. */
export interface Boundary {
  line: string;
  at: TenthUm;
  governs: Facing;
  piece: Piece;
  exit: EdgeEnd;
  rear: number;
  beyond: number;
}

/** Boundaries that follow one another, the way they are run, with no signal between. */
type Run = readonly number[];

const keyOf = (piece: number, exit: EdgeEnd): string => `${piece} ${exit}`;

/**
 * Which of the boundaries need a signal: those that guard points or an edge; the first by which a train comes past a signal at all; one between any two
 * trains that stand in one run at the start; and on track that hangs together one more than there are trains on it, spread evenly.
 */
export function fewestSignals(
  document: LayoutDocument,
  partition: Partition,
  readings: readonly SignalReading[],
  wanted: readonly Boundary[],
  guards: (boundary: number) => boolean,
): boolean[] {
  const needed = wanted.map((_, i) => guards(i));
  const stand = new Set(readings.flatMap((one) => (one.offBoundary === 0 ? [keyOf(one.piece, one.exit)] : [])));
  const place = (i: number) => {
    needed[i] = true;
    stand.add(keyOf(wanted[i]!.piece.index, wanted[i]!.exit));
  };
  needed.forEach((so, i) => {
    if (so) place(i);
  });
  for (const i of inOrderOfRunning(wanted)) if (!needed[i] && !signalBehind(partition, stand, wanted[i]!)) place(i);

  const blocksWithTrains = document.trains.flatMap(({ start }) =>
    start ? [pieceAt(partition, start.line, start.at.tenthUm, start.facing === 'up' ? 'down' : 'up').block] : [],
  );
  const runs = () => runsOf(partition, stand, wanted, needed);
  for (const boundaries of runs()) {
    let standing = false;
    for (const [n, i] of boundaries.entries()) {
      const { rear, beyond } = wanted[i]!;
      standing ||= blocksWithTrains.includes(rear);
      const before = boundaries[n + 1] === undefined ? beyond : wanted[boundaries[n + 1]!]!.rear;
      if (standing && blocksWithTrains.includes(before)) {
        place(i);
        standing = false;
      }
    }
  }

  for (const blocks of hangingTogether(partition)) {
    const trains = blocksWithTrains.filter((block) => blocks.has(block)).length;
    for (const facing of ['up', 'down'] as const) {
      const own = ([i]: Run) => wanted[i!]!.governs === facing && blocks.has(wanted[i!]!.rear);
      const there = readings.filter(({ signal, rear }) => signal.governs === facing && blocks.has(rear)).length;
      const placed = wanted.filter((one, i) => needed[i] && one.governs === facing && blocks.has(one.rear)).length;
      for (const i of spread(runs().filter(own), Math.max(2, trains + 1) - there - placed)) place(i);
    }
  }
  return needed;
}

/** Each after what comes before it, the way it is run. */
const inOrderOfRunning = (wanted: readonly Boundary[]): number[] => {
  const along = ({ governs, at }: Boundary) => (governs === 'up' ? at : -at);
  return wanted.map((_, i) => i).sort((a, b) => along(wanted[a]!) - along(wanted[b]!));
};

/** Going back from a boundary against the run, over plain track: the signal that stands there, and how many boundaries back; undefined where none does. */
function signalBehind(
  partition: Partition,
  stand: ReadonlySet<string>,
  { piece: first, exit }: Boundary,
): { key: string; steps: number } | undefined {
  let piece = first;
  let out = exit;
  for (let steps = 1; steps <= partition.blocks.length; steps++) {
    const block = partition.blocks[piece.block]!;
    const [back] = block.ends.filter((end) => !(end.piece === piece.index && end.end === out));
    if (!back || block.ends.length > 2 || block.points.length > 0) return undefined;
    const before = onwardPieces(partition, partition.pieces[back.piece]!, back.end)[0];
    if (!before) return undefined;
    [piece, out] = [before.piece, before.enters];
    const key = keyOf(piece.index, out);
    if (stand.has(key)) return { key, steps };
    if (partition.blocks[piece.block]!.points.length > 0) return undefined;
  }
  return undefined;
}

function runsOf(
  partition: Partition,
  stand: ReadonlySet<string>,
  wanted: readonly Boundary[],
  needed: readonly boolean[],
): Run[] {
  const runs = new Map<string, { i: number; steps: number }[]>();
  wanted.forEach((boundary, i) => {
    const behind = needed[i] ? undefined : signalBehind(partition, stand, boundary);
    if (behind) runs.set(behind.key, [...(runs.get(behind.key) ?? []), { i, steps: behind.steps }]);
  });
  return [...runs.values()].map((all) => all.sort((a, b) => a.steps - b.steps).map(({ i }) => i));
}

/** So many boundaries of some runs: always where most of them would be without a signal, and evenly within each. */
function spread(runs: readonly Run[], count: number): number[] {
  const share = runs.map(() => 0);
  const room = (n: number) => (share[n]! < runs[n]!.length ? (runs[n]!.length + 1) / (share[n]! + 1) : 0);
  for (let left = count; left > 0; left--) {
    const most = runs.reduce((best, _, n) => (best < 0 || room(n) > room(best) ? n : best), -1);
    if (most < 0 || room(most) === 0) break;
    share[most]! += 1;
  }
  return runs.flatMap((boundaries, n) =>
    Array.from(
      { length: share[n]! },
      (_, i) => boundaries[Math.round(((i + 1) * (boundaries.length + 1)) / (share[n]! + 1)) - 1]!,
    ),
  );
}

/** Blocks, in sets of those between which trains can run. */
function hangingTogether(partition: Partition): Set<number>[] {
  const found: Set<number>[] = [];
  for (const { index } of partition.blocks) {
    if (found.some((set) => set.has(index))) continue;
    const set = new Set([index]);
    for (const block of set)
      for (const { piece, end } of partition.blocks[block]!.ends)
        for (const on of onwardPieces(partition, partition.pieces[piece]!, end)) set.add(on.piece.block);
    found.push(set);
  }
  return found;
}
