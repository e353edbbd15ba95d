import { type Partition, pieceAt } from '../detection';
import type { Finding } from '../findings';
import { showLength } from '../measure';
import { asTyped, type Edit, type LayoutDocument } from '../survey';
import type { SignalReading } from './ways';

/** Signals off a block's end, signals with nothing to protect, and points that a train can reach without a signal. */
export function signalFindings(
  document: LayoutDocument,
  partition: Partition,
  readings: SignalReading[],
): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  for (const reading of readings) {
    const { signal } = reading;
    const piece = partition.pieces[reading.piece]!;
    if (reading.offBoundary > 0) {
      const end = reading.exit === 1 ? piece.to : piece.from;
      findings.push({
        id: `off-boundary ${signal.id}`,
        kind: 'signal not at a block’s end',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} stands inside ${partition.blocks[reading.rear]!.name}, not at its end. The rest of that block is not protected by it.`,
        figures: [{ name: 'to the end of the block', value: shown(Math.abs(end - signal.at.tenthUm)) }],
        advice: 'Move it to the end of the block, or cut a gap where it stands.',
        remedies: [
          {
            says: `Cut a gap at ${shown(signal.at.tenthUm)}`,
            edit: { do: 'add cut', kind: 'gap', line: signal.line, at: signal.at },
          },
          { says: `Move it to ${shown(end)}`, edit: { do: 'move', id: signal.id, at: asTyped(end) } },
        ],
      });
    }
    const ways = reading.ways.filter((way) => way.blocks.length > 0 && way.ending.kind !== 'circle');
    if (ways.length === 0) {
      findings.push({
        id: `protects-nothing ${signal.id}`,
        kind: 'signal with nothing to protect',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} has nothing to protect: no block lies beyond it before ${reading.ways.some((w) => w.ending.kind === 'circle') ? 'the way comes back to itself' : 'the next signal or the end of the track'}. It will always show stop.`,
        figures: [],
        advice: 'Move it to where a block begins, turn it round, or delete it.',
        remedies: [{ says: `Delete ${signal.name}`, edit: { do: 'delete', id: signal.id } }],
      });
    }
    const blind = [
      ...new Set(ways.flatMap((way) => (way.ending.kind === 'end of detection' ? [way.ending.block] : []))),
    ];
    if (blind.length > 0) {
      const names = blind.map((b) => partition.blocks[b]!.name).join(', ');
      findings.push({
        id: `blind-ahead ${signal.id}`,
        kind: 'signal into undetected track',
        severity: 'check',
        subject: signal.id,
        says: `${signal.name} leads into ${names}, which no detector watches. For that way it always shows stop.`,
        figures: [],
        advice: 'Give that track a detector.',
        remedies: [],
      });
    }
  }
  findings.push(...unprotectedPoints(document, partition, readings));
  return findings;
}

/** Points in a block that can be entered from a neighbouring block past no signal. */
function unprotectedPoints(document: LayoutDocument, partition: Partition, readings: SignalReading[]): Finding<Edit>[] {
  const covered = new Set<string>();
  for (const reading of readings) {
    for (const way of reading.ways) for (const step of way.blocks) covered.add(`${step.piece} ${step.enters}`);
  }
  const findings: Finding<Edit>[] = [];
  for (const block of partition.blocks) {
    if (block.turnouts.length === 0) continue;
    const turnouts = block.turnouts.map((t) => document.turnouts[t]!);
    const open = block.ends.filter(
      ({ piece, end }) => partition.pieces[piece]!.bounded[end]?.kind === 'cut' && !covered.has(`${piece} ${end}`),
    );
    if (open.length === 0 && block.ends.some(({ piece, end }) => partition.pieces[piece]!.bounded[end]?.kind === 'cut'))
      continue;
    const names = turnouts.map((t) => t.name).join(', ');
    const places = open.map(({ piece, end }) => {
      const p = partition.pieces[piece]!;
      return { line: p.line, at: end === 0 ? p.from : p.to, governs: end === 0 ? ('up' as const) : ('down' as const) };
    });
    const lineName = (id: string) => document.lines.find((l) => l.id === id)?.name ?? id;
    findings.push({
      id: `open-points ${block.name}`,
      kind: 'points without protection',
      severity: places.length > 0 ? 'unsafe' : 'check',
      subject: turnouts[0]!.id,
      says:
        places.length > 0
          ? `A train can run onto ${names} without passing a signal, from ${places.map((p) => `${showLength(p.at, document.shownUnit)} on ${lineName(p.line)}`).join(' and ')}.`
          : `${names} lies in ${block.name}, which no gap or block mark bounds, so no signal can protect it.`,
      figures: [],
      advice: places.length > 0 ? undefined : 'Cut gaps either side of the points, clear of the fouling point.',
      remedies: places.slice(0, 4).map((p) => ({
        says: `Place a signal at ${showLength(p.at, document.shownUnit)} on ${lineName(p.line)}`,
        edit: { do: 'add signal', line: p.line, at: asTyped(p.at), governs: p.governs },
      })),
    });
  }
  return findings;
}

/** The block end nearest to a distance, where a signal for a direction can stand. */
export function nearestBlockEnd(partition: Partition, line: string, at: number): number | undefined {
  const piece = pieceAt(partition, line, at, 'up');
  const ends = ([0, 1] as const)
    .filter((end) => piece.bounded[end]?.kind === 'cut')
    .map((end) => (end === 0 ? piece.from : piece.to));
  return ends.sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0];
}
