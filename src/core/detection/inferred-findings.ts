import type { Finding, Fix } from '../findings';
import { sensorKind } from '../kinds';
import {
  CAUTION_SHARE,
  fastest,
  fromMm,
  layoutSpeedMmPerS,
  mmOf,
  SCAN_S,
  STOP_SHORT_MM,
  showLength,
  showNumber,
  type TenthUm,
} from '../measure';
import { asTyped, type Edit, type LayoutDocument, type Sensor } from '../survey';
import { type Consist, consistOf, partsOf, turnedRound } from './consist';
import type { Block } from './division';
import type { Inferred, WayOut } from './inferred';
import { onwardPieces } from './onward-pieces';
import { KIND_IN_PAIRS, pairsInstead } from './pairs-instead';
import type { Partition } from './partition';
import { endsOf, NEAR, pairAt, reachOf, type SpotPair } from './spot-pairs';
import { watchIt } from './watch-it';

/** How far behind a signal the spot of a chain is put, or halfway through a short piece. Our choice. */
const BEYOND: TenthUm = fromMm(50);

type Of = {
  document: LayoutDocument;
  partition: Partition;
  block: Block;
  trains: readonly Running[];
  /** Those of which two tell of what passes between them. */
  spots: readonly Sensor[];
};
interface Running {
  name: string;
  parts: Consist['parts'];
  long: TenthUm;
  /** Its top speed over the layout, in mm/s. */
  top: number;
  /** The most of it before its first magnet or behind its last one; undefined where it has none. */
  bare: TenthUm | undefined;
}

/** What is wrong, and what can be, with blocks that nothing watches throughout and that are told in another way. */
export function inferredFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const trains = document.trains.map((train): Running => {
    const consist = consistOf(document, train);
    const bare = [consist, turnedRound(consist)].map(({ parts: { magnet } }) => magnet[0]?.from);
    return {
      name: train.name,
      parts: consist.parts,
      long: fromMm(consist.lengthMm),
      top: layoutSpeedMmPerS(train.topSpeedKmh, document.scale),
      bare: bare.some((one) => one === undefined) ? undefined : fromMm(Math.max(...(bare as number[]))),
    };
  });
  const spots = document.sensors.filter(({ kind }) => sensorKind(kind).inPairs);
  return partition.blocks.flatMap((block) => {
    if (partition.sections[block.section]!.sensors.length > 0) return [];
    const inferred = partition.inferred.get(block.index);
    const of = { document, partition, block, trains, spots };
    return inferred ? FINDINGS[inferred.by](of, inferred as never) : lacksPair(of);
  });
}

