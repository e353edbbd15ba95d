import { readLength, type ShownUnit, type TypedLength } from '../measure';
import { asTyped, type LineEnd, type Place } from '../survey';
import { lengthOf, type Walk } from './walk';
import { quote, type Word } from './words';

/** A part was read: what it says, and which word comes next. Or it is that part, and wrong. */
export type Read<V> = { value: V; next: number } | { problem: string };

/** One thing that can be said of what a phrase is about. All kinds of part stand in this file, long as it is, so that those that read alike share how. */
export interface Part<V = unknown> {
  key: string;
  /** What it says when nothing is said. */
  otherwise?: (walk: Walk) => V | undefined;
  /** Asked for when it is missing and there is no other value. */
  asks?: string;
  /** Reads it from the word at a place on; undefined when that word does not begin it. */
  read(words: readonly Word[], at: number, walk: Walk): Read<V> | undefined;
  /** The words that say a value. */
  write(value: V, walk: Walk): string;
  /** Words that may begin it, for those who type. */
  offers(walk: Walk): readonly string[];
}

const plain = (word: Word | undefined): string | undefined =>
  word && !word.quoted ? word.text.toLowerCase() : undefined;
const BEGINS_LENGTH = /^[\d.½¼¾⅛⅜⅝⅞+]/;
/** “2 ft 3 1/2 in” has five words, “40 scale ft” three; none has more than six. */
const MOST_WORDS = 6;

/** “210 M” says a name and no metres, “365 In the woods” one and no inches; “3 Ft 2 In to 8 Ft” says a length. */
const isName = (text: string, next: Word | undefined): boolean =>
  text === 'M' ||
  (text === 'In' && next !== undefined && !next.quoted && /^\p{L}/u.test(next.text) && next.text !== 'to');

/** A length, of as many words as belong to it. */
function lengthAt(words: readonly Word[], at: number, { document, named }: Walk): Read<TypedLength> | undefined {
  const first = plain(words[at]);
  if (first === undefined || !BEGINS_LENGTH.test(first)) return undefined;
  for (let count = Math.min(MOST_WORDS, words.length - at); count > 0; count--) {
    const own = words.slice(at, at + count);
    if (own.some(({ quoted }) => quoted)) continue;
    if (named && count > 1 && isName(own.at(-1)!.text, words[at + count])) continue;
    const text = own.map((word) => word.text).join(' ');
    const reading = readLength(text, document.shownUnit, document.scale);
    if (reading.ok) return { value: reading.value, next: at + count };
    if (count === 1) return { problem: reading.problem };
  }
  return undefined;
}

/** A length as it was typed, if that still says it; else to the last digit. */
export function writeLength({ tenthUm, typed }: TypedLength, { document }: Walk): string {
  const reading = readLength(typed, document.shownUnit, document.scale);
  const exact = `${tenthUm / 10_000} mm`;
  return reading.ok && reading.value.tenthUm === tenthUm && reading.value.typed === typed ? typed : exact;
}

/** A distance from the start of the line, or with a plus from where the last thing stands. */
function distanceAt(words: readonly Word[], at: number, walk: Walk): Read<TypedLength> | undefined {
  const word = words[at];
  if (!plain(word)?.startsWith('+')) return lengthAt(words, at, walk);
  if (!walk.last)
    return { problem: 'There is nothing yet to go on from. Say how far it is from the start of the line.' };
  const without =
    word!.text === '+' ? words.filter((_, i) => i !== at) : words.with(at, { ...word!, text: word!.text.slice(1) });
  const read = lengthAt(without, at, walk);
  if (!read || 'problem' in read) return read ?? { problem: 'Say how much farther: +12.' };
  const tenthUm = walk.last.at + read.value.tenthUm;
  const unit = walk.document.shownUnit;
  const typed = unit === 'cm' ? `${tenthUm / 100_000} cm` : `${tenthUm / 254_000} in`;
  return { value: { tenthUm, typed }, next: read.next + (word!.text === '+' ? 1 : 0) };
}

