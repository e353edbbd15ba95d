import { clearanceOf, fromMm, STEPS, type TypedLength } from '../measure';
import { asTyped, type LayoutDocument } from '../survey';

/** A millimetre, or a sixteenth of an inch: nobody measures a clearance more closely. */
const FINEST = { cm: 10_000, inch: 15_875 };

/** What a clearance is taken for: by the crossing number, where that is known. */
export function usualClearance({ shownUnit, scale }: LayoutDocument, number: number | undefined): TypedLength {
  if (number === undefined) return asTyped(STEPS[shownUnit].clearance, shownUnit);
  const fine = FINEST[shownUnit];
  return asTyped(Math.round(fromMm(clearanceOf(number, scale)) / fine) * fine, shownUnit);
}
