import type { OutputKindId } from '../kinds';
import type { Fills } from './slots';

/** Of a pattern that works only where somebody chose it: for which things it can be chosen, and what it does, for people. */
export interface Choosable {
  at: 'signal' | 'points' | 'sensor';
  says: string;
  /** The output that it works. */
  makes: OutputKindId;
  /** It takes wiring. */
  wired?: boolean;
  /** It goes by a timer whose time can be chosen. */
  timed?: boolean;
  /** People at a post work it. */
  byPost?: boolean;
  /** It makes a lamp red that does not mean stop. */
  redForPower?: boolean;
  /** A signal with it shows proceed whatever stands beyond. */
  holdsNothing?: boolean;
  /** It shows proceed where a train may stand, by an aspect on sight if there is one. */
  onSight?: boolean;
}

/** One way of working, in one file: what it asks for at each place, in the slots of `slots.ts`. */
export interface Pattern extends Fills {
  /** What its rules are said to come from. */
  id: string;
  /** It works at the things whose document names it; a pattern without this works everywhere. */
  chosen?: Choosable;
  /** What it asks for a route holds even where another pattern decides instead of all others. */
  always?: boolean;
}

/** Whether a thing of the document uses a pattern that is chosen. */
export const isChosen = ({ id }: Pattern, thing: { patterns?: string[] } | undefined): boolean =>
  thing?.patterns?.includes(id) ?? false;
