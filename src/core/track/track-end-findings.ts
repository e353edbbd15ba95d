import type { Finding } from '../findings';
import { showLength } from '../measure';
import { asTyped, type Edit, type FeatureKind, type LayoutDocument } from '../survey';
import type { EdgeEnd, TrackGraph } from './graph';

/** What may stand at the end of a track: something that holds a train, or the place from where it goes on elsewhere. */
const ENDS: readonly FeatureKind[] = ['buffer', 'edge', 'liftOut'];
/** So near to the end it stands at the end. */
const AT_THE_END_TENTH_UM = 500_000;

/** Tracks that end with nothing that holds a train there, one finding for each line. */
export function trackEndFindings(document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] {
  const holding = document.features.filter(({ kind }) => ENDS.includes(kind));
  return document.lines.flatMap((line): Finding<Edit>[] => {
    const edges = graph.byLine.get(line.id)!;
    const open = ([0, 1] as EdgeEnd[]).flatMap((end) => {
      const edge = end === 0 ? edges[0]! : edges[edges.length - 1]!;
      const at = end === 0 ? edge.from : edge.to;
      const held = holding.some((f) => f.line === line.id && Math.abs(f.at.tenthUm - at) <= AT_THE_END_TENTH_UM);
      return edge.ends[end].kind === 'stop' && !held ? [at] : [];
    });
    if (open.length === 0) return [];
    const places = open.map((at) => showLength(at, document.shownUnit));
    return [
      {
        id: `open-end ${line.id}`,
        kind: 'track end without a buffer',
        severity: 'check',
        subject: line.id,
        says: `${line.name} ends at ${places.join(' and at ')} with no buffer: nothing holds a train there.`,
        figures: [],
        advice: 'Place a buffer, or join that end to another track.',
        fixes: open.map((at, i) => ({
          says: `Place a buffer at ${places[i]}`,
          edit: { do: 'add buffer', line: line.id, at: asTyped(at, document.shownUnit) },
        })),
      },
    ];
  });
}
