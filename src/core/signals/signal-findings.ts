import { onwardPieces, type Partition } from '../detection';
import type { Finding, Fix, Severity } from '../findings';
import { showLength } from '../measure';
import { asTyped, type Edit, type Facing, type LayoutDocument, type Turnout } from '../survey';
import type { EdgeEnd } from '../track';
import { MOST_ROUTES, type SignalReading } from './routes';

/** Signals off a block's end, signals with nothing to protect, and points that a train can reach without a signal. */
export function signalFindings(
  document: LayoutDocument,
  partition: Partition,
  readings: readonly SignalReading[],
): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  for (const reading of readings) {
    const { signal } = reading;
    const piece = partition.pieces[reading.piece]!;
    if (reading.offBoundary > 0) {
      /** The end of the block that it comes to; or, where points lie before that, the end by which trains come in. */
      const [end] = ([reading.exit, reading.exit === 1 ? 0 : 1] as EdgeEnd[])
        .filter((at) => piece.bounded[at]?.kind === 'cut')
        .map((at) => (at === 1 ? piece.to : piece.from));
      findings.push({
        id: `off-boundary ${signal.id}`,
        kind: 'signal not at a block’s end',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} stands inside ${partition.blocks[reading.rear]!.name}, not at its end. The rest of that block is not protected by it.`,
        figures:
          end === undefined
            ? []
            : [{ name: 'to the end of the block', value: shown(Math.abs(end - signal.at.tenthUm)) }],
        advice: 'Move it to an end of the block, or cut a gap where it stands.',
        fixes: [
          {
            says: `Cut a gap at ${shown(signal.at.tenthUm)}`,
            edit: { do: 'add cut', kind: 'gap', line: signal.line, at: signal.at },
          },
          ...(end === undefined
            ? []
            : [
                {
                  says: `Move it to ${shown(end)}`,
                  edit: { do: 'move' as const, id: signal.id, at: asTyped(end, document.shownUnit) },
                },
              ]),
        ],
      });
    }
    if (reading.routes.length >= MOST_ROUTES)
      findings.push({
        id: `many-ways ${signal.id}`,
        kind: 'signal with too many routes',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} has ${MOST_ROUTES} routes ahead of it, or more. Those beyond ${MOST_ROUTES} are not read, and it stays at stop for them.`,
        figures: [],
        advice: 'Place signals on the way, so that each has fewer routes to the next.',
        fixes: [],
      });
    const routes = reading.routes.filter((route) => route.blocks.length > 0 && route.ending.kind !== 'circle');
    if (routes.length === 0) {
      findings.push({
        id: `protects-nothing ${signal.id}`,
        kind: 'signal with nothing to protect',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} has nothing to protect: no block lies beyond it before ${reading.routes.some((w) => w.ending.kind === 'circle') ? 'the route comes back to itself' : 'the next signal or the end of the track'}.`,
        figures: [],
        advice: 'Move it to where a block begins, turn it round, or delete it.',
        fixes: [{ says: `Delete ${signal.name}`, edit: { do: 'delete', id: signal.id } }],
      });
    }
    const blind = [
      ...new Set(routes.flatMap((route) => (route.ending.kind === 'end of detection' ? [route.ending.block] : []))),
    ];
    if (blind.length > 0) {
      const names = blind.map((b) => partition.blocks[b]!.name).join(', ');
      findings.push({
        id: `blind-ahead ${signal.id}`,
        kind: 'signal into undetected track',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} leads into ${names}, which no detector watches.`,
        figures: [],
        advice: 'Give that track a detector.',
        fixes: [],
      });
    }
  }
  findings.push(...unsignalledBoundaries(document, partition, readings));
  findings.push(...unprotectedPoints(document, partition, readings));
  return findings;
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
        if (!before || before.points.length > 0 || found.has(id)) continue;
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
): Finding<Edit>[] {
  const covered = new Set<string>();
  const signalled = new Set<number>();
  for (const reading of readings) {
    for (const step of reading.routes.flatMap((route) => route.blocks)) {
      covered.add(`${step.piece} ${step.enters}`);
      signalled.add(step.block);
    }
  }
  const isCut = ({ piece, end }: { piece: number; end: EdgeEnd }) =>
    partition.pieces[piece]!.bounded[end]?.kind === 'cut';
  const againstSignals = ({ piece, end }: { piece: number; end: EdgeEnd }) => {
    const outside = onwardPieces(partition, partition.pieces[piece]!, end)[0];
    const block = outside && partition.blocks[outside.piece.block]!;
    return block !== undefined && signalled.has(block.index) && block.ends.filter(isCut).length > 1;
  };
  const standing = new Set(
    readings.flatMap(({ offBoundary, piece, exit }) => (offBoundary === 0 ? [`${piece} ${exit}`] : [])),
  );
  /** One stands there, whatever it may show: one with nowhere to let trains go keeps them all. */
  const hasSignal = ({ piece, end }: { piece: number; end: EdgeEnd }) => {
    const [outside] = onwardPieces(partition, partition.pieces[piece]!, end);
    return outside !== undefined && standing.has(`${outside.piece.index} ${outside.enters}`);
  };
  const findings: Finding<Edit>[] = [];
  for (const block of partition.blocks.filter((b) => b.points.length > 0)) {
    const own = block.points.map((n) => partition.graph.points[n]!);
    const names = own.map(({ name }) => name).join(', ');
    const report = (
      severity: Severity,
      says: string,
      advice: string | undefined,
      places: { line: string; at: number; governs: Facing }[],
      cuts: Fix<Edit>[] = [],
    ) =>
      findings.push({
        id: `open-points ${severity} ${block.name}`,
        kind: 'points without protection',
        severity,
        subject: own[0]!.id,
        says,
        figures: [],
        advice,
        fixes: [
          ...cuts,
          ...places.map(
            (p): Fix<Edit> => ({
              says: `Place a signal at ${showLength(p.at, document.shownUnit)} on ${lineName(document, p.line)}`,
              edit: { do: 'add signal', line: p.line, at: asTyped(p.at, document.shownUnit), governs: p.governs },
            }),
          ),
        ],
      });
    if (!block.ends.some(isCut)) {
      const says = `${names} ${own.length > 1 ? 'lie' : 'lies'} in ${block.name}, which no gap or block mark bounds, so no signal can protect it.`;
      report(
        'check',
        says,
        'Cut gaps either side of the points, clear of the fouling point.',
        [],
        gapsAround(
          document,
          document.turnouts.find(({ id }) => id === own[0]!.id),
        ),
      );
      continue;
    }
    const open = block.ends.filter((end) => isCut(end) && !covered.has(`${end.piece} ${end.end}`) && !hasSignal(end));
    for (const against of [false, true]) {
      const places = open
        .filter((end) => againstSignals(end) === against)
        .map(({ piece, end }) => {
          const { line, from, to } = partition.pieces[piece]!;
          return end === 0 ? { line, at: from, governs: 'up' as const } : { line, at: to, governs: 'down' as const };
        });
      if (places.length === 0) continue;
      const where = places
        .map((p) => `${showLength(p.at, document.shownUnit)} on ${lineName(document, p.line)}`)
        .join(' and ');
      const says = against
        ? `A train run against the signalled direction can come onto ${names} without passing a signal, from ${where}.`
        : `A train can run onto ${names} without passing a signal, from ${where}.`;
      report(
        against ? 'note' : 'unsafe',
        says,
        against ? 'Place a signal there, or keep to the signalled direction.' : undefined,
        places,
      );
    }
  }
  return findings;
}

