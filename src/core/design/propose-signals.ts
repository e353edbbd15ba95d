import { type Block, divideTrack, onwardPieces, type Partition, type Piece, withinBlock } from '../detection';
import { usualWishes } from '../divide';
import { ADMISSIONS, ASPECT_SYSTEM_IDS, EARLY_SYSTEM, SPEED_SYSTEM } from '../kinds';
import { showLength, type TenthUm } from '../measure';
import { readSignals, type SignalReading, warningsOf, waysRun } from '../signals';
import { type Area, applyEdit, type Edit, type Facing, type LayoutDocument, systemOf } from '../survey';
import { compileTrack, type EdgeEnd } from '../track';
import { type Boundary, fewestSignals } from './fewest-signals';
import { stoppingRoom } from './stopping-room';

/** What a signal is for: points beyond it, the edge of a part that is protected, or room between trains that follow. */
export type SignalPurpose = 'points' | 'edge' | 'spacing';

/** A signal that could be placed, with what speaks for it. */
export interface ProposedSignal {
  line: string;
  at: TenthUm;
  governs: Facing;
  purpose: SignalPurpose;
  says: string;
  /** What nothing would protect without it. */
  without: string;
  /** One of the fewest that protect what is to be protected. */
  needed: boolean;
  system: string;
  systemSays: string;
}
export interface SignalProposal {
  signals: ProposedSignal[];
  /** Trains do not run both ways everywhere, as they stand now. */
  oneWay: boolean;
  /** How many such places have a signal already. */
  standing: number;
  /** Parts into which trains come past no signal, on purpose. */
  leftOut: string[];
}

/**
 * A signal for every boundary out of a block in which a train can wait, in each direction in which trains run, except into parts that were
 * decided to be on sight or left out; each that stands already is counted. What each is for decides whether it is among the fewest.
 */
export function proposeSignals(document: LayoutDocument): SignalProposal {
  const partition = divideTrack(document, compileTrack(document));
  const readings = readSignals(document, partition);
  const leftOut = new Set<string>();
  const wanted: Boundary[] = [];
  let standing = 0;
  for (const boundary of boundariesOf(document, partition)) {
    const into = areaOf(document, partition, boundary.beyond);
    const outOf = areaOf(document, partition, boundary.rear);
    if (into?.admits && !ADMISSIONS[into.admits].signals) {
      if (into !== outOf) leftOut.add(into.name);
      continue;
    }
    const isThere = ({ offBoundary, piece, exit }: SignalReading) =>
      offBoundary === 0 && piece === boundary.piece.index && exit === boundary.exit;
    if (readings.some(isThere)) standing += 1;
    else wanted.push(boundary);
  }
  const isRun = waysRun(document, partition);
  const oneWay = partition.pieces.some(({ index }) => !isRun(index, 0) || !isRun(index, 1));
  const purposes = wanted.map((one) => purposeOf(document, partition, one));
  const needed = fewestSignals(document, partition, readings, wanted, (i) => purposes[i] !== 'spacing');
  const bare = wanted.map((one, i) => ({ ...one, ...wordsFor(document, partition, one, purposes[i]!) }));
  const systems = chooseSystems(document, bare);
  const signals = bare.map(({ line, at, governs, says, without }, i): ProposedSignal => {
    const { system, systemSays } = systems[i]!;
    return { line, at, governs, says, without, purpose: purposes[i]!, needed: needed[i]!, system, systemSays };
  });
  return { signals, oneWay, standing, leftOut: [...leftOut] };
}

/** Places proposed signals, as one step. */
export const placeProposed = (signals: readonly ProposedSignal[]): Edit => ({
  do: 'add signals',
  signals: signals.map(({ line, at, governs, system }) => ({ line, at, governs, system })),
});

