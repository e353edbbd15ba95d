import { sensorKind } from '../kinds';
import { fromMm, type TenthUm } from '../measure';
import type { LayoutDocument, Sensor } from '../survey';
import type { EdgeEnd } from '../track';
import type { Block, Division, Piece } from './division';
import { onwardPieces } from './onward-pieces';

/** A spot this far from a boundary, or nearer, tells of it together with one beyond; our assumption. */
export const NEAR: TenthUm = fromMm(400);

/** Two spots at an end of a block, one within and one beyond: which of them a train leaves last tells where it has gone. */
export interface SpotPair {
  inner: Sensor;
  outer: Sensor;
}

/**
 * The pairs at every end by which trains come into a block that no sensor watches throughout. None where something watches it, or where
 * an end has no pair: then nothing tells that it is free. Only what notices whole vehicles serves: wheels and magnets leave gaps.
 */
export function toldBySpots({ sensors }: Pick<LayoutDocument, 'sensors'>, division: Division): Map<number, SpotPair[]> {
  const spots = tellingSpots({ sensors });
  const told = new Map<number, SpotPair[]>();
  if (spots.length === 0) return told;
  for (const block of division.blocks) {
    if (division.sections[block.section]!.sensors.length > 0) continue;
    const pairs = endsOf(division, block).map(({ piece, end }) =>
      pairAt(spots, division, division.pieces[piece]!, end),
    );
    if (pairs.length > 0 && pairs.every((pair) => pair !== undefined)) told.set(block.index, pairs);
  }
  return told;
}

/** The sensors that can tell of a block together. */
export const tellingSpots = ({ sensors }: Pick<LayoutDocument, 'sensors'>): Sensor[] =>
  sensors.filter(({ kind }) => {
    const { reachMm, notices } = sensorKind(kind);
    return reachMm !== 'section' && notices === 'vehicle';
  });

/** The ends of a block beyond which there is another. */
export const endsOf = ({ pieces }: Division, block: Block): Block['ends'] =>
  block.ends.filter(({ piece, end }) => pieces[piece]!.bounded[end]!.kind === 'cut');

/** Spots on either side of an end of a piece. */
export function pairAt(spots: readonly Sensor[], division: Division, piece: Piece, end: EdgeEnd): SpotPair | undefined {
  const beyond = onwardPieces(division, piece, end);
  if (beyond.length !== 1) return undefined;
  const inner = nearest(spots, piece, end);
  const outer = nearest(spots, beyond[0]!.piece, beyond[0]!.enters);
  return inner && outer && inner.id !== outer.id ? { inner, outer } : undefined;
}

/** The spot on a piece that is nearest to an end of it. */
function nearest(spots: readonly Sensor[], { line, from, to }: Piece, end: EdgeEnd): Sensor | undefined {
  const off = ({ anchor }: Sensor) => (end === 0 ? anchor.at.tenthUm - from : to - anchor.at.tenthUm);
  return spots
    .filter((one) => one.anchor.line === line && one.anchor.at.tenthUm > from && one.anchor.at.tenthUm < to)
    .filter((one) => off(one) <= NEAR)
    .sort((a, b) => off(a) - off(b))[0];
}
