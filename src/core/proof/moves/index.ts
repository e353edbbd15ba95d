import type { Switch } from '../switches';
import { kindOf } from './code';
import { goesOn } from './goes-on';
import type { MoveKind } from './kind';
import { isSaidToBeFree } from './to-blocks';
import { isHeldByHand, pointsAreAskedFor, pointsArrive, pulseTooMany, timerEnds } from './to-rules';
import { comesToAStand, isLiftedOff, isSetDown, turnsBack } from './to-trains';

export { choiceOf, indexOf, kindOf } from './code';
export { UNNOTICED } from './goes-on';
export type { Course, MoveKind } from './kind';
export { Listing } from './listing';
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
  isSaidToBeFree,
  pulseTooMany,
];
export const moveOf = (code: number): MoveKind => MOVES[kindOf(code)]!;

/** The kinds of step that are tried, each by its number: those that are taken to the rules alone, and those of trains. */
export function movesUnder(on: ReadonlySet<Switch>) {
  const tried = MOVES.flatMap((move, kind) => (!move.needs || on.has(move.needs) ? [{ ...move, kind }] : []));
  return {
    rules: tried.filter(({ toRules }) => toRules),
    trains: tried.filter(({ toRules }) => !toRules),
  };
}
