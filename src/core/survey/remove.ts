import { refuse } from './refused';
import type { LayoutDocument } from './schema';

/** Takes a thing out of a draft with all that cannot be without it; says in words what was done, or refuses. */
export function remove(document: LayoutDocument, id: string): string {
  const train = document.trains.find((t) => t.id === id);
  if (train) return removeTrain(document, id);
  const lists = [document.features, document.detectors, document.blocks, document.crossings] as { id: string }[][];
  for (const list of lists) {
    const index = list.findIndex((thing) => thing.id === id);
    if (index < 0) continue;
    const [gone] = list.splice(index, 1) as ({ id: string; kind?: string; name?: string } | undefined)[];
    return `Delete ${gone?.name ?? (gone?.kind === 'mark' ? 'block mark' : gone?.kind) ?? id}`;
  }
  const turnout = document.turnouts.find((t) => t.id === id);
  if (turnout) {
    const leg = turnout.diverging.line;
    const standing = [...document.features, ...document.turnouts].find((thing) => thing.line === leg);
    if (standing) refuse(`Track ${leg} leads from ${turnout.name} and still has things on it. Delete those first.`);
    document.turnouts = document.turnouts.filter((t) => t.diverging.line !== leg);
    removeLine(document, leg);
    return `Delete ${turnout.name} and its track`;
  }
  const line = document.lines.find((l) => l.id === id);
  if (!line) return refuse('It is no longer there.');
  const touching = document.turnouts.filter((t) => [t.line, t.diverging.line, t.straight?.line].includes(id));
  if (touching.length > 0)
    refuse(
      `${line.name} has points: ${touching.map((t) => t.name).join(', ')}. Delete ${touching.length === 1 ? 'that' : 'those'} first.`,
    );
  removeLine(document, id);
  return `Delete ${line.name} and all that is on it`;
}

/** The vehicles that run in no other train go with it. */
function removeTrain(document: LayoutDocument, id: string): string {
  const gone = document.trains.find((train) => train.id === id)!;
  document.trains = document.trains.filter((train) => train.id !== id);
  const used = new Set(document.trains.flatMap(({ vehicles }) => vehicles));
  document.vehicles = document.vehicles.filter((v) => used.has(v.id) || !gone.vehicles.includes(v.id));
  return `Delete ${gone.name}`;
}

function removeLine(document: LayoutDocument, id: string): void {
  document.lines = document.lines.filter((line) => line.id !== id);
  document.features = document.features.filter((f) => f.line !== id);
  document.blocks = document.blocks.filter((b) => b.anchor.line !== id);
  document.detectors = document.detectors.filter((d) => d.anchor.line !== id);
  document.crossings = document.crossings.filter(({ a, b }) => a.line !== id && b.line !== id);
  document.joins = document.joins.filter(({ a, b }) => a.line !== id && b.line !== id);
  for (const train of document.trains) if (train.start?.line === id) train.start = undefined;
  if (document.referenceLine === id) document.referenceLine = document.lines[0]?.id ?? '';
}
