import { ValidationError } from 'yup';
import {
  type LayoutDocument,
  LIST_NAMES,
  LISTS,
  type ListName,
  referenceFaults,
  type Thing,
  thingsOf,
} from '../survey';
import { freshIn } from './fresh';
import { beginsLine, readPhrase } from './read-phrase';
import { thereIn } from './there-in';
import type { Addition, Walk, WholeText } from './walk';

/** A row of a text that is not taken, and why. */
export interface BadRow {
  /** Counted from 1. */
  row: number;
  text: string;
  problem: string;
  meant?: string;
}

/** What a text comes to: what it adds to a document, and the rows that are wrong. */
export interface SurveyReading {
  /** All that the good rows add, in order. */
  additions: Addition[];
  bad: BadRow[];
  /** How many rows say something, and how many of them only what there is already. */
  rows: number;
  there: number;
}

interface GoodRow {
  row: number;
  text: string;
  additions: Addition[];
  /** It says only what there is already. */
  there: boolean;
}

/** A document with things added at the end of its lists. */
export function withAdditions(document: LayoutDocument, additions: readonly Addition[]): LayoutDocument {
  const added = Object.fromEntries(
    LIST_NAMES.map((list) => [
      list,
      [...thingsOf(document, list), ...additions.filter((one) => one.list === list).map(({ thing }) => thing)],
    ]),
  );
  const next = { ...document, ...added } as LayoutDocument;
  return next.referenceLine === '' && next.lines[0] ? { ...next, referenceLine: next.lines[0].id } : next;
}

/** Rows whose things cannot stand together with the rest take each other down in turn; more rounds than this are not needed. */
const MOST_ROUNDS = 20;

const ROWS_A_STEP = 50;
/** A text is read once or twice, and then what it says is stood together. */
const SHARES = { first: [0, 0.4], again: [0.4, 0.8], together: 0.8 } as const;

/** Reads a text of phrases, one a row, into a document. A row that begins with # says nothing. */
export function readSurvey(text: string, document: LayoutDocument): SurveyReading {
  const reading = surveyReading(text, document);
  let step = reading.next();
  while (!step.done) step = reading.next();
  return step.value;
}

/** The same in steps; each yields what share of the work is done, 0 to 1. */
export function* surveyReading(text: string, document: LayoutDocument): Generator<number, SurveyReading> {
  const said = text
    .split(/\r?\n/)
    .map((phrase, i) => ({ row: i + 1, text: phrase.trim() }))
    .filter((row) => row.text !== '' && !row.text.startsWith('#'));
  const passedOver: string[] = [];
  let read = yield* readRows(said, document, { turnouts: document.turnouts, passedOver }, SHARES.first);
  if (passedOver.length > 0) {
    const { turnouts } = withAdditions(
      document,
      read.good.flatMap(({ additions }) => additions),
    );
    read = yield* readRows(said, document, { turnouts }, SHARES.again);
  }
  const { good, bad } = yield* standingTogether(read.good, read.bad, document);
  return {
    additions: good.flatMap(({ additions }) => additions),
    bad: bad.sort((a, b) => a.row - b.row),
    rows: said.length,
    there: good.filter(({ there }) => there).length,
  };
}

interface Rows {
  good: GoodRow[];
  bad: BadRow[];
}

function* readRows(
  said: { row: number; text: string }[],
  document: LayoutDocument,
  whole: WholeText,
  [from, to]: readonly [number, number],
): Generator<number, Rows> {
  const lists = Object.fromEntries(LIST_NAMES.map((list) => [list, [...thingsOf(document, list)]]));
  const grown = { ...document, ...lists } as LayoutDocument;
  const fresh = freshIn(document);
  const isThere = thereIn(document);
  const walk: Walk = { document: grown, line: document.referenceLine, whole, before: document };
  const [good, bad]: [GoodRow[], BadRow[]] = [[], []];
  /** The row whose line is not taken: what comes on it has nowhere to stand. */
  let lost: number | undefined;
  for (const [i, { row, text }] of said.entries()) {
    if (i % ROWS_A_STEP === 0) yield from + ((to - from) * i) / said.length;
    const begins = beginsLine(text);
    if (lost !== undefined && !begins) {
      bad.push({ row, text, problem: `It stands on the line of row ${lost}, which is not taken.` });
      continue;
    }
    const reading = readPhrase(text, walk, fresh);
    const { additions, problem, asks, meant, length } = reading;
    const wrong =
      problem ??
      asks ??
      (additions && whatIsWrong(additions)) ??
      (length && 'A length is said with its line: line Main 480.');
    if (!additions || wrong !== undefined) {
      bad.push({ row, text, problem: wrong ?? 'This says nothing.', meant });
      if (begins) lost = row;
      continue;
    }
    const there = additions.length > 0 && additions.every(isThere);
    if (!there) for (const { list, thing } of additions) thingsOf(grown, list).push(thing as Thing);
    good.push({ row, text, additions: there ? [] : additions, there: there || !!reading.there });
    if (begins) lost = undefined;
    walk.line = reading.line;
    walk.last = reading.last ?? walk.last;
  }
  return { good, bad };
}

/** What the schema of its list says against a thing. */
function whatIsWrong(additions: readonly Addition[]): string | undefined {
  for (const { list, thing } of additions)
    try {
      LISTS[list].schema.validateSync(thing, { strict: true });
    } catch (error) {
      if (error instanceof ValidationError) return `${error.path ?? ''} ${error.message}`.trim();
      throw error;
    }
  return undefined;
}

/** Leaves out what cannot stand on the track with the rest: past the end of its line, where something stands already, on an end in use. */
function* standingTogether(good: GoodRow[], bad: BadRow[], document: LayoutDocument): Generator<number, Rows> {
  const before = Object.fromEntries(LIST_NAMES.map((list) => [list, thingsOf(document, list).length])) as Record<
    ListName,
    number
  >;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    yield SHARES.together + ((1 - SHARES.together) * round) / MOST_ROUNDS;
    const next = withAdditions(
      document,
      good.flatMap(({ additions }) => additions),
    );
    const rowOf = new Map(good.flatMap((row) => row.additions.map(({ thing }) => [thing.id, row] as const)));
    const wrong = new Map<GoodRow, string>();
    for (const { place, problem, remedy } of referenceFaults(next)) {
      const at = /^(\w+)\[(\d+)\]/.exec(place);
      const list = at?.[1] as ListName | undefined;
      if (!list || Number(at![2]) < before[list]) continue;
      const row = rowOf.get(thingsOf(next, list)[Number(at![2])]!.id);
      if (row && !wrong.has(row)) wrong.set(row, `${problem} ${remedy}`);
    }
    if (wrong.size === 0) break;
    for (const [{ row, text }, problem] of wrong) bad.push({ row, text, problem });
    good = good.filter((row) => !wrong.has(row));
  }
  return { good, bad };
}
