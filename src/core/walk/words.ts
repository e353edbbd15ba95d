/** A word of a phrase; one in quotes may hold anything. */
export interface Word {
  text: string;
  quoted: boolean;
  /** Where it begins in the phrase, and where it ends. */
  from: number;
  to: number;
}

const QUOTED = /"((?:[^"\\]|\\.)*)"?/y;
const PLAIN = /\S+/y;

/** Splits a phrase at blanks. A quotation mark begins a name only at the beginning of a word: elsewhere it says inches. */
export function wordsOf(phrase: string): Word[] {
  const words: Word[] = [];
  for (let from = 0; from < phrase.length; ) {
    if (/\s/.test(phrase[from]!)) {
      from += 1;
      continue;
    }
    const quoted = phrase[from] === '"';
    const pattern = quoted ? QUOTED : PLAIN;
    pattern.lastIndex = from;
    const [whole, inner] = pattern.exec(phrase)!;
    const to = from + whole.length;
    words.push({ text: quoted ? inner!.replace(/\\(.)/g, '$1') : whole, quoted, from, to });
    from = to;
  }
  return words;
}

/** A name as a word, in quotes. */
export const quote = (name: string): string => `"${name.replace(/["\\]/g, '\\$&')}"`;

/** How many letters have to be put in, left out, changed or swapped with the next to make one word of the other (optimal string alignment). */
export function distanceBetween(one: string, other: string): number {
  let before: number[] = [];
  let row = Array.from({ length: other.length + 1 }, (_, i) => i);
  for (let i = 1; i <= one.length; i++) {
    const next = [i];
    for (let k = 1; k <= other.length; k++) {
      const changed = row[k - 1]! + (one[i - 1] === other[k - 1] ? 0 : 1);
      const swapped = i > 1 && k > 1 && one[i - 1] === other[k - 2] && one[i - 2] === other[k - 1];
      next.push(Math.min(next[k - 1]! + 1, row[k]! + 1, changed, swapped ? before[k - 2]! + 1 : changed));
    }
    before = row;
    row = next;
  }
  return row[other.length]!;
}

/** The word that was most likely meant; none where nothing is near. */
export function nearest(word: string, known: readonly string[]): string | undefined {
  const typed = word.toLowerCase();
  const begins = known.find((one) => typed.length > 1 && one.startsWith(typed));
  if (begins) return begins;
  const [best] = known.map((one) => ({ one, off: distanceBetween(typed, one) })).sort((a, b) => a.off - b.off);
  return best && best.off <= Math.max(1, Math.floor(best.one.length / 3)) ? best.one : undefined;
}
