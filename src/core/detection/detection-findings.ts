import type { Finding } from '../findings';
import { SENSORS, type SensorKind } from '../kinds';
import { fromMm, STOP_SHORT_MM, showLength, type TenthUm } from '../measure';
import { asTyped, callThing, type Edit, type LayoutDocument, type Train } from '../survey';
import { type Consist, consistOf, noticedInSections, partsOf, turnedRound, unseenOf } from './consist';
import type { Section } from './division';
import { noseWays } from './nose-ways';
import type { Partition } from './partition';
import { seeAll } from './resistor-axles';
import { watchIt } from './watch-it';
import { seenAcross } from './watched-ways';

/** Track no detector sees, sections with two detectors, blocks shorter than a train, trains no detector sees. `isSignalled`: signals hold trains, or are meant to. `waits`: points that stay locked until a train has arrived, clear of them, whatever is seen of it. */
export function detectionFindings(
  document: LayoutDocument,
  partition: Partition,
  isSignalled: boolean,
  waits: WaitsForArrival = () => false,
): Finding<Edit>[] {
  const trains = document.trains.map((train): SeenTrain => {
    const consist = consistOf(document, train);
    return { train, consist, unseen: unseenOf(document, consist) };
  });
  const ways = roomsOver(document, partition);
  return [
    ...tailsAtClearance(document, partition, trains, waits),
    ...partition.sections.flatMap((section) => sectionFindings(document, partition, section, isSignalled)),
    ...shortBlocks(document, partition, trains),
    ...trains.flatMap((seen) => [...unseenMiddle(document, ways, seen, waits), ...unseenEnds(document, seen)]),
  ];
}

/** The shortest way over each points and over each crossing, as far as one block watches it. */
function roomsOver({ crossings }: LayoutDocument, partition: Partition): { id: string; name: string; room: TenthUm }[] {
  const called = new Map(crossings.map(({ id, name }) => [id, name]));
  return [
    ...partition.graph.points.map((node) => ({ id: node.id, name: node.name, room: seenAcross(partition, node) })),
    ...partition.blocks.flatMap(({ crossings: over, points, length }) =>
      points.length === 0 ? over.map((id) => ({ id, name: called.get(id)!, room: length })) : [],
    ),
  ];
}

/** Whether some points, by their id, stay locked until a train has arrived clear of them. */
type WaitsForArrival = (points: string, train: Train) => boolean;

interface SeenTrain {
  train: Train;
  consist: Consist;
  unseen: ReturnType<typeof unseenOf>;
}

function sectionFindings(
  document: LayoutDocument,
  partition: Partition,
  section: Section,
  isSignalled: boolean,
): Finding<Edit>[] {
  const all = section.blocks.map((b) => partition.blocks[b]!);
  /** Those that spots tell of are spoken of elsewhere. */
  const blocks = section.sensors.length > 0 ? all : all.filter((block) => !partition.inferred.get(block.index));
  const [first] = blocks;
  if (!first) return [];
  const names = blocks.map((b) => b.name).join(', ');
  if (section.sensors.length === 0) {
    const unseen = blocks
      .flatMap((block) => block.pieces)
      .reduce((sum, p) => sum + partition.pieces[p]!.to - partition.pieces[p]!.from, 0);
    return [
      {
        id: `no-detector ${first.id}`,
        kind: 'track without detection',
        severity: isSignalled ? 'check' : 'note',
        subject: first.id,
        says: `No detector watches ${names}. A train there is not seen${isSignalled ? ', so signals into it stay at stop' : ''}.`,
        figures: [{ name: 'length unseen', value: showLength(unseen, document.shownUnit) }],
        fixes: watchIt(document, partition, first, names),
      },
    ];
  }
  const watching = section.sensors.map((id) => document.sensors.find((sensor) => sensor.id === id)!);
  if (watching.length === 1 && blocks.length === 1) return [];
  if (watching.length === 1)
    return [
      {
        id: `one-for-several ${first.id}`,
        kind: 'one detector for several blocks',
        severity: 'note',
        subject: first.id,
        says: `${watching[0]!.name} watches ${blocks.map(({ name }) => name).join(' and ')}, between which no rail is cut: it cannot tell in which of them a train is, so that one train holds them all.`,
        figures: [],
        advice: 'Cut a gap where the block mark is and give each its detector, or take the block mark away.',
        fixes: [],
      },
    ];
  return [
    {
      id: `two-detectors ${first.id}`,
      kind: 'two detectors in one section',
      severity: 'check',
      subject: first.id,
      says: `${names} has no gap between detectors ${watching.map(({ name }) => name).join(' and ')}, so both see the same trains.`,
      figures: [],
      advice: 'Cut a gap between them, or delete one.',
      fixes: watching.slice(1).map(({ id, name }) => ({ says: `Delete detector ${name}`, edit: { do: 'delete', id } })),
    },
  ];
}