/** Where it stands on the line. Without a place it stands at the end, if it may. */
export const at = (key = 'at', atTheEnd = false): Part<TypedLength> => ({
  key,
  asks: 'Say how far it is from the start of the line: 96 cm, 38", 3 ft 2 in; or +12 from the last thing.',
  otherwise: atTheEnd ? ({ document, line }) => document.lines.find(({ id }) => id === line)?.length : undefined,
  read(words, from, walk) {
    const labelled = plain(words[from]) === 'at';
    return (
      distanceAt(words, labelled ? from + 1 : from, walk) ??
      (labelled ? { problem: 'Say where after “at”.' } : undefined)
    );
  },
  write: writeLength,
  offers: () => [],
});

/** From where to where on the line. Of what may be said with one place, `wide` is how far it reaches. */
export const span = (wide?: Record<ShownUnit, TypedLength>): Part<{ at: TypedLength; to: TypedLength }> => ({
  key: 'span',
  asks: 'Say from where to where: 120 to 184.',
  read(words, from, walk) {
    const start = plain(words[from]) === 'from' ? from + 1 : from;
    const one = distanceAt(words, start, walk);
    if (!one) return start > from ? { problem: 'Say from where: from 40 to 110.' } : undefined;
    if ('problem' in one) return one;
    if (plain(words[one.next]) !== 'to') {
      if (!wide) return { problem: 'Say to where: 120 to 184.' };
      const { shownUnit } = walk.document;
      const to = asTyped(one.value.tenthUm + wide[shownUnit].tenthUm, shownUnit);
      return { value: { at: one.value, to }, next: one.next };
    }
    const on = { ...walk, last: walk.last && { ...walk.last, at: one.value.tenthUm } };
    const two = distanceAt(words, one.next + 1, on);
    if (!two) return { problem: 'Say to where: 120 to 184.' };
    return 'problem' in two ? two : { value: { at: one.value, to: two.value }, next: two.next };
  },
  write: ({ at: one, to }, walk) => `${writeLength(one, walk)} to ${writeLength(to, walk)}`,
  offers: () => [],
});

/** One of several words. */
export const oneOf = <V extends string>(
  key: string,
  values: readonly V[] | ((walk: Walk) => Record<string, V>),
  otherwise?: V,
): Part<V> => {
  const known = (walk: Walk): Record<string, V> =>
    typeof values === 'function'
      ? values(walk)
      : Object.fromEntries(values.map((value) => [value.toLowerCase(), value]));
  return {
    key,
    otherwise: otherwise === undefined ? undefined : () => otherwise,
    asks: `Say which: ${key}.`,
    read(words, from, walk) {
      const all = Object.entries(known(walk)).sort(([a], [b]) => b.length - a.length);
      for (const [said, value] of all) {
        const count = said.split(' ').length;
        const here = words.slice(from, from + count);
        if (
          here.length === count &&
          here.every((w) => !w.quoted) &&
          here
            .map((w) => w.text)
            .join(' ')
            .toLowerCase() === said
        )
          return { value, next: from + count };
      }
      return undefined;
    },
    write: (value, walk) => Object.entries(known(walk)).find(([, one]) => one === value)![0],
    offers: (walk) => Object.keys(known(walk)),
  };
};

/** A day, as year-month-day. */
export const day = (key: string): Part<string | undefined> => ({
  key,
  otherwise: () => undefined,
  read: (words, from) => {
    const said = plain(words[from]);
    return said && /^\d{4}-\d\d-\d\d$/.test(said) ? { value: said, next: from + 1 } : undefined;
  },
  write: (value) => value!,
  offers: () => [],
});

/** A word that is there or not. */
export const flag = (word: string): Part<true | undefined> => ({
  key: word,
  otherwise: () => undefined,
  read: (words, from) => (plain(words[from]) === word ? { value: true, next: from + 1 } : undefined),
  write: () => word,
  offers: () => [word],
});

