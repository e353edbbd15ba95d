import { type InPairs, NOTHING, sensorKind } from '../kinds';
import type { LayoutDocument, Sensor } from '../survey';
import type { EdgeEnd } from '../track';
import { type Block, type Division, pieceAt } from './division';
import { onwardPieces } from './onward-pieces';
import { endsOf, pairAt, reachOf, type SpotPair, spotNear } from './spot-pairs';

interface ByPairs<By> {
  by: By;
  pairs: readonly SpotPair[];
  inPairs: InPairs;
}
interface ByOne<By> {
  by: By;
  sensor: Sensor;
  /** The spots in the block that say that a train has come. */
  setOff: readonly Sensor[];
}
/** An end of a block without a spot just within it, and the spots just beyond: a nose that has come to one of these has left by it. */
export interface WayOut {
  piece: number;
  end: EdgeEnd;
  next: readonly Sensor[];
  /** Beyond it no spot is passed, or not on every way on. */
  unseen: boolean;
}
interface ByNose extends ByOne<'nose'> {
  out: readonly WayOut[];
}
/** What tells of a block that nothing watches throughout: pairs of spots at its ends, by which was left last or by counting; a timer; people; a toggle; boards in a chain. */
export type Inferred =
  | ByPairs<'last spot'>
  | ByPairs<'count'>
  | ByOne<'time'>
  | ByOne<'people'>
  | ByOne<'turns'>
  | ByNose;
export type InferredBy = Inferred['by'];

/** The spots by which something tells of a block, by id. */
export const spotsOf = (inferred: Inferred): string[] =>
  'pairs' in inferred
    ? inferred.pairs.flatMap((pair) => [pair.outer.id, pair.inner.id])
    : [inferred.sensor.id, ...inferred.setOff.map(({ id }) => id)];

/** Whether people can say what is in a block: of all that no detector watches throughout, but where a timer alone decides. */
export const isSaid = ({ inferred }: { inferred: ReadonlyMap<number, Inferred> }, block: number): boolean =>
  !['time', undefined].includes(inferred.get(block)?.by);

/** In words: what is said of a block that is told so, after “it is”, and in a lane. */
export const INFERRED_BY: Record<InferredBy, string> = {
  'last spot': 'inferred from spots at its ends',
  count: 'inferred by counting at its ends',
  time: 'assumed for a time after a train',
  people: 'inferred from what people say',
  turns: 'inferred by a toggle',
  nose: 'released by the nose of each train',
};

/**
 * What tells of each block of which nothing watches the whole, by its number. Whatever stands in it to tell of it comes first; pairs serve where each
 * end by which trains come in has one, and all count the same. Of a block that has none of these nothing tells that it is free.
 */
export function inferredBlocks(
  { sensors }: Pick<LayoutDocument, 'sensors'>,
  division: Division,
): Map<number, Inferred> {
  const inferred = new Map<number, Inferred>();
  const places = sensors.filter(({ kind }) => sensorKind(kind).reachMm !== 'section');
  if (places.length === 0) return inferred;
  const kinds = [...new Set(places.flatMap(({ kind }) => sensorKind(kind).inPairs ?? []))];
  const within = new Map<number, Sensor[]>();
  for (const sensor of places) {
    const { block } = pieceAt(division, sensor.anchor.line, sensor.anchor.at.tenthUm, 'up');
    within.set(block, [...(within.get(block) ?? []), sensor]);
  }
  for (const block of division.blocks) {
    if (division.sections[block.section]!.sensors.length > 0) continue;
    const found =
      standsIn(within.get(block.index) ?? [], places, division, block) ??
      kinds.map((kind) => pairsOf(places, division, block, kind)).find(Boolean);
    if (found) inferred.set(block.index, found);
  }
  return inferred;
}

const BY = { 'for a time': 'time', 'as people say': 'people', 'by turns': 'turns', 'by the nose': 'nose' } as const;

/** What stands in a block to tell of it, and the spots there that set it off. */
function standsIn(
  own: readonly Sensor[],
  places: readonly Sensor[],
  division: Division,
  block: Block,
): Inferred | undefined {
  const sensor = own.find(({ kind }) => sensorKind(kind).tells);
  if (!sensor) return undefined;
  const by = BY[sensorKind(sensor.kind).tells!];
  const setOff = own.filter(isSpot);
  if (by !== 'nose') return { by, sensor, setOff };
  const spots = places.filter(isSpot);
  const out = endsOf(division, block).flatMap(({ piece: p, end }): WayOut[] => {
    const piece = division.pieces[p]!;
    if (spotNear(setOff, piece, end)) return [];
    const beyond = onwardPieces(division, piece, end).map(({ piece, enters }) => spotNear(spots, piece, enters));
    const next = beyond.filter((spot) => spot !== undefined);
    return [{ piece: p, end, next, unseen: next.length < beyond.length }];
  });
  return { by, sensor, setOff, out };
}

const isSpot = ({ kind }: Sensor): boolean => sensorKind(kind).notices !== NOTHING;

function pairsOf(sensors: readonly Sensor[], division: Division, block: Block, inPairs: InPairs): Inferred | undefined {
  const spots = sensors.filter(({ kind }) => sensorKind(kind).inPairs === inPairs);
  const pairs = endsOf(division, block).map(({ piece, end }) => pairAt(spots, division, division.pieces[piece]!, end));
  if (pairs.length === 0 || !pairs.every((pair) => pair !== undefined && fits(pair, inPairs))) return undefined;
  return { by: inPairs.counts ? 'count' : 'last spot', pairs: pairs as SpotPair[], inPairs };
}

/** What is counted has to be noticed by both at once; a whole train is longer than any two are apart. */
function fits(pair: SpotPair, { counts }: InPairs): boolean {
  const [inner, outer] = [pair.inner.anchor, pair.outer.anchor];
  if (!counts) return true;
  return inner.line === outer.line && Math.abs(inner.at.tenthUm - outer.at.tenthUm) < reachOf(pair);
}
