import type { Finding } from '../findings';
import { showLength, type TenthUm } from '../measure';
import { asTyped, callThing, type Edit, type Gap, type LayoutDocument, type Mark, overlapFindings } from '../survey';
import { trackFrom } from './fouling';
import { edgeAt, type TrackGraph } from './graph';
import { tapeFindings } from './tape-findings';

/** What can be seen of the survey by itself: lines that meet nothing, and cuts too near to points. */
export const surveyFindings = (document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] => [
  ...linesApart(document),
  ...legsToNowhere(document, graph),
  ...tapeFindings(document, graph),
  ...overlapFindings(document),
  ...cutsInClearance(document, graph),
];

/** A line among others that no turnout, no end and no crossing joins to any of them. */
function linesApart(document: LayoutDocument): Finding<Edit>[] {
  const { lines, joins, turnouts, crossings } = document;
  if (lines.length < 2) return [];
  const met = new Set([
    ...joins.filter(({ a, b }) => a.line !== b.line).flatMap(({ a, b }) => [a.line, b.line]),
    ...turnouts.flatMap(({ line, legs, straight }) => [line, ...legs.map((leg) => leg.line), straight?.line]),
    ...crossings.flatMap(({ a, b }) => [a.line, b.line]),
  ]);
  return lines
    .filter(({ id }) => !met.has(id))
    .map(
      ({ id, name }): Finding<Edit> => ({
        id: `line-apart ${id}`,
        kind: 'line that meets nothing',
        severity: 'note',
        subject: id,
        says: `${name} meets no other line, so that no train comes onto it or leaves it.`,
        figures: [],
        advice:
          'Say where it begins: the end that it joins, or the turnout that leads to it. Or leave it, if it is a circuit of its own.',
        fixes: [],
      }),
    );
}

/** A leg that ends before the clearance point: nothing can stand on it clear of the other. */
function legsToNowhere(document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  return graph.points.flatMap(({ id, name, ports, kind, clearance }) =>
    ports.flatMap(({ edge, end }, port): Finding<Edit>[] => {
      const { line, from, to, ends } = graph.edges[edge]!;
      const fouls = kind.fouls.flat(2).includes(kind.ports[port]!);
      if (ends[end === 0 ? 1 : 0]!.kind !== 'stop' || to - from > (fouls ? clearance : 0)) return [];
      const called = document.lines.find((one) => one.id === line)!.name;
      return [
        {
          id: `leg-to-nowhere ${id} ${kind.ports[port]}`,
          kind: 'leg that leads nowhere',
          severity: 'check',
          subject: id,
          says: `The ${kind.ports[port]} leg of ${name} ends ${to === from ? 'at the points themselves' : `${shown(to - from)} on, before it is clear of the other leg`}: nothing can stand on ${called} there.`,
          figures: [{ name: 'clearance', value: shown(clearance) }],
          advice: `Make ${called} longer, or say which line goes on from there.`,
          fixes: [],
        },
      ];
    }),
  );
}

/** A cut between blades and clearance point: a train that stands beyond it still fouls the other leg. */
function cutsInClearance(document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] {
  const cuts = document.features.filter((f): f is Gap | Mark => f.kind === 'gap' || f.kind === 'mark');
  const onEdge = new Map<number, (Gap | Mark)[]>();
  for (const cut of cuts) {
    const { index } = edgeAt(graph, cut.line, cut.at.tenthUm, 'up');
    const own = onEdge.get(index);
    if (own) own.push(cut);
    else onEdge.set(index, [cut]);
  }
  const inside = new Map<Gap | Mark, Within[]>();
  for (const { id, name, ports, kind, clearance } of graph.points) {
    const fouling = new Set(kind.fouls.flat(2));
    const legs = ports.filter((_, port) => fouling.has(kind.ports[port]!));
    for (const leg of legs)
      for (const { edge, from, to } of trackFrom(graph, leg, clearance)) {
        const clear = edge !== leg.edge ? undefined : leg.end === 0 ? to : from;
        for (const cut of onEdge.get(edge) ?? [])
          if (cut.at.tenthUm > from && cut.at.tenthUm < to)
            inside.set(cut, [...(inside.get(cut) ?? []), { id, name, clearance, from, to, clear }]);
      }
  }
  return [...inside].flatMap(([cut, within]) => cutInClearance(document, cut, within));
}

/** Points inside the clearance of which a cut lies: from where to where they foul its track, and where it would be clear of them. */
interface Within {
  id: string;
  name: string;
  clearance: TenthUm;
  from: TenthUm;
  to: TenthUm;
  clear: TenthUm | undefined;
}

function cutInClearance(document: LayoutDocument, cut: Gap | Mark, within: readonly Within[]): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  const called = callThing('features', cut, document.shownUnit);
  const isClear = (at: TenthUm) => within.every(({ from, to }) => at <= from || at >= to);
  const names = [...new Set(within.map(({ name }) => name))].join(' and ');
  if (within.length > 1 && !within.some(({ clear }) => clear !== undefined && isClear(clear)))
    return [
      {
        id: `cut-between ${cut.id}`,
        kind: 'cut between points too near for it',
        severity: 'note',
        subject: cut.id,
        says: `${called} lies between ${names}, which are so near to each other that no place is clear of both: a train that stands there keeps both locked.`,
        figures: [],
        advice: 'It may stay, as long as no train waits there.',
        fixes: [],
      },
    ];
  return within.map(({ id, name, clearance, clear }) => ({
    id: `cut-in-clearance ${id} ${cut.id}`,
    kind: 'cut inside clearance',
    severity: 'check',
    subject: cut.id,
    says: `${called} lies before the clearance point of ${name}: a train that stands beyond it still fouls the other leg, and keeps ${name} locked.`,
    figures: [{ name: 'clearance', value: shown(clearance) }],
    fixes:
      clear === undefined || !isClear(clear)
        ? []
        : [
            {
              says: `Move it to ${shown(clear)}`,
              edit: { do: 'move', id: cut.id, at: asTyped(clear, document.shownUnit) },
            },
          ],
  }));
}
