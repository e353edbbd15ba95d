import { onwardPieces, type Partition, type Piece } from '../detection';
import { mmOf } from '../measure';
import type { EdgeEnd, Over } from '../track';

/** One piece of track on a train's way, in the train's own running distance. */
export interface TapeEntry {
  piece: number;
  /** The end by which the train leaves it. */
  exit: EdgeEnd;
  /** Running distance at which the train enters it, and leaves it. */
  from: number;
  to: number;
}

export type PointsPosition = 'straight' | 'diverging' | 'between';
/** How a motor lies, by its number. */
export type ReadPoints = (motor: number) => PointsPosition;

export type Step =
  | { kind: 'on'; piece: Piece; exit: EdgeEnd }
  | { kind: 'end of track' }
  /** The points lie against the movement, or are moving. */
  | { kind: 'points wrong'; motor: number; piece: Piece; exit: EdgeEnd };

/** The piece beyond an end of a piece, as the points lie. */
export function stepOn(partition: Partition, piece: Piece, exit: EdgeEnd, points: ReadPoints): Step {
  const onward = onwardPieces(partition, piece, exit);
  const led = (over: readonly Over[]) => over.every((o) => !o.facing || points(o.motor) === o.position);
  const on = onward.find(({ over }) => led(over)) ?? onward[0];
  if (!on) return { kind: 'end of track' };
  const found = { piece: on.piece, exit: (on.enters === 0 ? 1 : 0) as EdgeEnd };
  const wrong = on.over.find(({ motor, position }) => points(motor) !== position);
  return wrong ? { kind: 'points wrong', motor: wrong.motor, ...found } : { kind: 'on', ...found };
}

export const pieceLengthMm = (piece: Piece): number => mmOf(piece.to - piece.from);

/** The tape of a train placed with its nose at a distance on a piece; undefined when the track behind it is too short. */
export function layTape(
  partition: Partition,
  piece: Piece,
  exit: EdgeEnd,
  noseMm: number,
  lengthMm: number,
  points: ReadPoints,
): TapeEntry[] | undefined {
  const length = pieceLengthMm(piece);
  const behindNose = exit === 1 ? noseMm - mmOf(piece.from) : mmOf(piece.to) - noseMm;
  const tape: TapeEntry[] = [{ piece: piece.index, exit, from: -behindNose, to: length - behindNose }];
  let here = piece;
  let back: EdgeEnd = exit === 1 ? 0 : 1;
  while (tape[0]!.from > -lengthMm) {
    const step = stepOn(partition, here, back, points);
    if (step.kind === 'end of track' || tape.length > 500) return undefined;
    here = step.piece;
    back = step.exit;
    const to = tape[0]!.from;
    tape.unshift({ piece: here.index, exit: back === 1 ? 0 : 1, from: to - pieceLengthMm(here), to });
  }
  return tape;
}

/** The same ground read the other way round: what a train's tape is once it turns back with its old tail as its nose. */
export function turnTape(tape: TapeEntry[], head: number, lengthMm: number): TapeEntry[] {
  const tail = head - lengthMm;
  return tape
    .filter((entry) => entry.to > tail && entry.from < head)
    .reverse()
    .map((entry) => ({
      piece: entry.piece,
      exit: entry.exit === 1 ? 0 : 1,
      from: tail - entry.to,
      to: tail - entry.from,
    }));
}

/** Distance on the piece's line, in mm, of a running distance. */
export function lineMm(partition: Partition, entry: TapeEntry, s: number): number {
  const piece = partition.pieces[entry.piece]!;
  return entry.exit === 1 ? mmOf(piece.from) + (s - entry.from) : mmOf(piece.to) - (s - entry.from);
}
