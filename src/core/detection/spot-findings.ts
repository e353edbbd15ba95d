import type { Finding } from '../findings';
import { NOTHING, sensorKind } from '../kinds';
import { fastest, fromMm, layoutSpeedMmPerS, mmOf, SCAN_S, showLength, showNumber } from '../measure';
import type { Edit, LayoutDocument } from '../survey';
import { consistOf, partsOf } from './consist';
import type { Partition } from './partition';

/**
 * Sensors of one place that a train can pass unnoticed: it has nothing that they notice, or at its top speed it runs farther
 * between two scans than all that they could notice is long.
 */
export function spotFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (mm: number) => showLength(fromMm(mm), document.shownUnit);
  for (const { id, name, kind } of document.sensors) {
    const { reachMm, notices, title, wants } = sensorKind(kind);
    if (reachMm === 'section' || notices === NOTHING) continue;
    const trains = document.trains.map((train) => {
      const parts = partsOf(consistOf(document, train), notices.id);
      const runsMm = fastest(layoutSpeedMmPerS(train.topSpeedKmh, document.scale)) * SCAN_S;
      return { name: train.name, longMm: Math.max(...parts.map(({ from, to }) => to - from)) + 2 * reachMm, runsMm };
    });
    const never = trains.filter(({ longMm }) => longMm < 0);
    const late = trains.filter(({ longMm, runsMm }) => longMm >= 0 && longMm <= runsMm);
    if (never.length + late.length === 0) continue;
    const list = (some: typeof trains) => some.map((train) => train.name).join(', ');
    const says = [
      ...(never.length > 0
        ? [`never notices ${list(never)}, which ${never.length > 1 ? 'have' : 'has'} no ${wants}`]
        : []),
      ...(late.length > 0 ? [`can miss ${list(late)}, too fast for it between two scans of the inputs`] : []),
    ];
    findings.push({
      id: `missing-spot ${id}`,
      kind: 'spot that can miss a train',
      severity: 'check',
      subject: id,
      says: `${title} ${name} ${says.join(', and ')}.`,
      figures: late.map((train) => ({
        name: train.name,
        value: `runs ${shown(train.runsMm)} in a scan, noticed over ${shown(train.longMm)}`,
      })),
      advice: 'Do not rely on it for those trains: choose another kind, or run them more slowly there.',
      fixes: [{ says: `Delete ${name}`, edit: { do: 'delete', id } }],
    });
  }
  return [...findings, ...sensorsTogether(document, partition), ...longHolds(document, partition)];
}

/** Sensors of one place whose fields touch: they say the same of the same train. Those that count together have to. */
function sensorsTogether(document: LayoutDocument, { inferred }: Partition): Finding<Edit>[] {
  const counting = new Set(
    [...inferred.values()]
      .flatMap((one) => ('pairs' in one && one.inPairs.counts ? one.pairs : []))
      .flatMap(({ inner, outer }) => [inner.id, outer.id]),
  );
  const spots = document.sensors.flatMap((sensor) => {
    const { reachMm, notices } = sensorKind(sensor.kind);
    return reachMm === 'section' || notices === NOTHING || counting.has(sensor.id)
      ? []
      : [{ sensor, reach: fromMm(reachMm) }];
  });
  spots.sort(
    ({ sensor: { anchor: a } }, { sensor: { anchor: b } }) =>
      (a.line < b.line ? -1 : a.line > b.line ? 1 : 0) || a.at.tenthUm - b.at.tenthUm,
  );
  return spots.slice(1).flatMap((other, i) => {
    const one = spots[i]!;
    const [a, b] = [one.sensor, other.sensor];
    const apart = b.anchor.at.tenthUm - a.anchor.at.tenthUm;
    if (a.anchor.line !== b.anchor.line || apart >= one.reach + other.reach) return [];
    return [
      {
        id: `together ${a.id} ${b.id}`,
        kind: 'two sensors at one place' as const,
        severity: 'check' as const,
        subject: b.id,
        says: `${a.name} and ${b.name} are ${showLength(apart, document.shownUnit)} apart and notice the same train at the same moment.`,
        figures: [],
        advice: 'Move one of them, or delete it.',
        fixes: [{ says: `Delete ${b.name}`, edit: { do: 'delete' as const, id: b.id } }],
      },
    ];
  });
}

/** Sections that still say occupied when the fastest train has long run through: the next one never finds them free behind it. */
function longHolds(document: LayoutDocument, { blocks, sections }: Partition): Finding<Edit>[] {
  const top = Math.max(0, ...document.trains.map((one) => layoutSpeedMmPerS(one.topSpeedKmh, document.scale)));
  if (top === 0) return [];
  const byId = new Map(document.sensors.map((sensor) => [sensor.id, sensor]));
  const plain = blocks.filter(({ points }) => points.length === 0);
  return plain.flatMap((block) =>
    sections[block.section]!.sensors.flatMap((id) => {
      const { name, holdMs } = byId.get(id)!;
      const throughMs = (mmOf(block.length) / top) * 1000;
      if (holdMs <= throughMs) return [];
      const seconds = (ms: number) => `${showNumber(ms / 1000, 1)} s`;
      return [
        {
          id: `long-hold ${id} ${block.id}`,
          kind: 'hold longer than a train takes' as const,
          severity: 'note' as const,
          subject: id,
          says: `${name} keeps “occupied” for ${seconds(holdMs)}, longer than the fastest train takes through ${block.name}: the next one finds it occupied long after it is free.`,
          figures: [{ name: 'through it', value: seconds(throughMs) }],
          advice: 'Hold for less, or make the block longer.',
          fixes: [
            {
              says: `Hold ${seconds(Math.floor(throughMs / 100) * 100)}`,
              edit: { do: 'change sensor' as const, id, change: { holdMs: Math.floor(throughMs / 100) * 100 } },
            },
          ],
        },
      ];
    }),
  );
}
