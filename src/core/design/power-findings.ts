import { consistOf } from '../detection';
import type { Finding } from '../findings';
import { sensorKind, TRACK_POWERS } from '../kinds';
import { fromMm, showLength, type TenthUm } from '../measure';
import type { Scheme } from '../patterns';
import { applyEdit, callThing, type Edit, type Gap, isKind, type LayoutDocument } from '../survey';
import { type PointsNode, type Polarity, type RailSpan, railsOf, type TrackGraph } from '../track';

/** What is wrong with the current in the track: rails that meet the other way round, gaps in the wrong rail, stretches that nothing feeds. */
export function powerFindings(scheme: Scheme): Finding<Edit>[] {
  const { twoPoles, inTrack } = TRACK_POWERS[scheme.document.power];
  return [
    ...(twoPoles ? polarityFindings(scheme) : []),
    ...(inTrack ? unfed(scheme) : []),
    ...(inTrack ? [] : needsCurrent(scheme)),
  ];
}

const polarityOf = (graph: TrackGraph, document: LayoutDocument): Polarity =>
  railsOf(
    graph,
    document.features
      .filter(isKind('gap'))
      .filter(({ rail }) => rail === 'both')
      .map(({ line, at }) => ({ line, at: at.tenthUm })),
  );

function polarityFindings({ document, partition: { graph } }: Scheme): Finding<Edit>[] {
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
      remedies: nodes.length === 1 ? cutBoth(document, graph, nodes[0]!) : [],
    };
  });
  return [
    ...shorts,
    ...shortStretches(document, graph, spans),
    ...wrongRails(
      document,
      spans.filter(({ zone }) => !zones.has(zone)),
    ),
  ];
}

/** The nearest gap on each leg of points, cut through both rails, if that is all it takes. */
function cutBoth(document: LayoutDocument, graph: TrackGraph, { ports }: PointsNode): Finding<Edit>['remedies'] {
  const gaps = document.features.filter(isKind('gap'));
  const nearest = ports.slice(1).flatMap(({ edge, end }): Gap[] => {
    const { line, from, to } = graph.edges[edge]!;
    const own = gaps.filter((gap) => gap.line === line && gap.at.tenthUm > from && gap.at.tenthUm < to);
    own.sort((a, b) => (end === 0 ? 1 : -1) * (a.at.tenthUm - b.at.tenthUm));
    return own.slice(0, 1);
  });
  const edit: Edit = { do: 'change features', ids: nearest.map(({ id }) => id), change: { rail: 'both' } };
  const done = nearest.length > 0 ? applyEdit(document, edit) : undefined;
  if (!done?.ok || polarityOf(graph, done.change.document).clashes.length >= polarityOf(graph, document).clashes.length)
    return [];
  const places = nearest.map(({ at }) => showLength(at.tenthUm, document.shownUnit)).join(' and ');
  return [{ says: `Cut both rails at ${places}`, edit }];
}

/** Stretches that are fed either way round, and shorter than a train, so that it bridges both of their ends at once. */
function shortStretches(document: LayoutDocument, graph: TrackGraph, spans: readonly RailSpan[]): Finding<Edit>[] {
  if (spans.length === graph.edges.length) return [];
  const whole = railsOf(graph, []);
  const longest = Math.max(0, ...document.trains.map((train) => fromMm(consistOf(document, train).lengthMm)));
  return [...new Set(whole.clashes.map(({ zone }) => zone))].flatMap((zone) => {
    const edges = new Set(whole.spans.filter((span) => span.zone === zone).map(({ edge }) => edge));
    const stretches = new Map<number, { spans: RailSpan[]; length: number }>();
    for (const span of spans) {
      if (!edges.has(span.edge)) continue;
      const known = stretches.get(span.zone) ?? { spans: [], length: 0 };
      known.spans.push(span);
      known.length += span.to - span.from;
      stretches.set(span.zone, known);
    }
    const byLength = [...stretches.values()].sort((a, b) => b.length - a.length);
    return byLength.slice(1).flatMap(({ spans: own, length }): Finding<Edit>[] => {
      if (length >= longest) return [];
      const { line, from, to } = own[0]!;
      const shown = (at: number) => showLength(at, document.shownUnit);
      const called = document.lines.find(({ id }) => id === line)!.name;
      return [
        {
          id: `short-reversing ${line} ${from}`,
          kind: 'reversing stretch shorter than a train',
          severity: 'check',
          subject: line,
          says: `The stretch on ${called} from ${shown(from)} to ${shown(to)} is cut off at both ends in both rails, and ${shown(longest - length)} shorter than the longest train: its wheels bridge both ends at once.`,
          figures: [
            { name: 'stretch', value: shown(length) },
            { name: 'longest train', value: shown(longest) },
          ],
          advice: 'Move its ends farther apart, or keep that train off it.',
          remedies: [],
        },
      ];
    });
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
          remedies: [
            { says: `Cut the ${rail} rail`, edit: { do: 'change features', ids: [gap.id], change: { rail } } },
          ],
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

/** Sections without a feeder, where feeders are entered at all. */
function unfed({ document, partition }: Scheme): Finding<Edit>[] {
  const feeders = document.features.filter(isKind('feeder'));
  if (feeders.length === 0) return [];
  return partition.sections.flatMap(({ blocks }): Finding<Edit>[] => {
    const own = blocks.map((block) => partition.blocks[block]!);
    const pieces = own.flatMap((block) => block.pieces.map((piece) => partition.pieces[piece]!));
    const isFed = pieces.some(({ line, from, to }) =>
      feeders.some((feeder) => feeder.line === line && feeder.at.tenthUm >= from && feeder.at.tenthUm <= to),
    );
    if (isFed) return [];
    const names = own.map(({ name }) => name).join(', ');
    return [
      {
        id: `unfed ${own[0]!.id}`,
        kind: 'section without a feeder',
        severity: 'check',
        subject: own[0]!.id,
        says: `No feeder leads to ${names}: between its gaps trains get no current, and nothing is seen there.`,
        figures: [],
        advice: 'Enter the feeder that leads there: feeder 96.',
        remedies: [],
      },
    ];
  });
}

/** Sensors that notice current, where there is none in the track. */
function needsCurrent({ document: { sensors, power } }: Scheme): Finding<Edit>[] {
  const blind = sensors.filter(({ kind }) => sensorKind(kind).notices === 'current');
  if (blind.length === 0) return [];
  return [
    {
      id: 'no-current',
      kind: 'detector that needs current in the track',
      severity: 'unsafe',
      subject: blind[0]!.id,
      says: `Trains run on ${TRACK_POWERS[power].says}: ${blind.length === 1 ? blind[0]!.name : `${blind.length} detectors`} will never notice any.`,
      figures: [],
      advice: 'Choose sensors that need no current in the track: contacts, light, or magnets.',
      remedies: [],
    },
  ];
}
