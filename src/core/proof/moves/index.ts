import type { Switch } from '../switches';
import { kindOf } from './code';
import { goesOn } from './goes-on';
import type { MoveKind } from './kind';
import { isGivenAPulse } from './to-automatic';
import { isGivenUp, isSaidToBeFree, isSaidToBeTaken } from './to-blocks';
import { isCancelled, isSetByPeople } from './to-routes';
import { fails, isHeldByHand, pointsAreAskedFor, pointsArrive, pulseTooMany, timerEnds } from './to-rules';
import { comesToAStand, isLiftedOff, isSetDown, turnsBack } from './to-trains';

export { choiceOf, indexOf, kindOf } from './code';
export { UNNOTICED } from './goes-on';
export type { Course, MoveKind } from './kind';
export { Listing } from './listing';
export { Pairs } from './pairs';
export { pulsing } from './to-rules';

/** Every kind of step but two at once, which is made of these. Its number is its place here. */
const TABLE = {
  'goes on': goesOn,
  'timer ends': timerEnds,
  'points are asked for': pointsAreAskedFor,
  'points arrive': pointsArrive,
  'turns back': turnsBack,
  'comes to a stand': comesToAStand,
  'is worked by hand': isHeldByHand,
  'is lifted off': isLiftedOff,
  'is set down': isSetDown,
  'is said to be free': isSaidToBeFree,
  'is said to be taken': isSaidToBeTaken,
  'pulse too many': pulseTooMany,
  fails,
  'is given up': isGivenUp,
  'is set by people': isSetByPeople,
  'is cancelled': isCancelled,
  'is given a pulse': isGivenAPulse,
} as const satisfies Record<string, MoveKind>;
export type MoveId = keyof typeof TABLE;
export const MOVE_IDS = Object.keys(TABLE) as MoveId[];
export const MOVES: readonly MoveKind[] = Object.values(TABLE);
export const moveOf = (code: number): MoveKind => MOVES[kindOf(code)]!;

/** The kinds of step that are tried, each by its number: those that are taken to the rules alone, and those of trains. */
export function movesUnder(on: ReadonlySet<Switch>, handsOff = false) {
  const tried = MOVES.flatMap((move, kind) =>
    (!move.needs || on.has(move.needs)) && !(handsOff && move.byPeople) ? [{ ...move, kind }] : [],
  );
  return {
    rules: tried.filter(({ toRules }) => toRules),
    trains: tried.filter(({ toRules }) => !toRules),
  };
}
