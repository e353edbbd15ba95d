import type { System, TerminalKind } from '../system';

/** One way in which a thing fails: everything that the house asks about it. A value is 0 or 1, or the number of a value of its type. */
export interface FaultKind {
  /** Beginning a sentence, as the head of a column and in lists: “A detector is stuck”. */
  title: string;
  /** What is so while it lasts, in a sentence without its full stop. */
  says(name: string): string;
  /** The terminals that it strikes, if there are such: of one thing, all of these kinds. */
  at: readonly [TerminalKind, ...TerminalKind[]];
  /** Which things it can strike, by number; all of them where this is left out. */
  strikes?(system: System, of: number): boolean;
  /** All that fail together with one, that one among them. */
  together?(system: System, of: number): readonly number[];
  /**
   * What the other side gets in place of a value: the rules from an input, signals, motors and sections from an output. Undefined where nobody
   * has said how it is wired; 'as it was' when it keeps the value that it had.
   */
  puts(system: System, of: number, was: number): number | 'as it was' | undefined;
  /** Whether it makes signals less restrictive depends on how things are wired and on what was chosen, so that it is told for every signal. */
  compared?: true;
}

export const faultKind = (kind: FaultKind): FaultKind => kind;