/** Something after the word that says what it is: “clear 20”. */
export const labelled = <V>(label: string, part: Part<V>, asks: string): Part<V> => ({
  ...part,
  read(words, from, walk) {
    if (plain(words[from]) !== label) return undefined;
    return part.read(words, from + 1, walk) ?? { problem: asks };
  },
  write: (value, walk) => `${label} ${part.write(value, walk)}`,
  offers: () => [label],
});

/** A length that is no place. */
export const length = (key: string, otherwise?: (walk: Walk) => TypedLength | undefined): Part<TypedLength> => ({
  key,
  otherwise,
  asks: 'Say how long it is: 230 cm, 7 ft 6 in.',
  read: lengthAt,
  write: writeLength,
  offers: () => [],
});

/** A number with what stands behind it: “2.5%”, “1500 ms”, “12 degrees”. */
export const number = (key: string, unit: string, otherwise?: number): Part<number> => ({
  key,
  otherwise: otherwise === undefined ? undefined : () => otherwise,
  asks: `Say a number: 2${unit === '%' ? unit : ` ${unit}`}.`,
  read(words, from) {
    const text = plain(words[from]);
    const match = text && /^([-−]?[\d.]+)(.*)$/.exec(text);
    if (!match || Number.isNaN(Number(match[1]!.replace('−', '-')))) return undefined;
    const apart = match[2] === '' && unit !== '' && plain(words[from + 1]) === unit;
    if (!apart && match[2] !== unit && match[2] !== '') return undefined;
    if (!apart && match[2] === '' && unit === '%') return undefined;
    return { value: Number(match[1]!.replace('−', '-')), next: from + (apart ? 2 : 1) };
  },
  write: (value) => (unit === '%' ? `${value}%` : unit === '' ? String(value) : `${value} ${unit}`),
  offers: () => [],
});

/** A name, in quotes or not. */
export const name = (key = 'name', otherwise?: (walk: Walk) => string): Part<string> => ({
  key,
  otherwise,
  asks: 'Say its name.',
  read: (words, from) => (words[from]?.quoted ? { value: words[from].text, next: from + 1 } : undefined),
  write: (value) => quote(value),
  offers: () => [],
});

/** A name of one word, or in quotes. */
export const word = (key: string): Part<string> => ({
  ...name(key),
  read: (words, from) => (words[from] ? { value: words[from].text, next: from + 1 } : undefined),
});

/** Several names, each in quotes. */
export const names = (key: string): Part<string[] | undefined> => ({
  key,
  otherwise: () => undefined,
  read(words, from) {
    let next = from;
    while (words[next]?.quoted) next += 1;
    return next === from ? undefined : { value: words.slice(from, next).map(({ text }) => text), next };
  },
  write: (value) => (value ?? []).map(quote).join(' '),
  offers: () => [],
});

/** Some of several words, in order; “none” for none of them. */
export const severalOf = (key: string, known: readonly string[]): Part<string[] | undefined> => ({
  key,
  otherwise: () => undefined,
  read(words, from) {
    if (plain(words[from]) === 'none') return { value: [], next: from + 1 };
    let next = from;
    while (known.includes(plain(words[next]) ?? '')) next += 1;
    return next === from ? undefined : { value: words.slice(from, next).map(({ text }) => text.toLowerCase()), next };
  },
  write: (value) => (value!.length === 0 ? 'none' : value!.join(' ')),
  offers: () => known,
});

