import type { Finding } from '../findings';
import { TRACK_POWERS } from '../kinds';
import { fromMm, showLength, type TenthUm } from '../measure';
import { applyEdit, callThing, type Edit, isKind, type LayoutDocument } from '../survey';
import { type Polarity, type RailSpan, railsOf, type TrackGraph } from '../track';
import { consistOf } from './consist';
import type { Partition } from './partition';

const polarityOf = (graph: TrackGraph, document: LayoutDocument): Polarity =>
  railsOf(
    graph,
    document.features
      .filter(isKind('gap'))
      .filter(({ rail }) => rail === 'both')
      .map(({ line, at }) => ({ line, at: at.tenthUm })),
  );

/** Rails that meet the other way round, stretches that are to be reversed, and gaps in the wrong rail. */
export function polarityFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  if (!TRACK_POWERS[document.power].twoPoles) return [];
  const { graph } = partition;
  const { spans, clashes } = polarityOf(graph, document);
  const zones = new Set(clashes.map(({ zone }) => zone));
  const shorts = [...zones].map((zone): Finding<Edit> => {
    const here = clashes.filter((clash) => clash.zone === zone);
    const nodes = here.map(({ points }) => graph.points.find(({ id }) => id === points)!);
    const names = nodes.map(({ name }) => name).join(', ');
    return {
      id: `polarity ${here[0]!.points}`,
      kind: 'track that meets itself the other way round',
      severity: 'check',
      subject: here[0]!.points,
      says: `By ${names} the track comes back on itself the other way round, so that its left rail meets its right one: a short circuit as soon as it is laid.`,
      figures: [],
      advice:
        'Cut both rails at either end of a stretch that is longer than the longest train, and feed that stretch by something that reverses it. Never join two supplies or two boosters in one section.',
      fixes: cutBoth(document, partition),
    };
  });
  const stretches = reversingStretches(graph, spans);
  return [
    ...shorts,
    ...tooShort(document, stretches),
    ...reversedByNothing(document, stretches),
    ...wrongRails(
      document,
      spans.filter(({ zone }) => !zones.has(zone)),
    ),
  ];
}

/** So many blocks are tried, the longest first. */
const MOST_TRIED = 12;

/** The ends of a block without points cut through both rails, of the longest block with which fewer rails meet the other way round. */
function cutBoth(document: LayoutDocument, { graph, blocks, pieces }: Partition): Finding<Edit>['fixes'] {
  const gaps = new Map(document.features.filter(isKind('gap')).map((gap) => [gap.id, gap]));
  const now = polarityOf(graph, document).clashes.length;
  const plain = blocks.filter(({ points, ends }) => points.length === 0 && ends.length === 2);
  for (const { ends } of plain.sort((one, other) => other.length - one.length).slice(0, MOST_TRIED)) {
    const bounds = ends.map(({ piece, end }) => pieces[piece]!.bounded[end]);
    const own = bounds.flatMap((bound) => (bound?.kind === 'cut' ? (gaps.get(bound.id) ?? []) : []));
    const edit: Edit = { do: 'change features', ids: own.map(({ id }) => id), change: { rail: 'both' } };
    const done = own.length === 2 ? applyEdit(document, edit) : undefined;
    if (!done?.ok || polarityOf(graph, done.change.document).clashes.length >= now) continue;
    const places = own.map(({ at }) => at.tenthUm).sort((one, other) => one - other);
    return [
      { says: `Cut both rails at ${places.map((at) => showLength(at, document.shownUnit)).join(' and ')}`, edit },
    ];
  }
  return [];
}

/** A stretch between cuts through both rails, of track that without them would meet itself the other way round. */
interface Stretch {
  spans: RailSpan[];
  length: TenthUm;
}

/** For each such track its stretches, the longest first: all but that one are to be reversed for a train that goes on from there. */
function reversingStretches(graph: TrackGraph, spans: readonly RailSpan[]): Stretch[][] {
  if (spans.length === graph.edges.length) return [];
  const whole = railsOf(graph, []);
  return [...new Set(whole.clashes.map(({ zone }) => zone))].map((zone) => {
    const edges = new Set(whole.spans.filter((span) => span.zone === zone).map(({ edge }) => edge));
    const stretches = new Map<number, Stretch>();
    for (const span of spans) {
      if (!edges.has(span.edge)) continue;
      const known = stretches.get(span.zone) ?? { spans: [], length: 0 };
      known.spans.push(span);
      known.length += span.to - span.from;
      stretches.set(span.zone, known);
    }
    return [...stretches.values()].sort((a, b) => b.length - a.length);
  });
}

/** “The stretch on Loop from 20 cm to 210 cm”. */
function sayStretch(document: LayoutDocument, { spans: [first] }: Stretch): string {
  const { line, from, to } = first!;
  const shown = (at: TenthUm) => showLength(at, document.shownUnit);
  return `The stretch on ${document.lines.find(({ id }) => id === line)!.name} from ${shown(from)} to ${shown(to)}`;
}

