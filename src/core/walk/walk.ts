import type { TenthUm } from '../measure';
import type { LayoutDocument, ListName } from '../survey';

/** Somebody walks along a line with a tape, and says what comes. */
export interface Walk {
  /** The layout as it is, with what was said so far. */
  document: LayoutDocument;
  /** The id of the line that is walked along; empty before there is one. */
  line: string;
  /** What was said last that stands somewhere, and where: “+12” goes on from there, and a number alone says it again. */
  last?: { phrase: string; at: TenthUm; values: Values };
  whole?: WholeText;
  /** Of a row of a text: the layout without what the text says. */
  before?: LayoutDocument;
  /** What is spoken of may have a name, and that need not be in quotes. */
  named?: boolean;
}

/** The turnouts of a whole text, which may be spoken of before they are said. */
export interface WholeText {
  turnouts: readonly { id: string; name: string }[];
  /** The first time round, when they are not all known: one that is not known is passed over, and that is noted here. */
  passedOver?: string[];
}

/** What was said of a thing, by the names of its parts. */
export type Values = Record<string, unknown>;

/** A thing to be added, and to which list. */
export interface Addition {
  list: ListName;
  thing: { id: string } & Values;
}

/** The length of the line that is walked along. */
export const lengthOf = ({ document }: Pick<Walk, 'document'>, line: string): TenthUm =>
  document.lines.find(({ id }) => id === line)?.length.tenthUm ?? 0;
