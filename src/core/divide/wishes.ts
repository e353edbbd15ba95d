import { consistOf, turnedRound, unseenOf } from '../detection';
import { ADMISSIONS } from '../kinds';
import { fromMm, layoutSpeedMmPerS, STOP_SHORT_MM, stoppingNeed, TENTH_UM_PER_CM, type TenthUm } from '../measure';
import type { Area, LayoutDocument } from '../survey';

/** What a division of the track shall do. */
export interface DivideWishes {
  /** How many trains run at once: every way round then has a place more, so that one of them can move. */
  trains: number;
  /** The longest train; where it finds no room there is no place. */
  longest: TenthUm;
  /** The shortest; track between points that cannot hold it is theirs. */
  shortest: TenthUm;
  /** The room behind it that it needs to stop in, where blocks are made shorter by cuts; 0 where that is not wished for. */
  stopping: TenthUm;
  /** How far either end of a train may reach unseen beyond its outermost seen axle: gaps stand so much farther from points. */
  tail: TenthUm;
  /** Points have a section of their own, or are part of the block before their blades. */
  points: LayoutDocument['turnoutsIn'];
  /** No gap lies along a platform. */
  wholePlatforms: boolean;
  /** Areas without signals, where crews look out for each other, stay whole: a gap at their edges, and none inside. */
  wholeAreas: boolean;
  /** Which gaps and block marks stay where they are. */
  keep: 'all' | 'fixed';
  /** Gaps that are to be here; the others are laid out around them. */
  held?: readonly { line: string; at: TenthUm }[];
}

/** Why a gap is where it is. */
export type CutReason =
  /** It was put there. */
  | { kind: 'held' }
  /** So far from points, by id, that trains on their two tracks do not touch. */
  | { kind: 'clearance'; points: string }
  /** Before the blades of points, by id. */
  | { kind: 'blades'; points: string }
  /** Between two tracks beside each other, each of which keeps its own points. */
  | { kind: 'crossover'; points: string[] }
  /** Where an area begins, by id, that is not divided. */
  | { kind: 'area'; area: string }
  /** The ends of a block on a ring. */
  | { kind: 'ring' }
  /** So that there are places enough: so many of so long between the same two boundaries. */
  | { kind: 'places'; blocks: number; shortest: TenthUm };

/** Areas that the wishes leave whole. */
export const openAreas = ({ areas }: LayoutDocument, { wholeAreas }: DivideWishes): Area[] =>
  wholeAreas ? areas.filter(({ admits }) => admits !== undefined && !ADMISSIONS[admits].signals) : [];

/** How long a train is where there is none yet; our assumption. */
const TRAIN_TO_BE = 100 * TENTH_UM_PER_CM;

/** What a division is asked to do as long as nobody says otherwise: from the trains that run. */
export function usualWishes(document: LayoutDocument): DivideWishes {
  const { scale, movements } = document;
  /** Once there is a timetable, only what it lets run. */
  const runs = new Set(movements.map(({ train }) => train));
  const trains = document.trains.filter(({ id }) => runs.size === 0 || runs.has(id));
  const lengths = trains.map((train) => fromMm(consistOf(document, train).lengthMm));
  const stopping = trains.map(({ topSpeedKmh, brakingMmPerS2 }) =>
    fromMm(stoppingNeed(layoutSpeedMmPerS(topSpeedKmh, scale), brakingMmPerS2).totalMm),
  );
  /** One longer than that is seen better first. */
  const tails = trains.flatMap((train) => {
    const consist = consistOf(document, train);
    return [consist, turnedRound(consist)].map((one) => unseenOf(document, one).tailMm);
  });
  return {
    trains: Math.max(1, trains.length),
    longest: lengths.length > 0 ? Math.max(...lengths) : TRAIN_TO_BE,
    shortest: lengths.length > 0 ? Math.min(...lengths) : TRAIN_TO_BE,
    stopping: Math.max(0, ...stopping),
    tail: fromMm(Math.min(STOP_SHORT_MM, Math.max(0, ...tails))),
    points: document.turnoutsIn,
    wholePlatforms: true,
    wholeAreas: true,
    keep: 'all',
  };
}