interface Named {
  id: string;
  name: string;
}
/** A thing by its name; where several bear it, by its number among them: “Loop” #2. */
function thingAt(
  things: readonly Named[],
  what: string,
  words: readonly Word[],
  from: number,
): Read<string> | undefined {
  if (!words[from]) return undefined;
  /** The longest name that is said here, quoted or not. */
  const said = (count: number) =>
    words
      .slice(from, from + count)
      .map(({ text }) => text)
      .join(' ');
  const most = words[from].quoted ? 1 : Math.min(8, words.length - from);
  for (let count = most; count > 0; count--) {
    const called = said(count).toLowerCase();
    const all = things.filter((thing) => thing.name.toLowerCase() === called);
    if (all.length === 0) continue;
    const exact = all.filter((thing) => thing.name === said(count));
    const among = exact.length > 0 ? exact : all;
    const nth = /^#(\d+)$/.exec(plain(words[from + count]) ?? '');
    const found = among[nth ? Number(nth[1]) - 1 : 0];
    return found
      ? { value: found.id, next: from + count + (nth ? 1 : 0) }
      : { problem: `There are only ${among.length} ${what}s of that name.` };
  }
  return { problem: `There is no ${what} “${words[from].text}”.` };
}
function writeThing(things: readonly Named[], id: string): string {
  const { name: called } = things.find((thing) => thing.id === id)!;
  const alike = things.filter((thing) => thing.name === called);
  return alike.length < 2 ? quote(called) : `${quote(called)} #${alike.findIndex((thing) => thing.id === id) + 1}`;
}

/** Another turnout, by its name. */
export const turnout = (key: string): Part<string | undefined> => ({
  key,
  otherwise: () => undefined,
  read(words, from, { document, whole }) {
    const read = thingAt(whole?.turnouts ?? document.turnouts, 'turnout', words, from);
    if (!read || !('problem' in read) || !whole?.passedOver) return read;
    whole.passedOver.push(words[from]!.text);
    return { value: undefined, next: from + (/^#\d+$/.test(words[from + 1]?.text ?? '') ? 2 : 1) };
  },
  write: (id, { document }) => writeThing(document.turnouts, id!),
  offers: () => [],
});

const END_WORDS = { start: 'start', end: 'end' } as const;

/** An end of a line: by its word, or by the distance that is there. */
export const lineEnd = (key: string, optional = false): Part<LineEnd | undefined> => ({
  key,
  otherwise: optional ? () => undefined : undefined,
  asks: 'Say which end of which line: to Loop start.',
  read(words, from, walk) {
    const line = thingAt(walk.document.lines, 'line', words, from);
    if (!line || 'problem' in line) return line;
    const word = plain(words[line.next]);
    if (word === 'start' || word === 'end')
      return { value: { line: line.value, end: END_WORDS[word] }, next: line.next + 1 };
    const distance = at().read(words, line.next, walk);
    if (distance && 'problem' in distance) return distance;
    const whole = lengthOf(walk, line.value);
    if (distance?.value.tenthUm === 0) return { value: { line: line.value, end: 'start' }, next: distance.next };
    if (distance && distance.value.tenthUm === whole)
      return { value: { line: line.value, end: 'end' }, next: distance.next };
    if (distance)
      return { problem: 'Lines meet at their ends. Where one leaves another in its middle, say a turnout.' };
    return { value: { line: line.value, end: 'start' }, next: line.next };
  },
  write: (value, { document }) => `${writeThing(document.lines, value!.line)} ${value!.end}`,
  offers: ({ document }) => document.lines.map((line) => quote(line.name)),
});

/** A place on another line. */
export const place = (key: string): Part<Place> => ({
  key,
  asks: 'Say on which line, and where: with Branch 40.',
  read(words, from, walk) {
    const line = thingAt(walk.document.lines, 'line', words, from);
    if (!line || 'problem' in line) return line;
    const distance = at().read(words, line.next, walk);
    if (!distance) return { problem: 'Say how far along that line.' };
    return 'problem' in distance ? distance : { value: { line: line.value, at: distance.value }, next: distance.next };
  },
  write: (value, walk) => `${writeThing(walk.document.lines, value.line)} ${writeLength(value.at, walk)}`,
  offers: ({ document }) => document.lines.map((line) => quote(line.name)),
});
/** A line by its name. */
export const writeLine = ({ document }: Pick<Walk, 'document'>, id: string): string => writeThing(document.lines, id);
export const lineAt = (
  { document }: Pick<Walk, 'document'>,
  words: readonly Word[],
  from: number,
): Read<string> | undefined => thingAt(document.lines, 'line', words, from);