/** Plain blocks that the longest train does not fit into. */
function shortBlocks(document: LayoutDocument, partition: Partition, trains: readonly SeenTrain[]): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  const longest = trains.reduce<SeenTrain | undefined>(
    (a, b) => (a && a.consist.lengthMm >= b.consist.lengthMm ? a : b),
    undefined,
  );
  if (!longest) return [];
  const needed = fromMm(longest.consist.lengthMm);
  const short = partition.blocks.filter((block) => block.points.length === 0 && block.length < needed);
  return short.map((block): Finding<Edit> => {
    const fitting = trains.filter(({ consist }) => fromMm(consist.lengthMm) <= block.length).length;
    return {
      id: `short-block ${block.id}`,
      kind: 'block shorter than the longest train',
      severity: 'note',
      subject: block.id,
      says: `${block.name} is ${shown(needed - block.length)} shorter than ${longest.train.name}, which then occupies the block behind it too.`,
      figures: [
        { name: 'block', value: shown(block.length) },
        { name: 'longest train', value: shown(needed) },
        { name: 'trains that fit', value: `${fitting} of ${trains.length}` },
      ],
      advice: 'Lengthen the block, or keep that train out of it.',
      fixes: [],
    };
  });
}

/** A stretch between two seen axles that is as long as the watched way over some points or crossing, or longer. */
function unseenMiddle(
  document: LayoutDocument,
  ways: readonly { id: string; name: string; room: number }[],
  { train, unseen }: SeenTrain,
  waits: WaitsForArrival,
): Finding<Edit>[] {
  if (unseen.all) return [];
  const shown = (length: number) => showLength(length, document.shownUnit);
  const blind = fromMm(unseen.blindMm);
  const hidden = ways.filter(({ id, room }) => room <= blind && !waits(id, train));
  if (hidden.length === 0) return [];
  return [
    {
      id: `unseen-middle ${train.id}`,
      kind: 'unseen over points',
      severity: 'unsafe',
      subject: train.id,
      says: `${shown(blind)} of ${train.name} is not seen. That part can stand over ${[...new Set(hidden.map((h) => h.name))].join(', ')} while the block there reads free, so that others are let in and points can move.`,
      figures: [
        { name: 'unseen stretch', value: shown(blind) },
        { name: 'shortest watched way over them', value: shown(Math.min(...hidden.map((h) => h.room))) },
      ],
      ...seeAll(
        document,
        train,
        'Fit resistor axles to more of its vehicles, or lengthen those blocks.',
        ({ blindMm }) => ways.every(({ room }) => room > fromMm(blindMm)),
      ),
    },
  ];
}

