import { showLength, type TypedLength } from '../measure';
import type { Line } from '../survey';
import { directions } from './directions';
import { FORMS } from './forms';
import { length, lineAt, type Part, type Read } from './parts';
import type { Fresh, Phrase } from './phrase';
import { PHRASES } from './phrases';
import type { Addition, Values, Walk } from './walk';
import { nearest, type Word, wordsOf } from './words';

/** What a phrase comes to, as far as it was said. */
export interface PhraseReading {
  /** What it adds; nothing while it is not whole. */
  additions?: Addition[];
  /** It says a line that there is already. */
  there?: boolean;
  /** The line that is walked along afterwards. */
  line: string;
  last?: Walk['last'];
  /** What is wrong, and what may have been meant: the whole phrase anew. */
  problem?: string;
  meant?: string;
  /** What is still to be said. */
  asks?: string;
  /** What it is about, in a sentence. */
  means?: string;
  /** Words that may come next. */
  offers: string[];
  /** Where it stands on the line, for a picture. */
  ghost?: { line: string; at: number; to?: number };
  /** A new length of the line that is walked along. */
  length?: { line: string; length: TypedLength };
}

const LINE = 'line';
const LENGTH = 'length';
/** Everything that can be said, in the order in which it is offered, each with a sentence about it. */
export const SAID: readonly { head: string; means: string }[] = [
  { head: LINE, means: 'A new line begins, with its length; or one that there is is walked along from here on.' },
  ...PHRASES,
  ...FORMS,
  { head: LENGTH, means: 'The line that is walked along is so long.' },
];
const HEADS = SAID.map(({ head }) => head);
const LONGEST_HEAD = 2;

/** A phrase that begins a line, or goes to one. */
export const beginsLine = (said: string): boolean => headOf(wordsOf(said))?.head === LINE;

/** Reads one phrase of a walk along the rails. */
export function readPhrase(said: string, walk: Walk, fresh: Fresh): PhraseReading {
  const words = wordsOf(said);
  const first = words[0];
  if (!first) return { line: walk.line, offers: HEADS, asks: 'Say what comes next on the line, and where.' };
  const head = headOf(words);
  if (head?.head === LINE) return readLine(words, walk, fresh);
  if (walk.line === '')
    return { line: '', offers: [LINE], problem: 'Say first which line you walk along: line Main 480.' };
  if (head?.head === LENGTH) return readLineLength(words, walk);
  const again = !head && /^[+\d.]/.test(first.text) && walk.last;
  const phrase = [...PHRASES, ...FORMS].find((one) => one.head === (again ? walk.last!.phrase : head?.head));
  if (!phrase) return unknownWord(said, words, walk);
  return readParts(said, words, again ? 0 : head!.words, phrase, walk, fresh, again ? walk.last!.values : {});
}

function headOf(words: readonly Word[]): { head: string; words: number } | undefined {
  for (let count = LONGEST_HEAD; count > 0; count--) {
    if (words.length < count) continue;
    const own = words.slice(0, count);
    const typed = own.map(({ text }) => text.toLowerCase()).join(' ');
    if (!own.some(({ quoted }) => quoted) && HEADS.includes(typed)) return { head: typed, words: count };
  }
  return undefined;
}

function unknownWord(said: string, words: readonly Word[], walk: Walk): PhraseReading {
  const typed = words[0]!.text.toLowerCase();
  const begun = HEADS.filter((head) => head.startsWith(said.trim().toLowerCase()));
  if (begun.length > 0 && words.length <= LONGEST_HEAD)
    return { line: walk.line, offers: begun, asks: 'Go on typing.' };
  if (/^[+\d.]/.test(typed)) return { line: walk.line, offers: HEADS, problem: 'Say first what stands there: gap 96.' };
  const meant = nearest(typed, HEADS);
  return {
    line: walk.line,
    offers: meant ? [meant] : HEADS,
    problem: `“${words[0]!.text}” is nothing that I know on a line.`,
    meant: meant && `${meant}${said.slice(words[0]!.to)}`,
  };
}

