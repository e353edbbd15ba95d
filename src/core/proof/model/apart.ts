import { indexOf, kindOf, MOVES, type MoveKind, moveOf } from '../moves';
import type { ProofModel } from './model';

/** Of each kind of step, by its number, what is asked of millions of pairs. */
const flags = (is: (move: MoveKind) => unknown): Uint8Array => Uint8Array.from(MOVES, (move) => (is(move) ? 1 : 0));
const PAIRS = flags(({ pairs }) => pairs);
const MOVES_ON = flags(({ movesOn }) => movesOn);
const MAY_BE_REFUSED = flags(({ isRefused: asked }) => asked);

/**
 * Asked of two things that can be done in the present state of a model, each by its code and the effect in which the rules take it
 * alone: numbers beside each other, since a proof asks of millions of pairs.
 */
type OfTwo = (model: ProofModel, one: number, effectOfOne: number, two: number, effectOfTwo: number) => boolean;

/** Whether two things may fall into one scan. One that the rules refuse in that scan, whatever else happens in it, adds nothing. */
export const mayPair: OfTwo = (model, one, effectOfOne, two, effectOfTwo) => {
  if (effectOfOne < 0 || effectOfTwo < 0 || one >> 8 === two >> 8) return false;
  if (PAIRS[kindOf(one)] === 0 || PAIRS[kindOf(two)] === 0) return false;
  return !isRefused(model, one, effectOfTwo) && !isRefused(model, two, effectOfOne);
};
const isRefused = (model: ProofModel, code: number, effect: number): boolean =>
  MAY_BE_REFUSED[kindOf(code)] === 1 && moveOf(code).isRefused!(model, indexOf(code), effect);

/**
 * The trains that look, now or one step on, at what a step changes, as bits: 31 of them, and where there are more trains two share one, which
 * only makes more of them look. Asked of a step that can be taken in the present state, and of the effect in which the rules take it alone.
 */
export function trainsLooking(model: ProofModel, code: number, effect: number): number {
  let trains = MOVES_ON[kindOf(code)] === 1 ? 1 << (indexOf(code) % 31) : 0;
  for (let t = 0; t < model.trains.length; t++) if (model.looksAtChange(t, effect)) trains |= 1 << (t % 31);
  return trains;
}

/** Each moves a train on. */
export const areTwoTrains = (one: number, two: number): boolean =>
  MOVES_ON[kindOf(one)] === 1 && MOVES_ON[kindOf(two)] === 1;