type By<B> = Extract<Inferred, { by: B }>;
const FINDINGS: { [B in Inferred['by']]: (of: Of, inferred: By<B>) => Finding<Edit>[] } = {
  'last spot': ({ document, partition, block, trains }, { pairs }) => {
    const shown = (length: TenthUm) => showLength(length, document.shownUnit);
    const shortest = least(trains, ({ long }) => long);
    return [
      {
        id: `by-spots ${block.id}`,
        kind: 'block inferred from spots alone',
        severity: 'check',
        subject: block.id,
        says: `${block.name} is inferred from what passes its spots: between them no detector sees what is put down, lifted off or left behind. Two trains that come to one of its ends from both sides and turn back there look like one that has gone out: it then reads free with a train in it.`,
        figures: apart(document, pairs),
        advice:
          'After power-up say of each such block whether it is free, and let no train stand over its spots then. Let no two trains come to one end of it and turn back. A detector for the whole of it needs none of that.',
        fixes: watchIt(document, partition, block, block.name),
      },
      ...pairs
        .filter((pair) => shortest && shortest.long <= apartOf(pair))
        .map((pair) => ({
          id: `slips-through ${block.id} ${pair.inner.id}`,
          kind: 'spots farther apart than a train is long' as const,
          severity: 'unsafe' as const,
          subject: pair.inner.id,
          says: `${pair.outer.name} and ${pair.inner.name} are ${shown(apartOf(pair))} apart, and ${shortest!.name} is only ${shown(shortest!.long)} long: it passes one after the other, and ${block.name} reads free with it inside.`,
          figures: [],
          advice: 'Move them together, or run nothing so short.',
          fixes: [],
        })),
    ];
  },
  count: ({ document, partition, block, trains }, { pairs, inPairs }) => {
    const { what, bits } = inPairs.counts!;
    const doubtful = pairs.flatMap((pair) => trains.flatMap((train) => doubtfulGap(pair, train)));
    const lost =
      what !== 'magnets' ? [] : trains.filter(({ bare }) => bare === undefined || bare > fromMm(STOP_SHORT_MM));
    const shown = (length: TenthUm) => showLength(length, document.shownUnit);
    return [
      {
        id: `by-count ${block.id}`,
        kind: 'block inferred by counting',
        severity: 'check',
        subject: block.id,
        says: `${block.name} is inferred by counting the ${what} that come in and go out. One that is missed on its way in, or noticed twice on its way out, makes it read free with a train in it, for good; the other way about it stays occupied.`,
        figures: [...apart(document, pairs), { name: 'counts up to', value: `${2 ** bits - 1} ${what}` }],
        advice:
          'Look whether it is empty after power-up and whenever the count may be wrong, and say so: that alone puts it right. A detector for the whole of it needs none of that.',
        fixes: watchIt(document, partition, block, block.name),
      },
      ...doubtful.slice(0, 1).map(({ pair, name, gap, span }) => ({
        id: `count-doubts ${block.id}`,
        kind: 'train that a count loses' as const,
        severity: 'unsafe' as const,
        subject: pair.inner.id,
        says: `Two ${what} of ${name} are ${shown(gap)} apart, and ${pair.outer.name} and ${pair.inner.name} watch ${shown(span)} of track: they are counted as one or as two, in as otherwise than out.`,
        figures: [],
        advice: `Move the two spots nearer to each other, or apart, until no ${what} that pass are about as far from each other as both watch together.`,
        fixes: [],
      })),
      ...lost.map(({ name, bare }) => ({
        id: `count-loses ${block.id} ${name}`,
        kind: 'train that a count loses' as const,
        severity: 'unsafe' as const,
        subject: block.id,
        says:
          bare === undefined
            ? `${name} carries no magnet: it comes into ${block.name} and nothing is counted.`
            : `${shown(bare)} at an end of ${name} carries no magnet: ${block.name} reads free while that much of it stands there.`,
        figures: [],
        advice: 'Hang a magnet under its first and under its last vehicle, near the ends.',
        fixes: [],
      })),
    ];
  },
  time: ({ document, partition, block, trains }, { sensor, setOff }) => {
    const slowest = least(trains, ({ long, top }) => -((mmOf(block.length) + mmOf(long)) / top));
    const takesMs = slowest ? ((mmOf(block.length) + mmOf(slowest.long)) / (slowest.top * CAUTION_SHARE)) * 1000 : 0;
    const seconds = (ms: number) => `${showNumber(ms / 1000, 1)} s`;
    const shared = { subject: sensor.id, fixes: watchIt(document, partition, block, block.name) };
    if (setOff.length === 0)
      return [
        {
          ...shared,
          id: `no-start ${sensor.id}`,
          kind: 'timer that nothing sets off',
          severity: 'unsafe',
          says: `No spot stands in ${block.name}, so that ${sensor.name} never runs after power-up: the block reads free whatever is in it.`,
          figures: [],
          advice: 'Put a spot into the block, just behind each signal by which trains come in.',
        },
      ];
    return [
      {
        ...shared,
        id: `by-time ${sensor.id}`,
        kind: 'block inferred by a timer',
        severity: 'check',
        says: `${block.name} reads free ${seconds(sensor.holdMs)} after ${setOff.map(({ name }) => name).join(', ')} noticed a train last, whether it has gone or not: a train that stands there longer, turns back, or stood there at power-up, is not known to the signals.`,
        figures: [],
        advice: 'Let no train stand there, or watch the block. Prove shows what follows, step by step.',
      },
      ...(slowest && takesMs > sensor.holdMs
        ? [
            {
              ...shared,
              id: `short-time ${sensor.id}`,
              kind: 'timer shorter than a train takes' as const,
              severity: 'unsafe' as const,
              says: `${slowest.name} takes ${seconds(takesMs)} through ${block.name} at the speed that a caution allows, longer than the ${seconds(sensor.holdMs)} of ${sensor.name}: the block reads free while it runs there.`,
              figures: [
                { name: 'block and train', value: showLength(block.length + slowest.long, document.shownUnit) },
                { name: 'at caution', value: `${showNumber(slowest.top * CAUTION_SHARE, 0)} mm/s` },
              ],
              fixes: [
                {
                  says: `Let it run ${seconds(roundUp(takesMs))}`,
                  edit: { do: 'change sensor' as const, id: sensor.id, change: { holdMs: roundUp(takesMs) } },
                },
              ],
            },
          ]
        : []),
    ];
  },
  turns: ({ document, partition, block }, { sensor, setOff }) => [
    {
      id: `toggle ${sensor.id}`,
      kind: 'toggle that can fall out of step',
      severity: 'unsafe',
      subject: sensor.id,
      says:
        setOff.length === 0
          ? `No spot stands in ${block.name}, so that nothing turns ${sensor.name} over: the block counts as occupied for good.`
          : `${sensor.name} is turned over by each pulse of ${setOff.map(({ name }) => name).join(', ')}. One that is missed, or one too many, leaves it out of step for good: ${block.name} reads free with a train in it.`,
      figures: [],
      advice: `Let one spot set and another reset it: two ${sensorKind(KIND_IN_PAIRS).title.toLowerCase()}s at each end of the block, without ${sensor.name}, find back by themselves with the next train.`,
      fixes: [
        ...pairsInstead(document, partition, block, sensor),
        ...watchIt(document, partition, block, block.name),
        { says: `Delete ${sensor.name}`, edit: { do: 'delete', id: sensor.id } },
      ],
    },
  ],
  nose: ({ document, partition, block, trains }, { sensor, setOff, out }) => {
    const shown = (length: TenthUm) => showLength(length, document.shownUnit);
    const shared = { subject: sensor.id, fixes: watchIt(document, partition, block, block.name) };
    const called = (spots: readonly Sensor[]) => [...new Set(spots.map(({ name }) => name))].join(' or ');
    const blind = out.filter(({ unseen }) => unseen);
    const next = called(out.flatMap(({ next }) => next));
    const longest = least(trains, ({ long }) => -long);
    if (setOff.length === 0)
      return [
        {
          ...shared,
          id: `no-nose ${sensor.id}`,
          kind: 'board that nothing sets',
          severity: 'unsafe',
          says: `No spot stands in ${block.name}, so that nothing sets ${sensor.name}: once the block reads free it does so for good, whatever comes in.`,
          figures: [],
          advice: 'Put a spot into the block, just behind each signal by which trains come in.',
        },
      ];
    return [
      {
        ...shared,
        id: `by-nose ${sensor.id}`,
        kind: 'block released by the nose',
        severity: 'check',
        says: `${block.name} reads occupied from when the nose of a train comes to ${called(setOff)}${next ? ` until it comes to ${next}. The rest of the train is still in it then: if it stops there, the next one is let in behind it` : ''}.${out.length > 0 ? ' What comes in by an end without a spot of its own is never noticed.' : ''}`,
        figures: longest ? [{ name: 'longest train', value: `${longest.name}, ${shown(longest.long)}` }] : [],
        advice:
          'Let no train stop with its tail in the block behind it. Two spots at each end, or a detector, wait for the tail.',
      },
      ...(blind.length > 0 || !next ? [block] : []).map(() => ({
        ...shared,
        id: `stays-at-stop ${sensor.id}`,
        kind: 'chain that stays at stop' as const,
        severity: 'check' as const,
        says: `${next ? `Not every way out of ${block.name} leads` : `No way out of ${block.name} leads`} past a spot of the next board: of a train that has gone past none ${sensor.name} never learns, and the signals into ${block.name} stay at stop, over empty track, until somebody says that it is free.`,
        figures: [],
        advice: 'Put a spot just beyond, let a timer step it up, or give one person the button.',
        fixes: [...spotBeyond(document, partition, blind), stepUp(sensor), ...shared.fixes],
      })),
      ...(longest && longest.long > block.length
        ? [
            {
              ...shared,
              id: `longer ${sensor.id}`,
              kind: 'train longer than a block of a chain' as const,
              severity: 'unsafe' as const,
              says: `${longest.name} is ${shown(longest.long)} long and ${block.name} only ${shown(block.length)}: when it stops at the next signal its tail still stands behind ${block.name}, in track that reads free.`,
              figures: [{ name: 'too short by', value: shown(longest.long - block.length) }],
              advice: 'Run nothing so long, lengthen the block, or watch it.',
            },
          ]
        : []),
    ];
  },
  people: ({ document, partition, block }, { sensor, setOff }) => [
    {
      id: `virtual-end ${sensor.id}`,
      kind: 'virtual end',
      severity: 'check',
      subject: sensor.id,
      says: `${sensor.name} knows of ${block.name} only what people say. ${
        setOff.length > 0
          ? `Once ${setOff.map(({ name }) => name).join(' or ')} has noticed a train it stays occupied, and signals into it at stop, until somebody says that it is free: said too early, the next train meets the first.`
          : 'A train that comes in without anybody saying so is not known: the signal into it shows proceed for the next one.'
      }`,
      figures: [],
      advice: 'Give one person the button and the rule when to press it, or watch the block.',
      fixes: watchIt(document, partition, block, block.name),
    },
  ],
};