function boundariesOf(document: LayoutDocument, partition: Partition): Boundary[] {
  const isRun = waysRun(document, partition);
  const { shortest } = usualWishes(document);
  const found: Boundary[] = [];
  for (const block of partition.blocks) {
    for (const { piece: index, end } of block.ends) {
      const piece = partition.pieces[index]!;
      if (piece.bounded[end]?.kind !== 'cut') continue;
      if (isGuarded(block) && !canWait(partition, piece, end, shortest)) continue;
      if (!isRun(index, end === 1 ? 0 : 1)) continue;
      const governs: Facing = end === 1 ? 'up' : 'down';
      const on = onwardPieces(partition, piece, end)[0];
      if (!on || on.piece.block === block.index || !isRun(on.piece.index, on.enters)) continue;
      const at = end === 1 ? piece.to : piece.from;
      found.push({ line: piece.line, at, governs, piece, exit: end, rear: block.index, beyond: on.piece.block });
    }
  }
  const order = new Map(document.lines.map(({ id }, i) => [id, i]));
  return found.sort(
    (a, b) => order.get(a.line)! - order.get(b.line)! || a.at - b.at || (a.governs < b.governs ? -1 : 1),
  );
}

/** It holds points or a crossing, which signals protect. */
const isGuarded = ({ points, crossings }: Block): boolean => points.length + crossings.length > 0;

/** Whether there is room for a train of that length in a block with points, clear of them, from where it comes to an end of the block. */
function canWait(partition: Partition, first: Piece, end: EdgeEnd, length: TenthUm): boolean {
  const { edges, points, fouling } = partition.graph;
  /** What points leave clear of an edge that meets them by its branch. */
  const fouled = (piece: Piece, at: EdgeEnd): TenthUm => {
    const node = edges[piece.edge]!.ends[at];
    if (
      node.kind !== 'points' ||
      piece.bounded[at] ||
      (at === 0 ? piece.from > edges[piece.edge]!.from : piece.to < edges[piece.edge]!.to)
    )
      return 0;
    const { kind, ports, clearance } = points[node.points]!;
    return ports.length > 0 && kind.fouls.flat(2).includes(kind.ports[node.port]!) ? clearance : 0;
  };
  const crossings = new Set(partition.blocks[first.block]!.crossings);
  const crossed = fouling.flatMap(({ cause, a, b }) => (crossings.has(cause) ? [...a, ...b] : []));
  const seen = new Set<number>();
  const walk = (piece: Piece, exit: EdgeEnd): boolean => {
    if (seen.has(2 * piece.index + exit)) return false;
    seen.add(2 * piece.index + exit);
    const from = piece.from + fouled(piece, 0);
    const to = piece.to - fouled(piece, 1);
    if (
      longestFree(
        from,
        to,
        crossed.filter(({ edge }) => edge === piece.edge),
      ) >= length
    )
      return true;
    return withinBlock(partition, piece, exit === 1 ? 0 : 1).some((on) => walk(on.piece, on.enters));
  };
  return walk(first, end);
}

/** The longest part between two places that none of these stretches covers. */
function longestFree(from: TenthUm, to: TenthUm, stretches: readonly { from: TenthUm; to: TenthUm }[]): TenthUm {
  let [longest, clear] = [0, from];
  for (const stretch of [...stretches].sort((a, b) => a.from - b.from)) {
    longest = Math.max(longest, Math.min(stretch.from, to) - clear);
    clear = Math.max(clear, stretch.to);
  }
  return Math.max(longest, to - clear);
}

/** The area in which the middle of a block lies. */
function areaOf({ areas }: LayoutDocument, partition: Partition, block: number): Area | undefined {
  const pieces = partition.blocks[block]!.pieces.map((p) => partition.pieces[p]!);
  return areas.find(({ line, from, to }) =>
    pieces.some((piece) => {
      const middle = (piece.from + piece.to) / 2;
      return piece.line === line && middle >= from.tenthUm && middle <= to.tenthUm;
    }),
  );
}

function purposeOf(document: LayoutDocument, partition: Partition, { rear, beyond }: Boundary): SignalPurpose {
  if (isGuarded(partition.blocks[beyond]!)) return 'points';
  const into = areaOf(document, partition, beyond);
  return into?.admits && into !== areaOf(document, partition, rear) ? 'edge' : 'spacing';
}