/** Stretches that are fed either way round, and shorter than a train, so that it bridges both of their ends at once. */
function tooShort(document: LayoutDocument, groups: readonly Stretch[][]): Finding<Edit>[] {
  const longest = Math.max(0, ...document.trains.map((train) => fromMm(consistOf(document, train).lengthMm)));
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  return groups
    .flatMap((stretches) => stretches.slice(1))
    .filter(({ length }) => length < longest)
    .map((stretch) => {
      const { line, from } = stretch.spans[0]!;
      return {
        id: `short-reversing ${line} ${from}`,
        kind: 'reversing section shorter than a train',
        severity: 'check',
        subject: line,
        says: `${sayStretch(document, stretch)} is cut off at both ends in both rails, and ${shown(longest - stretch.length)} shorter than the longest train: its wheels bridge both ends at once.`,
        figures: [
          { name: 'stretch', value: shown(stretch.length) },
          { name: 'longest train', value: shown(longest) },
        ],
        advice: 'Move its ends farther apart, or keep that train off it.',
        fixes: [],
      };
    });
}

/** Stretches that have to be reversed, where feeders are entered and none of them does it. */
function reversedByNothing(document: LayoutDocument, groups: readonly Stretch[][]): Finding<Edit>[] {
  const feeders = document.features.filter(isKind('feeder'));
  if (feeders.length === 0) return [];
  const within = ({ spans }: Stretch) =>
    feeders.filter(({ line, at }) =>
      spans.some((span) => span.line === line && at.tenthUm >= span.from && at.tenthUm <= span.to),
    );
  return groups.flatMap((stretches): Finding<Edit>[] => {
    const shortest = stretches.at(-1)!;
    if (stretches.length < 2 || stretches.some((stretch) => within(stretch).some(({ reverses }) => reverses)))
      return [];
    const { line, from } = shortest.spans[0]!;
    const own = within(shortest).map(({ id }) => id);
    return [
      {
        id: `not-reversed ${line} ${from}`,
        kind: 'reversing section that nothing reverses',
        severity: 'check',
        subject: line,
        says: `${sayStretch(document, shortest)} is fed the same way round whichever way a train goes on from it: at one of its ends the train makes a short circuit.`,
        figures: [],
        advice: 'Feed it by something that turns its two poles round, and say so of its feeder.',
        fixes:
          own.length === 0
            ? []
            : [
                {
                  says: 'Its feeder turns them round',
                  edit: { do: 'change features', ids: own, change: { reverses: true } },
                },
              ],
      },
    ];
  });
}

/** Gaps in another rail than most: detectors that share a return need all gaps in the rail that they watch. Only where left stays left. */
function wrongRails(document: LayoutDocument, spans: readonly RailSpan[]): Finding<Edit>[] {
  const onLine = new Map<string, RailSpan[]>();
  for (const span of spans) {
    const own = onLine.get(span.line);
    if (own) own.push(span);
    else onLine.set(span.line, [span]);
  }
  const cut = document.features.filter(isKind('gap')).flatMap((gap) => {
    if (gap.rail === 'both') return [];
    const span = spanAt(onLine.get(gap.line) ?? [], gap.at.tenthUm);
    return span ? { gap, zone: span.zone, right: (gap.rail === 'right') !== span.flipped } : [];
  });
  return [...new Set(cut.map(({ zone }) => zone))].flatMap((zone) => {
    const own = cut.filter((one) => one.zone === zone);
    const right = own.filter((one) => one.right).length;
    const usual = right * 2 >= own.length;
    return own
      .filter((one) => one.right !== usual)
      .map(({ gap }): Finding<Edit> => {
        const rail = gap.rail === 'right' ? 'left' : 'right';
        return {
          id: `wrong-rail ${gap.id}`,
          kind: 'gap in the other rail',
          severity: 'check',
          subject: gap.id,
          says: `${callThing('features', gap, document.shownUnit)} cuts the ${gap.rail} rail, the other gaps that its rails lead to the other one: the return that detectors share is broken there.`,
          figures: [
            { name: 'gaps in the usual rail', value: `${Math.max(right, own.length - right)} of ${own.length}` },
          ],
          fixes: [{ says: `Cut the ${rail} rail`, edit: { do: 'change features', ids: [gap.id], change: { rail } } }],
        };
      });
  });
}

/** The span that holds a place, of those of a line in order; none where it is left out. */
function spanAt(spans: readonly RailSpan[], at: TenthUm): RailSpan | undefined {
  let [low, high] = [0, spans.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (at <= spans[middle]!.to) high = middle;
    else low = middle + 1;
  }
  const span = spans[low];
  return span && at >= span.from && at <= span.to ? span : undefined;
}
