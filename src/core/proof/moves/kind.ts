import type { Deed } from '../counterexample';
import type { ProofModel } from '../model/model';
import type { Turn } from '../model/placement';
import type { Steering } from '../steer';
import type { Switch } from '../switches';

/** How a train runs in a step. */
export interface Course {
  /** From where the placement that it leaves begins to where the next one does, and how long the next is, in mm. */
  runMm: number;
  longMm: number;
  /** The signal at stop that it passes, if there is one. */
  late?: number | undefined;
  /** The motor of the points that still move when it runs onto them, if there are such. */
  movingUnder?: number | undefined;
  /** It comes to rest, or has current again; or it starts from where it stood without any. */
  rests?: 'begins' | 'ends' | 'starts' | undefined;
  /** Where it stands to turn back, and how far beyond where the next placement begins it then is (`Turn`). */
  turns?: Pick<Turn, 'standsMm' | 'beyondMm'>;
  /** What the rule of a timer says before that ends. */
  valueWas?: number;
  /** Sensors, by their ids, that miss it. */
  misses?: readonly string[];
}

/** A kind of step: when it can be taken, what it changes before the rules are scanned, and how it is told, steered and written. */
export interface MoveKind {
  /** What must be switched on for it. */
  needs?: Switch;
  /** Somebody does it, who need not. */
  byPeople?: true;
  /** It leaves the trains where they are, and can be taken whatever they do. */
  toRules?: boolean;
  /** What it does is to move one train on. */
  movesOn?: boolean;
  /** Two of these may fall into one scan. */
  pairs: boolean;
  /** Adds the steps of this kind that can be taken from the present state. */
  list(model: ProofModel, add: (index: number, choice: number) => void): void;
  /** Changes the plant, or what people ask. True when the rules must be scanned. */
  take(model: ProofModel, index: number, choice: number): boolean;
  /** It gets a train somewhere: past a signal, onto points, or where another detector sees it. */
  getsSomewhere?(model: ProofModel, index: number, choice: number): boolean;
  /** The rules refuse it, whatever else falls into a first scan of that effect (`Effects`). */
  isRefused?(model: ProofModel, index: number, effect: number): boolean;
  /** In a sentence, from the state before it. */
  tell(model: ProofModel, index: number, choice: number): string;
  course?(model: ProofModel, index: number, choice: number): Course;
  /** Begins it in a rehearsal; returns what tells that it is done, or undefined when it cannot be begun. */
  steer(steering: Steering, deed: Deed, nth: number): (() => boolean) | undefined;
  /** It may have come to pass long before a counterexample tells of it. */
  passesBy?: boolean;
}
