import type { OutputKindId } from '../kinds';
import type { Scheme } from './scheme';
import type { Fills } from './slots';

/** Of a pattern that works only where somebody chose it: for which things it can be chosen, and what it does, for people. */
export interface Choosable {
  at: 'signal' | 'points' | 'sensor';
  says: string;
  /** The output that it works. */
  makes: OutputKindId;
  /** It takes wiring. */
  wired?: boolean;
  /** People at a post work it. */
  byPost?: boolean;
  /** It makes a lamp red that does not mean stop. */
  redForPower?: boolean;
  /** A signal with it shows proceed whatever stands beyond. */
  holdsNothing?: boolean;
  /** It shows proceed where a train may stand, by an aspect on sight if there is one. */
  onSight?: boolean;
}

/** What can be set about a pattern at a thing, in ms. */
export interface PatternOption {
  /** The pattern that it is of, and what the document calls it there. */
  pattern: string;
  option: string;
  at: Choosable['at'];
  /** Shown beside its field, where it is in seconds. */
  says: string;
  least: number;
  most: number;
  /** Whether it does anything at such a thing, by its id; it does at all of them where this is left out. */
  does?(scheme: Scheme, id: string): boolean;
  /** What it is where nobody has set it. */
  usual(scheme: Scheme): number;
}

/** One way of working, in one file: what it asks for at each place, in the slots of `slots.ts`. */
export interface Pattern extends Fills {
  /** What its rules are said to come from. */
  id: string;
  /** It works at the things whose document names it; a pattern without this works everywhere. */
  chosen?: Choosable;
  options?: readonly PatternOption[];
  /** Automatic working, which people can switch off: what is lost while it is off. */
  off?: string;
  /** It lets go trains that wait: asked also beside a pattern that decides instead of all others but these. */
  releases?: boolean;
  keepsReleases?: boolean;
  /** What it asks for a route holds even where another pattern decides instead of all others. */
  always?: boolean;
}

/** Whether a thing of the document uses a pattern that is chosen. */
export const isChosen = ({ id }: Pick<Pattern, 'id'>, thing: { patterns?: string[] } | undefined): boolean =>
  thing?.patterns?.includes(id) ?? false;
