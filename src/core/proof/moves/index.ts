import { goesOn } from './goes-on';
import type { MoveKind } from './kind';
import { isHeldByHand, pointsAreAskedFor, pointsArrive, timerEnds } from './to-rules';
import { comesToAStand, isLiftedOff, isSetDown, turnsBack } from './to-trains';

export { UNNOTICED } from './goes-on';
export type { Course, MoveKind } from './kind';

/** A step is one number: its kind in the uppermost byte, below it 16 bits say which thing, and 8 which choice. */
export const encodeMove = (kind: number, index: number, choice: number) => (kind << 24) | (index << 8) | choice;
export const kindOf = (code: number): number => code >> 24;
export const indexOf = (code: number): number => (code >> 8) & 0xffff;
export const choiceOf = (code: number): number => code & 0xff;

/** Every kind of step but two at once, which is made of these. */
export const MOVES: readonly MoveKind[] = [
  goesOn,
  timerEnds,
  pointsAreAskedFor,
  pointsArrive,
  turnsBack,
  comesToAStand,
  isHeldByHand,
  isLiftedOff,
  isSetDown,
];
/** The kind of two things within one scan; it has no place in MOVES. */
export const TOGETHER = 100;

export const moveOf = (code: number): MoveKind => MOVES[kindOf(code)]!;