/** A spot just beyond the first end by which trains leave past none. */
function spotBeyond(document: LayoutDocument, partition: Partition, out: readonly WayOut[]): Fix<Edit>[] {
  const [on] = out.flatMap(({ piece, end }) => onwardPieces(partition, partition.pieces[piece]!, end));
  if (!on) return [];
  const { line, from, to } = on.piece;
  const into = Math.min(BEYOND, (to - from) / 2);
  const at = asTyped(Math.round(on.enters === 0 ? from + into : to - into), document.shownUnit);
  return [{ says: 'Add an optical spot just beyond', edit: { do: 'add sensor', line, at, kind: 'optical' } }];
}

const stepUp = ({ id, name }: Sensor): Fix<Edit> => ({
  says: `Make ${name} a timer`,
  edit: { do: 'change sensor', id, change: { kind: 'timer', holdMs: sensorKind('timer').holdMs } },
});

/** A pair of spots at some of its ends and none at others: it could nearly be told. */
function lacksPair({ document, partition, block, spots }: Of): Finding<Edit>[] {
  if (spots.length === 0) return [];
  const ends = endsOf(partition, block);
  const there = ends.filter(({ piece, end }) => pairAt(spots, partition, partition.pieces[piece]!, end));
  if (there.length === 0 || there.length === ends.length) return [];
  return [
    {
      id: `lacks-pair ${block.id}`,
      kind: 'block inferred from spots at one end only',
      severity: 'check',
      subject: block.id,
      says: `${block.name} has two spots at ${there.length} of its ${ends.length} ends: what leaves by the ${ends.length - there.length === 1 ? 'other' : 'others'} is never noticed, so that it always counts as occupied.`,
      figures: [],
      advice: `Put spots of one kind on either side of each boundary, within ${showLength(NEAR, document.shownUnit)} of it.`,
      fixes: [],
    },
  ];
}

