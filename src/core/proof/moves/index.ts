import { kindOf } from './code';
import { goesOn } from './goes-on';
import type { MoveKind } from './kind';
import { isHeldByHand, pointsAreAskedFor, pointsArrive, timerEnds } from './to-rules';
import { comesToAStand, isLiftedOff, isSetDown, turnsBack } from './to-trains';

export * from './code';
export { UNNOTICED } from './goes-on';
export type { Course, MoveKind } from './kind';
export { Pairs } from './pairs';

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
export const moveOf = (code: number): MoveKind => MOVES[kindOf(code)]!;
