import { isTypedIn, showLength, type TypedLength } from '../measure';
import type { RosterContext } from './context';

/** A length as somebody typed it. */
export const sayTyped = ({ typed, tenthUm }: TypedLength, { shownUnit }: RosterContext): string =>
  typed || showLength(tenthUm, shownUnit);

/** A length as it is shown: as it was typed, unless that was in another unit than the one shown. */
export const sayLength = (length: TypedLength, context: RosterContext): string =>
  isTypedIn(length.typed, context.shownUnit)
    ? sayTyped(length, context)
    : showLength(length.tenthUm, context.shownUnit);
