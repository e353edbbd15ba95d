import { onwardPieces, type Partition, pointsBeyond } from '../detection';
import type { SignalsOn, TrafficSections } from '../signals';
import { type EdgeEnd, isAgainst } from '../track';
import { pieceLengthMm, type TapeEntry } from './tape';

/** Places nearer than this are one, in mm. */
const SAME_MM = 1e-6;

/** A tail this near to the block behind may stand in that as well, in mm: nobody can tell. */
const WITHIN_MM = 0.01;

/** The entries of a tape that a train has a part of itself in, between two running distances. A part that ends at a joint is not beyond it. */
export const entriesBetween = <T extends TapeEntry>(tape: T[], from: number, to: number): T[] =>
  tape.filter((entry) => entry.to > from + SAME_MM && entry.from < to - SAME_MM);

/** What a train holds, by the wheel: its nose and its wheels, but not what hangs over behind the last of them. */
export interface Footprint {
  blocks: number[];
  /** Chains of plain blocks that it stands in. */
  courses: Course[];
}

/** A train in a chain of plain blocks: between which of them, counted along the chain, and whether it runs back along it. */
interface Course {
  trafficSection: number;
  closed: boolean;
  back: boolean;
  first: number;
  last: number;
}

export function footprintOf(partition: Partition, trafficSections: TrafficSections, held: TapeEntry[]): Footprint {
  const blocks = new Set<number>();
  const courses = new Map<number, Course>();
  for (const { piece, exit } of held) {
    const { block } = partition.pieces[piece]!;
    blocks.add(block);
    const trafficSection = trafficSections.all[trafficSections.ofBlock[block]!]!;
    const nth = trafficSection.blocks.indexOf(block);
    const course = courses.get(trafficSection.index);
    if (course) {
      course.first = Math.min(course.first, nth);
      course.last = Math.max(course.last, nth);
      continue;
    }
    const side = trafficSections.sideCameInBy(piece, exit);
    if (side !== 'onward' && side !== 'back') continue;
    courses.set(trafficSection.index, {
      trafficSection: trafficSection.index,
      closed: trafficSection.closed,
      back: side === 'back',
      first: nth,
      last: nth,
    });
  }
  return { blocks: [...blocks].sort((a, b) => a - b), courses: [...courses.values()] };
}

export const inOneBlock = (a: Footprint, b: Footprint): boolean => a.blocks.some((block) => b.blocks.includes(block));

/** Two trains that run towards each other with no points between them. */
export const faceToFace = (a: Footprint, b: Footprint): boolean =>
  a.courses.some((mine) =>
    b.courses.some((theirs) => {
      if (mine.trafficSection !== theirs.trafficSection || mine.back === theirs.back) return false;
      const [onward, back] = mine.back ? [theirs, mine] : [mine, theirs];
      return mine.closed || onward.first <= back.last;
    }),
  );

/** The motors of the points whose blades lie under a body that stands on these entries, in order. */
export function turnoutsUnder(partition: Partition, body: TapeEntry[]): number[] {
  const found: number[] = [];
  for (let i = 0; i + 1 < body.length; i++) {
    const { piece, exit } = body[i]!;
    const node = pointsBeyond(partition, partition.pieces[piece]!, exit);
    if (node !== undefined) found.push(...partition.graph.points[node]!.motors);
  }
  return [...new Set(found)].sort((a, b) => a - b);
}

type Way = 'signal' | 'open' | 'end';

/** How a train may leave its block that way: past a signal, past none, or not at all because the track ends. */
function waysOut(partition: Partition, signalsOn: SignalsOn, from: number, exit: EdgeEnd, alongMm: number): Set<Way> {
  const { block } = partition.pieces[from]!;
  const found = new Set<Way>();
  const seen = new Set<number>();
  const walk = (number: number, out: EdgeEnd, beyond: number): void => {
    if (seen.has(number * 2 + out)) return;
    seen.add(number * 2 + out);
    const piece = partition.pieces[number]!;
    if (signalsOn(number, out).some((signal) => signal.alongMm > beyond - SAME_MM)) return void found.add('signal');
    const bound = piece.bounded[out];
    const onward = onwardPieces(partition, piece, out);
    if (onward.length === 0) return void found.add('end');
    if (bound) return void found.add('open');
    for (const on of onward) {
      if (on.piece.block !== block || on.piece.bounded[on.enters]) found.add('open');
      else walk(on.piece.index, on.enters === 0 ? 1 : 0, -1);
    }
  };
  walk(from, exit, alongMm);
  return found;
}

export type WhyNotTurnBack = 'in several blocks' | 'the line is run one way' | 'no signal guards the way back';

/**
 * Why a train that stands on these entries, tail first, may not turn back: it stands in several blocks, the line is run the other way
 * only, or no signal guards the way back and it is not at the end of the line. Undefined when it may.
 */
export function whyNotTurnBack(
  partition: Partition,
  signalsOn: SignalsOn,
  body: TapeEntry[],
  tailS: number,
  noseS: number,
): WhyNotTurnBack | undefined {
  if (new Set(body.map(({ piece }) => partition.pieces[piece]!.block)).size > 1) return 'in several blocks';
  const [last, first] = [body[0]!, body[body.length - 1]!];
  const lastPiece = partition.pieces[last.piece]!;
  const behind = onwardPieces(partition, lastPiece, last.exit === 1 ? 0 : 1);
  if (tailS - last.from < WITHIN_MM && behind.some(({ piece }) => piece.block !== lastPiece.block))
    return 'in several blocks';
  if (body.some(({ piece, exit }) => isAgainst(partition.graph.edges[partition.pieces[piece]!.edge]!, exit)))
    return 'the line is run one way';
  const on = waysOut(partition, signalsOn, first.piece, first.exit, noseS - first.from);
  if (on.has('end') && on.size === 1) return undefined;
  const length = pieceLengthMm(lastPiece);
  const back = waysOut(partition, signalsOn, last.piece, last.exit === 1 ? 0 : 1, length - (tailS - last.from));
  return back.has('open') ? 'no signal guards the way back' : undefined;
}