function wordsFor(
  document: LayoutDocument,
  partition: Partition,
  { rear, beyond }: Boundary,
  purpose: SignalPurpose,
): { says: string; without: string } {
  const [from, to] = [partition.blocks[rear]!, partition.blocks[beyond]!];
  if (purpose === 'points') {
    const points = to.points.map((n) => partition.graph.points[n]!.name);
    const crossings = to.crossings.map((crossing) => document.crossings.find(({ id }) => id === crossing)!.name);
    const until = [
      ...(points.length > 0 ? [`${points.join(', ')} ${points.length === 1 ? 'is' : 'are'} set for it and free`] : []),
      ...(crossings.length > 0 ? [`nobody else is on or before ${crossings.join(', ')}`] : []),
    ];
    return {
      says: `Holds trains in ${from.name} until ${until.join(', and ')}.`,
      without: `Trains would come from ${from.name} onto ${[...points, ...crossings].join(', ')} past no signal.`,
    };
  }
  if (purpose === 'edge') {
    const area = areaOf(document, partition, beyond)!;
    return {
      says: `The edge of ${area.name}: trains come in ${ADMISSIONS[area.admits!].says}.`,
      without: `Trains would come into ${area.name} past no signal.`,
    };
  }
  return {
    says: `Holds trains in ${from.name} until ${to.name} is free.`,
    without: `A train that begins in ${from.name} would not be held from ${to.name}, and both would hold one train together.`,
  };
}

/** Which system each gets, looked at with all of them placed. */
function chooseSystems(
  document: LayoutDocument,
  bare: readonly Pick<ProposedSignal, 'line' | 'at' | 'governs'>[],
): { system: string; systemSays: string }[] {
  if (bare.length === 0) return [];
  const [USUAL] = ASPECT_SYSTEM_IDS as [string];
  const edit: Edit = {
    do: 'add signals',
    signals: bare.map(({ line, at, governs }) => ({ line, at, governs, system: USUAL })),
  };
  const tried = applyEdit(document, edit);
  if (!tried.ok)
    return bare.map(() => ({ system: USUAL, systemSays: 'Three aspects: a stop is announced one signal before.' }));
  const all = tried.change.document;
  const partition = divideTrack(all, compileTrack(all));
  const readings = readSignals(all, partition);
  const slowest = all.trains.reduce<{ name: string; needs: TenthUm }>(
    (most, train) => {
      const needs = stoppingRoom(all, train);
      return needs > most.needs ? { name: train.name, needs } : most;
    },
    { name: '', needs: 0 },
  );
  const short = new Set(
    warningsOf(all, readings)
      .filter(({ length }) => length < slowest.needs)
      .map(({ by }) => by),
  );
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  return bare.map((one) => {
    const reading = readings.find(
      ({ signal }) => signal.line === one.line && signal.at.tenthUm === one.at && signal.governs === one.governs,
    )!;
    const aside = reading.routes.find((route) => route.aside && route.blocks.length > 0);
    const into = areaOf(all, partition, reading.routes[0]?.blocks[0]?.block ?? reading.rear);
    if (aside && into?.admits === 'interlocked')
      return {
        system: SPEED_SYSTEM,
        systemSays: `${systemOf(all, SPEED_SYSTEM).name}: ways lead aside over ${namesOf(partition, aside.conditions)}, to be run at medium speed.`,
      };
    if (short.has(reading.index))
      return {
        system: EARLY_SYSTEM,
        systemSays: `${systemOf(all, EARLY_SYSTEM).name}: ${slowest.name} needs ${shown(slowest.needs)} to stop, more than two blocks give here.`,
      };
    return { system: USUAL, systemSays: `${systemOf(all, USUAL).name}: a stop is announced one signal before.` };
  });
}

const namesOf = (partition: Partition, over: readonly { motor: number; position: string }[]): string =>
  over
    .filter(({ position }) => position === 'diverging')
    .map(({ motor }) => partition.graph.motors[motor]!.name)
    .join(', ');
