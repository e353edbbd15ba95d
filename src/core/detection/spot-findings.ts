import type { Finding } from '../findings';
import { sensorKind } from '../kinds';
import { fastest, fromMm, layoutSpeedMmPerS, SCAN_S, showLength } from '../measure';
import type { Edit, LayoutDocument } from '../survey';
import { consistOf } from './consist';

/**
 * Sensors of one place that a train can pass unnoticed: it has nothing that they notice, or at its top speed it runs farther
 * between two scans than all that they could notice is long.
 */
export function spotFindings(document: LayoutDocument): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const shown = (mm: number) => showLength(fromMm(mm), document.shownUnit);
  for (const { id, name, kind } of document.sensors) {
    const { reachMm, notices, title, wants } = sensorKind(kind);
    if (reachMm === 'section') continue;
    const trains = document.trains.map((train) => {
      const parts = consistOf(document, train).parts[notices];
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
      remedies: [{ says: `Delete ${name}`, edit: { do: 'delete', id } }],
    });
  }
  return findings;
}
