import { type Block, onwardPieces, type Partition } from '../detection';
import type { Finding, Fix, Severity } from '../findings';
import { showLength } from '../measure';
import { asTyped, type Edit, type LayoutDocument } from '../survey';
import { type EdgeEnd, isAgainst } from '../track';
import { MOST_ROUTES, type SignalReading } from './routes';
import { waysRun } from './ways-run';

/** Signals off a block’s end, signals with nothing to protect, and points that a train can reach without a signal. `isSignalled`: signals hold trains, or are meant to. */
export function signalFindings(
  document: LayoutDocument,
  partition: Partition,
  readings: readonly SignalReading[],
  isSignalled: boolean,
): Finding<Edit>[] {
  return [
    ...readings.flatMap((reading) => [
      ...offBoundary(document, partition, reading),
      ...manyRoutes(reading),
      ...nothingAhead(partition, reading),
    ]),
    ...unsignalledBoundaries(document, partition, readings),
    ...unprotectedPoints(document, partition, readings, isSignalled),
  ];
}

function offBoundary(document: LayoutDocument, partition: Partition, reading: SignalReading): Finding<Edit>[] {
  const { signal } = reading;
  if (reading.offBoundary === 0) return [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  const piece = partition.pieces[reading.piece]!;
  /** The end of the block that it comes to; or, where points lie before that, the end by which trains come in. */
  const [end] = ([reading.exit, reading.exit === 1 ? 0 : 1] as EdgeEnd[])
    .filter((at) => piece.bounded[at]?.kind === 'cut')
    .map((at) => (at === 1 ? piece.to : piece.from));
  const gap: Fix<Edit> = {
    says: `Cut a gap at ${shown(signal.at.tenthUm)}`,
    edit: { do: 'add cut', kind: 'gap', line: signal.line, at: signal.at },
  };
  return [
    {
      id: `off-boundary ${signal.id}`,
      kind: 'signal not at a block’s end',
      severity: 'check',
      subject: signal.id,
      says: `${signal.name} stands inside ${partition.blocks[reading.rear]!.name}, not at its end. The rest of that block is not protected by it.`,
      figures:
        end === undefined ? [] : [{ name: 'to the end of the block', value: shown(Math.abs(end - signal.at.tenthUm)) }],
      advice: 'Move it to an end of the block, or cut a gap where it stands.',
      fixes:
        end === undefined
          ? [gap]
          : [
              gap,
              {
                says: `Move it to ${shown(end)}`,
                edit: { do: 'move', id: signal.id, at: asTyped(end, document.shownUnit) },
              },
            ],
    },
  ];
}

function manyRoutes({ signal, routes }: SignalReading): Finding<Edit>[] {
  if (routes.length < MOST_ROUTES) return [];
  return [
    {
      id: `many-ways ${signal.id}`,
      kind: 'signal with too many routes',
      severity: 'check',
      subject: signal.id,
      says: `${signal.name} has ${MOST_ROUTES} routes ahead of it, or more. Those beyond ${MOST_ROUTES} are not read, and it stays at stop for them.`,
      figures: [],
      advice: 'Place signals on the way, so that each has fewer routes to the next.',
      fixes: [],
    },
  ];
}

/** A signal with no block to protect, or with track ahead that no detector watches. */
function nothingAhead(partition: Partition, { signal, routes: all }: SignalReading): Finding<Edit>[] {
  const routes = all.filter((route) => route.blocks.length > 0 && route.ending.kind !== 'circle');
  if (routes.length === 0) {
    const before = all.some(({ ending }) => ending.kind === 'circle')
      ? 'the route comes back to itself'
      : 'the next signal or the end of the track';
    const why =
      all.length === 0
        ? 'no way on: each needs points to lie both ways at once, or leads onto track that is run in the other direction only'
        : `nothing to protect: no block lies beyond it before ${before}`;
    return [
      {
        id: `protects-nothing ${signal.id}`,
        kind: 'signal with nothing to protect',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} has ${why}.`,
        figures: [],
        advice:
          all.length === 0
            ? 'Place a signal beyond the points, where a train can wait before it comes back over them, or let the line be run both ways. Until then it keeps every train here.'
            : 'Move it to where a block begins, turn it round, or delete it.',
        fixes: all.length === 0 ? [] : [{ says: `Delete ${signal.name}`, edit: { do: 'delete', id: signal.id } }],
      },
    ];
  }
  const blind = new Set(routes.flatMap(({ ending }) => (ending.kind === 'end of detection' ? [ending.block] : [])));
  if (blind.size === 0) return [];
  return [
    {
      id: `blind-ahead ${signal.id}`,
      kind: 'signal into undetected track',
      severity: 'check',
      subject: signal.id,
      says: `${signal.name} leads into ${[...blind].map((b) => partition.blocks[b]!.name).join(', ')}, which no detector watches.`,
      figures: [],
      advice: 'Give that track a detector.',
      fixes: [],
    },
  ];
}

/** A plain block that a route leads through with no signal at its end: no train is held in it. Within points none is wanted. */
function unsignalledBoundaries(
  document: LayoutDocument,
  partition: Partition,
  readings: readonly SignalReading[],
): Finding<Edit>[] {
  const found = new Map<string, Finding<Edit>>();
  for (const { signal, routes } of readings) {
    for (const { blocks } of routes) {
      for (const [i, step] of blocks.entries()) {
        const before = partition.blocks[blocks[i - 1]?.block ?? -1];
        const block = partition.blocks[step.block]!;
        const { line, from, to } = partition.pieces[step.piece]!;
        const [at, governs] = step.enters === 0 ? [from, 'up' as const] : [to, 'down' as const];
        const id = `unsignalled ${line} ${at} ${governs}`;
        if (!before || before.points.length + before.crossings.length > 0 || found.has(id)) continue;
        const place = `${showLength(at, document.shownUnit)} on ${lineName(document, line)}`;
        found.set(id, {
          id,
          kind: 'no signal at the end of a block',
          severity: 'check',
          subject: signal.id,
          says: `No signal stands between ${before.name} and ${block.name} on the way from ${signal.name}, so a train that begins in ${before.name} is not held from ${block.name}.`,
          figures: [{ name: 'the place', value: place }],
          advice: `Place a signal there${block.points.length > 0 ? '' : ', or take away what divides the two blocks'}.`,
          fixes: [
            {
              says: `Place a signal at ${place}`,
              edit: { do: 'add signal', line, at: asTyped(at, document.shownUnit), governs },
            },
          ],
        });
      }
    }
  }
  return [...found.values()];
}

const lineName = (document: LayoutDocument, id: string) => document.lines.find((l) => l.id === id)?.name ?? id;

/**
 * Points in a block that can be entered from a neighbouring block past no signal. Where trains are signalled through that
 * neighbour, only one that runs against the signals can do so: a note. From track that no signal leads through, or that
 * trains have to come back out of, it is unsafe.
 */
function unprotectedPoints(
  document: LayoutDocument,
  partition: Partition,
  readings: readonly SignalReading[],
  isSignalled: boolean,
): Finding<Edit>[] {
  const ways = waysIn(document, partition, readings);
  return partition.blocks.flatMap((block) => {
    if (block.points.length + block.crossings.length === 0) return [];
    if (!block.ends.some(ways.isCut)) return [unboundedPoints(document, partition, block, isSignalled)];
    const open = block.ends.filter((end) => ways.isCut(end) && !ways.isProtected(end));
    return WHO_COMES.flatMap((who) => {
      const ends = open.filter((end) => ways.whoComes(end) === who);
      return ends.length > 0 ? [openPoints(document, partition, block, who, ends)] : [];
    });
  });
}

type BlockEnd = Block['ends'][number];

/**
 * Who comes in by an end of a block: trains, as they run now; none but one that runs against the signals; none as they run now, but
 * one that is set down the other way round.
 */
const WHO_COMES = ['trains', 'against signals', 'nobody yet'] as const;
type WhoComes = (typeof WHO_COMES)[number];

/** How trains come into blocks: past a signal or not, and where signals lead or not. */
function waysIn(document: LayoutDocument, partition: Partition, readings: readonly SignalReading[]) {
  const isRun = waysRun(document, partition);
  const covered = new Set<string>();
  const signalled = new Set<number>();
  const standing = new Set<string>();
  for (const { offBoundary, piece, exit, routes } of readings) {
    /** One stands there, whatever it may show: one with nowhere to let trains go keeps them all. */
    if (offBoundary === 0) standing.add(`${piece} ${exit}`);
    for (const { blocks } of routes)
      for (const step of blocks) {
        covered.add(`${step.piece} ${step.enters}`);
        signalled.add(step.block);
      }
  }
  const allOutside = ({ piece, end }: BlockEnd) => onwardPieces(partition, partition.pieces[piece]!, end);
  const outsideOf = (end: BlockEnd) => allOutside(end)[0];
  const isCut = ({ piece, end }: BlockEnd) => partition.pieces[piece]!.bounded[end]?.kind === 'cut';
  return {
    isCut,
    isProtected: (end: BlockEnd) => {
      if (covered.has(`${end.piece} ${end.end}`)) return true;
      const outside = outsideOf(end);
      return outside !== undefined && standing.has(`${outside.piece.index} ${outside.enters}`);
    },
    /** Undefined where a direction of running lets none come. */
    whoComes: (end: BlockEnd): WhoComes | undefined => {
      const edgeOf = (piece: number) => partition.graph.edges[partition.pieces[piece]!.edge]!;
      const outside = allOutside(end).map(({ piece, enters }) => ({
        piece,
        leaves: enters === 0 ? (1 as const) : (0 as const),
      }));
      const open = outside.filter(({ piece, leaves }) => !isAgainst(edgeOf(piece.index), leaves));
      if (open.length === 0 || isAgainst(edgeOf(end.piece), end.end)) return undefined;
      const block = partition.blocks[open[0]!.piece.block]!;
      if (signalled.has(block.index) && block.ends.filter(isCut).length > 1) return 'against signals';
      return open.some(({ piece, leaves }) => isRun(piece.index, leaves)) ? 'trains' : 'nobody yet';
    },
  };
}

const OPEN_POINTS: { readonly [W in WhoComes]: { comes: string; advice?: string } } = {
  trains: { comes: 'A train can run' },
  'against signals': {
    comes: 'A train run against the signalled direction can come',
    advice: 'Place a signal there, or keep to the signalled direction.',
  },
  'nobody yet': {
    comes: 'No train comes this way as they stand now; one set down the other way round could run',
    advice: 'Place a signal there, or say in Survey that the line is run one way only.',
  },
};

function unboundedPoints(
  document: LayoutDocument,
  partition: Partition,
  block: Block,
  isSignalled: boolean,
): Finding<Edit> {
  const own = guardedIn(document, partition, block);
  const names = own.map(({ name }) => name).join(', ');
  return {
    id: `open-points check ${block.name}`,
    kind: 'points without protection',
    severity: isSignalled ? 'check' : 'note',
    subject: own[0]!.id,
    says: `${names} ${own.length > 1 ? 'lie' : 'lies'} in ${block.name}, which no gap or block mark bounds, so no signal can protect it.`,
    figures: [],
    advice: 'Cut gaps either side, clear of where tracks foul each other.',
    fixes: gapsAround(document, own[0]!.id),
  };
}

function openPoints(
  document: LayoutDocument,
  partition: Partition,
  block: Block,
  who: WhoComes,
  ends: readonly BlockEnd[],
): Finding<Edit> {
  const own = guardedIn(document, partition, block);
  const names = own.map(({ name }) => name).join(', ');
  const places = ends.map(({ piece, end }) => {
    const { line, from, to } = partition.pieces[piece]!;
    const at = end === 0 ? from : to;
    const says = `${showLength(at, document.shownUnit)} on ${lineName(document, line)}`;
    return { line, at, governs: end === 0 ? ('up' as const) : ('down' as const), says };
  });
  const where = places.map(({ says }) => says).join(' and ');
  const severity: Severity = who === 'trains' ? 'unsafe' : 'note';
  const { comes, advice } = OPEN_POINTS[who];
  return {
    id: `open-points ${who === 'nobody yet' ? who : severity} ${block.name}`,
    kind: 'points without protection',
    severity,
    subject: own[0]!.id,
    says: `${comes} onto ${names} without passing a signal, from ${where}.`,
    figures: [],
    advice,
    fixes: places.map(({ line, at, governs, says }) => ({
      says: `Place a signal at ${says}`,
      edit: { do: 'add signal', line, at: asTyped(at, document.shownUnit), governs },
    })),
  };
}

/** How far before the blades a gap is proposed; no part of a stock rail is cut there: 10 cm, common practice, no source. */
const BEFORE_BLADES = 1_000_000;

/** What signals protect in a block: its points, and crossings. */
const guardedIn = (
  { crossings }: LayoutDocument,
  { graph }: Partition,
  block: Block,
): readonly { id: string; name: string }[] => [
  ...block.points.map((n) => graph.points[n]!),
  ...block.crossings.map((crossing) => crossings.find(({ id }) => id === crossing)!),
];

/** Gaps that would set points apart: before the blades, and on each leg at the clearance point; of a crossing either side on both lines. */
function gapsAround(document: LayoutDocument, id: string): Fix<Edit>[] {
  const length = (line: string) => document.lines.find((l) => l.id === line)!.length.tenthUm;
  const turnout = document.turnouts.find((one) => one.id === id);
  const crossing = document.crossings.find((one) => one.id === id);
  const spots: { line: string; at: number }[] = [];
  if (turnout) {
    const sign = turnout.facing === 'up' ? 1 : -1;
    const reach = turnout.clearance.tenthUm;
    spots.push(
      { line: turnout.line, at: turnout.at.tenthUm - sign * BEFORE_BLADES },
      { line: turnout.line, at: turnout.at.tenthUm + sign * reach },
      ...turnout.legs.map(({ line, end }) => ({ line, at: end === 'start' ? reach : length(line) - reach })),
    );
  }
  if (crossing)
    for (const { line, at } of [crossing.a, crossing.b])
      for (const sign of [-1, 1]) spots.push({ line, at: at.tenthUm + sign * crossing.clearance.tenthUm });
  return spots
    .filter((spot) => spot.at > 0 && spot.at < length(spot.line))
    .map((spot) => ({
      says: `Cut a gap at ${showLength(spot.at, document.shownUnit)} on ${lineName(document, spot.line)}`,
      edit: { do: 'add cut', kind: 'gap', line: spot.line, at: asTyped(spot.at, document.shownUnit) },
    }));
}