/** Boundaries so near to where tracks foul each other that the unseen end of a train that has left over them still fouls. */
function tailsAtClearance(
  document: LayoutDocument,
  partition: Partition,
  trains: readonly SeenTrain[],
  waits: WaitsForArrival,
): Finding<Edit>[] {
  const { graph, pieces } = partition;
  const shown = (length: number) => showLength(length, document.shownUnit);
  const ends = trains.flatMap(({ train, consist, unseen }) => {
    if (unseen.all) return [];
    const ways = noseWays(partition, train);
    const front = unseenOf(document, turnedRound(consist)).tailMm;
    return [
      { train, ways, last: true, tail: fromMm(unseen.tailMm) },
      { train, ways, last: false, tail: fromMm(front) },
    ];
  });
  const called = new Map([...document.turnouts, ...document.crossings].map(({ id, name }) => [id, name]));
  const found = new Map<string, Finding<Edit>>();
  const byEdge = new Map<number, { cause: string; from: TenthUm; to: TenthUm }[]>();
  for (const { cause, a, b } of graph.fouling)
    for (const { edge, from, to } of [...a, ...b]) byEdge.set(edge, [...(byEdge.get(edge) ?? []), { cause, from, to }]);
  for (const { index, edge, bounded, from: start, to: stop } of pieces) {
    for (const end of [0, 1] as const) {
      const bound = bounded[end];
      if (bound?.kind !== 'cut') continue;
      const at = end === 1 ? stop : start;
      for (const { cause, from, to } of byEdge.get(edge) ?? []) {
        const beyond = end === 0 ? at - to : from - at;
        if (beyond < 0 || (end === 0 ? start < to : stop > from)) continue;
        /** It leaves into this piece by that end: with the nose first, or turned back. */
        const over = ends.filter(
          ({ train, ways, last, tail }) =>
            tail > beyond && !waits(cause, train) && ways(index, last ? end : end === 0 ? 1 : 0),
        );
        if (over.length === 0) continue;
        const worst = over.reduce((one, other) => (other.tail > one.tail ? other : one));
        const { train, last, tail } = worst;
        const clear = end === 0 ? to + tail : from - tail;
        const cut = document.features.find(({ id }) => id === bound.id)!;
        found.set(`${cause} ${cut.id}`, {
          id: `tail-at-clearance ${cause} ${cut.id}`,
          kind: 'unseen tail at clearance',
          severity: 'unsafe',
          subject: cut.id,
          says: `${callThing('features', cut, document.shownUnit)} lies ${beyond === 0 ? 'at' : `${shown(beyond)} beyond`} the clearance point of ${called.get(cause)}, and the ${last ? 'last' : 'first'} ${shown(tail)} of ${train.name} is not seen: when it has left over that and all behind reads free, ${shown(tail - beyond)} of it still fouls the other track.`,
          figures: [
            { name: 'not seen', value: shown(tail) },
            { name: 'clear from', value: shown(clear) },
          ],
          fixes: [
            {
              says: `Move it to ${shown(clear)}`,
              edit: { do: 'move', id: cut.id, at: asTyped(clear, document.shownUnit) },
            },
          ],
        });
      }
    }
  }
  return [...found.values()];
}

/** A train of which nothing is seen, or a tail of it that reaches further than a driver stops before the end of a block. */
function unseenEnds(document: LayoutDocument, { train, consist, unseen }: SeenTrain): Finding<Edit>[] {
  const shown = (length: number) => showLength(length, document.shownUnit);
  if (unseen.all)
    return [
      {
        id: `unseen-train ${train.id}`,
        kind: 'train no detector sees',
        severity: 'unsafe',
        subject: train.id,
        says: `${train.name} has no ${wanted(document, consist)}. To the signals it is not there.`,
        figures: [],
        ...seeAll(document, train, 'Fit resistor axles, or lights, to at least its first and its last vehicle.'),
      },
    ];
  if (unseen.tailMm <= STOP_SHORT_MM) return [];
  return [
    {
      id: `unseen-tail ${train.id}`,
      kind: 'unseen tail',
      severity: 'unsafe',
      subject: train.id,
      says: `The last ${shown(fromMm(unseen.tailMm))} of ${train.name} is not seen. A block reads free while that part still stands in it, and the next driver stops only ${shown(fromMm(STOP_SHORT_MM))} before its end.`,
      figures: [{ name: 'unseen tail', value: shown(fromMm(unseen.tailMm)) }],
      ...seeAll(
        document,
        train,
        'Fit a resistor axle near the end of its last vehicle.',
        ({ tailMm }) => tailMm <= STOP_SHORT_MM,
      ),
    },
  ];
}

/** What a train has none of and would need to be seen everywhere. */
function wanted(document: LayoutDocument, consist: Consist): string {
  const missing = noticedInSections(document).find((notice) => partsOf(consist, notice).length === 0);
  const kinds: SensorKind[] = Object.values(SENSORS);
  return kinds.find(({ notices, reachMm }) => notices.id === missing && reachMm === 'section')!.wants;
}