/** How far before the blades a gap is proposed; no part of a stock rail is cut there: 10 cm, common practice, no source. */
const BEFORE_BLADES = 1_000_000;

/** Gaps that would set a turnout apart: before its blades, and on each leg at the clearance point. */
function gapsAround(document: LayoutDocument, turnout: Turnout | undefined): Fix<Edit>[] {
  if (!turnout) return [];
  const length = (line: string) => document.lines.find((l) => l.id === line)!.length.tenthUm;
  const sign = turnout.facing === 'up' ? 1 : -1;
  const reach = turnout.clearance.tenthUm;
  const spots = [
    { line: turnout.line, at: turnout.at.tenthUm - sign * BEFORE_BLADES },
    { line: turnout.line, at: turnout.at.tenthUm + sign * reach },
    ...turnout.legs.map(({ line, end }) => ({ line, at: end === 'start' ? reach : length(line) - reach })),
  ];
  return spots
    .filter((spot) => spot.at > 0 && spot.at < length(spot.line))
    .map((spot) => ({
      says: `Cut a gap at ${showLength(spot.at, document.shownUnit)} on ${document.lines.find((l) => l.id === spot.line)!.name}`,
      edit: { do: 'add cut', kind: 'gap', line: spot.line, at: asTyped(spot.at, document.shownUnit) },
    }));
}
