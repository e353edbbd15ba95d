/** Where a figure comes from. An assumed figure is shown as such wherever it is used. */
export type Origin = 'measured' | 'typed' | 'computed' | 'assumed' | 'detected';

/**
 * One statement with the statements it rests on. Every stage explains itself in this one form: a length with its terms,
 * a signal with the conditions that hold it at stop.
 */
export interface Reason {
  /** A plain sentence or phrase: “Block M1 is occupied”. */
  says: string;
  /** The value as shown: “60 cm”, “stop”, “no”. */
  value?: string;
  /** The arithmetic or rule in one line, if there is one. */
  formula?: string;
  origin?: Origin;
  /** True for the terms that decide the outcome; the others are listed because they were looked at. */
  decides?: boolean;
  /** Things in the document or program this speaks of, so that a click can lead there. */
  about?: string;
  because: Reason[];
}

/** Counts the statements in a reason, itself included. */
export function countStatements(reason: Reason): number {
  return 1 + reason.because.reduce((sum, part) => sum + countStatements(part), 0);
}
