import type { ProofModel } from './model';
import { indexOf, moveOf } from './moves';

/** A thing that can be done in the present state of a model, with the manner in which the rules take it alone. */
export interface Done {
  code: number;
  manner: number;
}

/** Whether two things may fall into one scan. One that the rules refuse in that scan, whatever else happens in it, adds nothing. */
export function mayPair(model: ProofModel, one: Done, two: Done): boolean {
  if (!moveOf(one.code).pairs || !moveOf(two.code).pairs || one.code >> 8 === two.code >> 8) return false;
  if (one.manner < 0 || two.manner < 0) return false;
  return !isRefused(model, one.code, two.manner) && !isRefused(model, two.code, one.manner);
}
const isRefused = (model: ProofModel, code: number, manner: number): boolean =>
  moveOf(code).isRefused?.(model, indexOf(code), manner) ?? false;

/**
 * Two things have nothing to do with each other, so that within one scan they do what they do one after the other: in the rules
 * (`Footprints.areApart`), and because no train looks at what both of them change.
 */
export function areApart(model: ProofModel, one: Done, two: Done): boolean {
  if (moveOf(one.code).movesOn && moveOf(two.code).movesOn) return false;
  return model.rules.areApart(one.manner, two.manner) && !someTrainLooks(model, one, two);
}

/** Whether some train looks, now or one step on, at what both of two things change. */
export function someTrainLooks(model: ProofModel, one: Done, two: Done): boolean {
  for (let t = 0; t < model.trains.length; t++) if (looks(model, t, one) && looks(model, t, two)) return true;
  return false;
}
const looks = (model: ProofModel, train: number, { code, manner }: Done): boolean =>
  (moveOf(code).movesOn && indexOf(code) === train) || model.looksAtChange(train, manner);
