import type { LayoutDocument, ListName } from '../survey';
import * as part from './parts';
import type { Addition, Values, Walk } from './walk';

/** What is handed to a phrase that adds things: ids and names that are free. */
export interface Fresh {
  id(list: ListName, prefix?: string): string;
  name(prefix: string): string;
}

/** One kind of thing that can be said of a line: its words, read and written by the same parts. */
export interface Phrase {
  /** The words that it begins with. */
  head: string;
  /** In a sentence, for those who ask. */
  means: string;
  parts: readonly part.Part[];
  /** Without a name it says nothing. */
  needsName?: boolean;
  /** The things that it adds. */
  adds(values: Values, walk: Walk, fresh: Fresh): Addition[];
  /** The things of a document that it says, each with its line and where it stands there. */
  says(document: LayoutDocument): { line: string; at: number; values: Values }[];
}

/** The parts of a phrase, in order. */
// biome-ignore lint/suspicious/noExplicitAny: each part knows its own value
export const parts = (...own: part.Part<any>[]): readonly part.Part[] => own;
export const certainty = part.oneOf('certainty', ['fixed', 'tentative'] as const, 'tentative');
export const fixedOn = part.labelled('since', part.day('fixedOn'), 'Say on which day: since 2026-11-27.');
export const works = part.labelled('works', part.names('patterns'), 'Say how it works, in quotes.');
/** A part that may be left out, and then says nothing. */
export const optional = <V>(one: part.Part<V>): part.Part<V | undefined> => ({
  ...(one as part.Part<V | undefined>),
  otherwise: () => undefined,
});
