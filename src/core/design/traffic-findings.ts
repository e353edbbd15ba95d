import { consistOf, type Partition, resistorAxles, unseenOf, watchedFrom } from '../detection';
import type { Finding, Fix } from '../findings';
import { waitsForArrival } from '../locking';
import {
  fromMm,
  layoutSpeedMmPerS,
  STOP_SHORT_MM,
  showLength,
  showSpeed,
  stoppingNeed,
  type TenthUm,
} from '../measure';
import { arrivalLocking, type Scheme } from '../patterns';
import { warningsOf } from '../signals';
import { asTyped, type Edit, type LayoutDocument, type Train } from '../survey';
import type { EdgeEnd, EdgeStretch } from '../track';
import { startFindings } from './start-findings';
import { stoppingRoom } from './stopping-room';

/** What can be seen of trains and signals without looking at every state: where they wait, how they begin, how they stop. */
export function trafficFindings(scheme: Scheme): Finding<Edit>[] {
  return [
    ...signalsInsideClearance(scheme),
    ...startFindings(scheme),
    ...lateWarnings(scheme),
    ...overhangsOverPoints(scheme),
  ];
}

/** Signals at which a waiting train fouls points or a crossing, though it comes from clear of them. */
function signalsInsideClearance({ document, partition, readings }: Scheme): Finding<Edit>[] {
  const { graph } = partition;
  const shown = (length: number) => showLength(length, document.shownUnit);
  const findings: Finding<Edit>[] = [];
  const foulingOn = new Map<number, Set<(typeof graph.fouling)[number]>>();
  for (const pair of graph.fouling)
    for (const { edge } of [...pair.a, ...pair.b]) foulingOn.set(edge, (foulingOn.get(edge) ?? new Set()).add(pair));
  for (const { signal, piece: on, exit, rear } of readings) {
    const piece = partition.pieces[on]!;
    /** Routes over track that it fouls ask for its block to be free. */
    const { section } = partition.blocks[rear]!;
    const isWatched = partition.sections[section]!.sensors.length > 0 || partition.inferred.has(rear);
    const stopsAt = signal.at.tenthUm + (exit === 1 ? -1 : 1) * fromMm(STOP_SHORT_MM);
    for (const { cause, a, b } of foulingOn.get(piece.edge) ?? []) {
      for (const [own, other] of [
        [a, b],
        [b, a],
      ] as const) {
        const zone = own.find(({ edge, from, to }) => edge === piece.edge && stopsAt > from && stopsAt < to);
        if (!zone || reachesBlades(partition, piece.edge, zone, exit) === false) continue;
        const clear = exit === 1 ? zone.from : zone.to;
        const edge = graph.edges[piece.edge]!;
        if (clear === (exit === 1 ? edge.from : edge.to)) continue;
        const turnout = document.turnouts.find((t) => t.id === cause);
        const name = turnout?.name ?? document.crossings.find((c) => c.id === cause)?.name ?? cause;
        const inside = Math.abs(stopsAt - clear);
        const [line] = other.map(({ edge: e }) => document.lines.find((l) => l.id === graph.edges[e]!.line)?.name);
        findings.push({
          id: `inside-clearance ${signal.id} ${cause}`,
          kind: 'signal inside clearance',
          severity: isWatched ? 'check' : 'unsafe',
          subject: signal.id,
          says: `${signal.name} stands inside the clearance point of ${name}: a train that waits there reaches ${shown(inside)} into it and fouls ${line ?? 'the other track'}${isWatched ? `, so that no signal lets anybody past ${name} meanwhile` : ''}.`,
          figures: [
            { name: 'clearance point', value: shown(clear) },
            { name: 'a driver stops at', value: shown(stopsAt) },
          ],
          advice: 'Move it clear of the points, and the gap with it.',
          fixes: [
            {
              says: `Move it to ${shown(clear)}`,
              edit: { do: 'move', id: signal.id, at: asTyped(clear, document.shownUnit) },
            },
          ],
        });
      }
    }
  }
  return findings;
}