/** “line Main 480” begins a line, “line Main” goes to it. */
function readLine(words: readonly Word[], walk: Walk, fresh: Fresh): PhraseReading {
  const names = walk.document.lines.map((line) => line.name);
  const offers = names.map((one) => `"${one}"`);
  if (words.length === 1)
    return { line: walk.line, offers, asks: 'Say its name, and how long it is if it is new: line Main 480.' };
  const known = lineAt(walk, words, 1);
  const all = words.slice(1);
  if (known && !('problem' in known) && known.next === words.length)
    return { additions: [], line: known.value, offers: [] };
  /** Its length is whatever is one from some word to the end, or to “circuit”, “one way” or “row”. */
  for (let from = 1; from < all.length; from++) {
    const read = all[from]!.quoted ? undefined : length('length').read(all, from, walk);
    if (!read || 'problem' in read) continue;
    const rest = all.slice(read.next).map(({ text }) => text.toLowerCase());
    const circuit = rest[0] === 'circuit';
    let used = circuit ? 1 : 0;
    const way = rest[used] === 'one' && rest[used + 1] === 'way' ? directions(walk)[rest[used + 2] ?? ''] : undefined;
    used += way === undefined ? 0 : 3;
    const row = rest[used] === 'row' ? Number(rest[used + 1]) : undefined;
    used += row === undefined ? 0 : 2;
    if (rest.length !== used || (row !== undefined && !Number.isInteger(row))) continue;
    const called = all
      .slice(0, from)
      .map(({ text }) => text)
      .join(' ');
    const there = (walk.before ?? walk.document).lines.find(({ name }) => name === called);
    if (there) return sameLine(there, { length: read.value, circuit, running: way, row }, walk, offers);
    const id = fresh.id('lines');
    const more = { ...(way && { running: way }), ...(row !== undefined && { drawing: { row } }) };
    const line: Addition = { list: 'lines', thing: { id, name: called, length: read.value, ...more } };
    const closed: Addition = {
      list: 'joins',
      thing: { id: fresh.id('joins'), a: { line: id, end: 'end' }, b: { line: id, end: 'start' } },
    };
    return { additions: circuit ? [line, closed] : [line], line: id, offers: [], means: 'A new line begins.' };
  }
  return {
    line: walk.line,
    offers,
    asks: `There is no line “${all.map(({ text }) => text).join(' ')}” yet. Say how long it is: line Main 480; “circuit” after it, if its ends meet, and “one way ${walk.document.directions.up}”, if it is run in one direction only.`,
  };
}

/** A line that there is already, as a text from elsewhere says it again: it is walked along, unless it was said to be another. */
function sameLine(
  { id, name, ...is }: Line,
  said: { length: TypedLength; circuit: boolean; running: Line['running']; row: number | undefined },
  { line, document }: Walk,
  offers: string[],
): PhraseReading {
  const circuit = document.joins.some(({ a, b }) => a.line === id && b.line === id);
  const other = [
    is.length.tenthUm !== said.length.tenthUm && `is ${showLength(is.length.tenthUm, document.shownUnit)} long`,
    said.circuit && !circuit && 'is no circuit',
    said.running &&
      is.running !== said.running &&
      (is.running ? `is run ${document.directions[is.running]} only` : 'is run both ways'),
    said.row !== undefined && is.drawing?.row !== said.row && 'is drawn in another row',
  ].filter((one) => typeof one === 'string');
  if (other.length === 0)
    return {
      additions: [],
      line: id,
      offers: [],
      there: true,
      means: 'It is there already, and is walked along from here on.',
    };
  return {
    line,
    offers,
    problem: `There is a line “${name}” already, and it ${other.join(', and ')}. Say “line ${name}” to walk along it, or give this one another name.`,
    meant: `line "${name}"`,
  };
}

