import { sensorKind } from '../kinds';
import { fromMm, type TenthUm } from '../measure';
import type { Sensor } from '../survey';
import type { EdgeEnd } from '../track';
import type { Block, Division, Piece } from './division';
import { onwardPieces } from './onward-pieces';

/** A spot this far from a boundary, or nearer, tells of what passes it together with one beyond; our assumption. */
export const NEAR: TenthUm = fromMm(400);

/** Two spots at an end of a block, one within and one beyond: which of them a train leaves last tells where it has gone. */
export interface SpotPair {
  inner: Sensor;
  outer: Sensor;
}

/** How far the two of a pair reach towards each other. */
export const reachOf = ({ inner, outer }: SpotPair): TenthUm =>
  [inner, outer].reduce((sum, { kind }) => sum + fromMm(sensorKind(kind).reachMm as number), 0);

/** The ends of a block beyond which there is another. */
export const endsOf = ({ pieces }: Division, block: Block): Block['ends'] =>
  block.ends.filter(({ piece, end }) => pieces[piece]!.bounded[end]!.kind === 'cut');

/** Spots on either side of an end of a piece. */
export function pairAt(spots: readonly Sensor[], division: Division, piece: Piece, end: EdgeEnd): SpotPair | undefined {
  const beyond = onwardPieces(division, piece, end);
  if (beyond.length !== 1) return undefined;
  const inner = spotNear(spots, piece, end);
  const outer = spotNear(spots, beyond[0]!.piece, beyond[0]!.enters);
  return inner && outer && inner.id !== outer.id ? { inner, outer } : undefined;
}

/** The spot on a piece that is nearest to an end of it, and near enough. */
export function spotNear(spots: readonly Sensor[], { line, from, to }: Piece, end: EdgeEnd): Sensor | undefined {
  const off = ({ anchor }: Sensor) => (end === 0 ? anchor.at.tenthUm - from : to - anchor.at.tenthUm);
  return spots
    .filter((one) => one.anchor.line === line && one.anchor.at.tenthUm > from && one.anchor.at.tenthUm < to)
    .filter((one) => off(one) <= NEAR)
    .sort((a, b) => off(a) - off(b))[0];
}