/** Whether a train that runs on out of a zone by an end comes to what fouls, and not away from it. */
function reachesBlades(partition: Partition, edge: number, zone: EdgeStretch, exit: EdgeEnd): boolean {
  const { from, to } = partition.graph.edges[edge]!;
  return exit === 1 ? zone.to === to : zone.from === from;
}

/** Trains that need farther to stop than signals warn them: from where one says “be ready to stop” to where they must stand. */
function lateWarnings({ document, readings }: Scheme): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  const warnings = warningsOf(document, readings);
  return document.trains.flatMap((train): Finding<Edit>[] => {
    const needs = stoppingRoom(document, train);
    const late = warnings.filter(({ length }) => length < needs).sort((a, b) => a.length - b.length);
    const [worst] = late;
    if (!worst) return [];
    const name = (signal: number) => readings[signal]!.signal.name;
    return [
      {
        id: `late-warning ${train.id}`,
        kind: 'braking longer than its warning',
        severity: 'unsafe',
        subject: train.id,
        says: `${train.name} cannot stop at ${name(worst.stop)} when it learns of it: ${name(worst.by)} warns it ${shown(worst.length)} before, and it needs ${shown(needs)}, ${shown(needs - worst.length)} more.`,
        figures: [
          { name: 'warned before the stop', value: shown(worst.length) },
          { name: 'needed, at its fastest', value: shown(needs) },
          { name: 'signals too near for it', value: String(new Set(late.map(({ stop }) => stop)).size) },
        ],
        advice: 'Make the blocks longer, run it more slowly, or let it brake harder.',
        fixes: slowerFor(document, train, worst.length),
      },
    ];
  });
}

/** A top speed, in whole km/h, at which a train stops within a length; none when even the slowest is too fast. */
function slowerFor({ scale, shownUnit }: LayoutDocument, train: Train, length: TenthUm): Fix<Edit>[] {
  const fits = (kmh: number) =>
    fromMm(stoppingNeed(layoutSpeedMmPerS(kmh, scale), train.brakingMmPerS2).totalMm) <= length;
  let kmh = Math.ceil(train.topSpeedKmh) - 1;
  while (kmh > 0 && !fits(kmh)) kmh -= 1;
  if (kmh < 1) return [];
  const edit: Edit = { do: 'change train', id: train.id, change: { topSpeedKmh: kmh } };
  return [{ says: `Run ${train.name} at ${showSpeed(kmh, shownUnit)} at most`, edit }];
}

/** Trains whose unseen end is longer than the watched track beside the blades, so that points can move under it. */
function overhangsOverPoints(scheme: Scheme): Finding<Edit>[] {
  const { document, partition } = scheme;
  const shown = (length: number) => showLength(length, document.shownUnit);
  const findings: Finding<Edit>[] = [];
  const tails = document.trains.map((train) => ({ train, unseen: unseenOf(document, consistOf(document, train)) }));
  for (const node of partition.graph.points) {
    const room = Math.min(...node.ports.map((leg) => watchedFrom(partition, leg)));
    const long = tails.filter(
      ({ train, unseen }) => fromMm(unseen.tailMm) > room && !unseen.all && !waitsForArrival(scheme, node.id, train),
    );
    if (long.length === 0) continue;
    findings.push({
      id: `overhang ${node.id}`,
      kind: 'overhang over points',
      severity: 'unsafe',
      subject: node.id,
      says: `${node.name} can move while the end of ${long.map(({ train }) => train.name).join(', ')} still lies over it: its block ends ${shown(room)} from the blades, and more than that is not seen.`,
      figures: long.map(({ train, unseen }) => ({ name: train.name, value: `${shown(fromMm(unseen.tailMm))} unseen` })),
      advice: 'Cut the gap farther from the blades, or fit a resistor axle near the end of the train.',
      fixes: [
        ...long.flatMap(({ train }) => resistorAxles(document, train, ({ tailMm }) => fromMm(tailMm) <= room)),
        {
          says: `Keep ${node.name} locked until trains have arrived`,
          edit: { do: 'use pattern', id: node.id, pattern: arrivalLocking.id, on: true },
        },
      ],
    });
  }
  return findings;
}
