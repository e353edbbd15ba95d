import type { Schema } from 'yup';
import type { TenthUm } from '../../measure';
import type { LayoutDocument } from '../schema';
import type { ListName } from './index';

/** Any thing of any list, before it is known which. */
export type Thing = { id: string } & Record<string, unknown>;

/** Where a thing names another. */
export interface Reference {
  /** The way to the id from the thing: “anchor.line”; with [] for each of several, “vehicles[]”. */
  at: string;
  to: ListName;
  /** Ids that are always there, beside those of the list. */
  besides?: readonly string[];
  /** When the one it names is deleted: the thing goes too, or it keeps the other from going, told so, or it does without a field. */
  whenGone: 'goes too' | { keeps: string } | { without: string };
  /** Distances along the line that is named, none of which may lie past its end. */
  distances?: readonly string[];
  /** It names an end of that line, which can lead to one place only. */
  takesEnd?: boolean;
}

/** Tells of a fault: where in the thing, what is wrong, and what to do. */
export type Tell = (at: string, problem: string, remedy: string) => void;

/** What reading knows of the whole document while it looks at one thing. */
export interface Surroundings {
  document: LayoutDocument;
  /** The length of a line, if there is such a line. */
  lengthOf(line: string): TenthUm | undefined;
  lineName(line: string): string;
  /** Claims something for this thing; where the one is that has claimed it before, if there is one. */
  claim(key: string): string | undefined;
  /** Claims an end of a line, or tells that another has it. */
  takeEnd(at: string, end: { line: string; end: 'start' | 'end' }): void;
}

/** One list of the document: what every part of the house that goes through the lists asks about it. */
export interface ListKind<T extends { id: string } = Thing> {
  /** What any of its things is called, and what one is by its kind. */
  title: string;
  titleOf?(thing: T): string;
  /** What the ids of its things begin with. */
  prefix: string;
  /** The version of the document that brought it; older documents have none of its things. */
  since?: number;
  /** How many things it may hold. */
  most: number;
  schema: Schema;
  refers: readonly Reference[];
  /** How long a name may be; undefined where its things are not renamed. */
  longestName?: number;
  /** What is wrong with one of its things beyond the schema and the references. */
  faults?(thing: T, tell: Tell, around: Surroundings): void;
  /** What else goes with a thing that is itself chosen to be deleted, by id; may refuse. */
  takesAlong?(thing: T, document: LayoutDocument): string[];
  /** It goes too when any of these ids goes, though it names none of them by a reference. */
  goesWith?(thing: T, gone: ReadonlySet<string>): boolean;
  /** It is looked at by itself: chosen on the sheet, and found by its name. */
  chosen?: boolean;
  /** Said after its name when it is deleted. */
  andAll?: string;
}