function readLineLength(words: readonly Word[], walk: Walk): PhraseReading {
  const read = length('length').read(words, 1, walk);
  const asks = 'Say how long the line is: length 480.';
  if (!read) return { line: walk.line, offers: [], asks };
  if ('problem' in read) return { line: walk.line, offers: [], problem: read.problem };
  if (read.next < words.length) return { line: walk.line, offers: [], problem: asks };
  return { line: walk.line, offers: [], additions: [], length: { line: walk.line, length: read.value } };
}

function readParts(
  said: string,
  words: readonly Word[],
  from: number,
  phrase: Phrase,
  walk: Walk,
  fresh: Fresh,
  before: Values,
): PhraseReading {
  const values: Values = {};
  const open = new Set(phrase.parts);
  const named = phrase.parts.find(({ key }) => key === 'name');
  const reading: PhraseReading = { line: walk.line, offers: [], means: phrase.means };
  const spoken = { ...walk, named: named !== undefined };
  /** What is wrong is told only where no other part begins with the same word. */
  const readAny = (at: number) => {
    let wrong: { one: Part; read: Read<unknown> } | undefined;
    for (const one of open) {
      const read = one.read(words, at, spoken);
      if (read && 'value' in read) return { one, read };
      if (read) wrong ??= { one, read };
    }
    return wrong;
  };
  for (let at = from; at < words.length; ) {
    const found = readAny(at);
    if (found && 'problem' in found.read) {
      reading.problem = found.read.problem;
      break;
    }
    if (found && 'value' in found.read) {
      values[found.one.key] = found.read.value;
      open.delete(found.one);
      at = found.read.next;
      continue;
    }
    const wide = named && open.has(named) && !mistyped(words[at]!, open, walk);
    if (!wide) {
      const known = [...open].flatMap((one) => one.offers(walk));
      const meant = nearest(words[at]!.text, known);
      reading.problem = `“${words[at]!.text}” is nothing that is said of a ${phrase.head}.`;
      reading.meant = meant && said.slice(0, words[at]!.from) + meant + said.slice(words[at]!.to);
      break;
    }
    let next = at + 1;
    while (next < words.length && !words[next]!.quoted && !readAny(next)) next += 1;
    values.name = words
      .slice(at, next)
      .map(({ text }) => text)
      .join(' ');
    open.delete(named);
    at = next;
  }
  reading.offers = [...open].flatMap((one) => one.offers(walk)).filter((offer) => !offer.startsWith('"'));
  const place = (values.at ?? (values.span as Values | undefined)?.at) as TypedLength | undefined;
  const to = (values.span as { to: TypedLength } | undefined)?.to;
  if (place) reading.ghost = { line: walk.line, at: place.tenthUm, ...(to && { to: to.tenthUm }) };
  if (reading.problem !== undefined) return reading;
  for (const one of open) {
    const again = one.key === 'name' || one.key === 'span' || one.key === 'at' ? undefined : before[one.key];
    const value = again ?? one.otherwise?.(walk);
    if (value !== undefined) values[one.key] = value;
    else if (!one.otherwise && one.key !== 'name') reading.asks ??= one.asks;
  }
  if (phrase.needsName && values.name === undefined) reading.asks ??= named?.asks;
  if (reading.asks !== undefined) return reading;
  const where = ((values.at ?? (values.span as Values | undefined)?.to) as TypedLength | undefined)?.tenthUm;
  return {
    ...reading,
    additions: phrase.adds(values, walk, fresh),
    last: where === undefined ? walk.last : { phrase: phrase.head, at: where, values },
    ghost: reading.ghost ?? (where === undefined ? undefined : { line: walk.line, at: where }),
  };
}

/** A word so near to one that may come here that it is no name. */
function mistyped({ text, quoted }: Word, open: ReadonlySet<Part>, walk: Walk): boolean {
  if (quoted || text.length < 4) return false;
  const known = [...open].flatMap((one) => one.offers(walk)).filter((offer) => !offer.startsWith('"'));
  return (
    nearest(
      text,
      known.filter((one) => one.length > 3),
    ) !== undefined
  );
}