const apart = ({ shownUnit }: LayoutDocument, pairs: readonly SpotPair[]) =>
  pairs.map(({ inner, outer }) => ({
    name: `${outer.name} and ${inner.name}`,
    value: `${showLength(apartOf({ inner, outer }), shownUnit)} apart`,
  }));

/** How far apart two spots of one line are; of two lines, as far as they may be at most. */
const apartOf = ({ inner, outer }: SpotPair): TenthUm =>
  inner.anchor.line === outer.anchor.line
    ? Math.min(2 * NEAR, Math.abs(inner.anchor.at.tenthUm - outer.anchor.at.tenthUm))
    : 2 * NEAR;

/** Two things of a train that are counted, so far from each other that it depends on a scan whether the spots notice nothing in between. */
function doubtfulGap(pair: SpotPair, { name, parts, top }: Running) {
  const span = apartOf(pair) + reachOf(pair);
  const own = partsOf({ parts }, sensorKind(pair.inner.kind).notices.id);
  const runs = fromMm(fastest(top) * SCAN_S);
  const gap = own
    .slice(1)
    .map(({ from }, i) => fromMm(from - own[i]!.from))
    .find((one) => Math.abs(one - span) <= runs);
  return gap === undefined ? [] : [{ pair, name, gap, span }];
}

const least = <T>(all: readonly T[], of: (one: T) => number): T | undefined =>
  all.reduce<T | undefined>((a, b) => (a !== undefined && of(a) <= of(b) ? a : b), undefined);

/** To whole seconds. */
const roundUp = (ms: number): number => Math.ceil(ms / 1000) * 1000;
