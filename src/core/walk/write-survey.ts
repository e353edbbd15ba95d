import type { LayoutDocument } from '../survey';
import { writeLength, writeLine } from './parts';
import type { Phrase } from './phrase';
import { PHRASES } from './phrases';
import type { Values, Walk } from './walk';
import { quote } from './words';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** A thing as a phrase; what it would be without being said is left out. */
function write({ head, parts }: Phrase, values: Values, walk: Walk): string {
  const said = parts.flatMap((part) => {
    const value = values[part.key];
    return value === undefined || same(value, part.otherwise?.(walk)) ? [] : [part.write(value, walk)];
  });
  return [head, ...said].join(' ');
}

/**
 * A survey as text: the lines first, then what stands on each of them in order of distance. `readSurvey` makes the same of it, but for ids.
 * Trains and the name of the layout are no part of it.
 */
export function writeSurvey(document: LayoutDocument): string {
  const first = document.lines.filter(({ id }) => id === document.referenceLine);
  const ordered = [...first, ...document.lines.filter(({ id }) => id !== document.referenceLine)];
  const walk = { document: { ...document, lines: ordered }, line: '' };
  const lines = ordered.map(({ name, length, running, drawing }) =>
    [
      'line',
      quote(name),
      writeLength(length, walk),
      ...(running ? ['one way', running] : []),
      ...(drawing ? ['row', drawing.row] : []),
    ].join(' '),
  );
  const said = PHRASES.flatMap((phrase, order) => phrase.says(document).map((one) => ({ phrase, order, ...one })));
  const parts = ordered.map(({ id }) => {
    const own = said.filter(({ line }) => line === id).sort((a, b) => a.at - b.at || a.order - b.order);
    const on = { ...walk, line: id };
    return own.length === 0
      ? ''
      : ['', `line ${writeLine(walk, id)}`, ...own.map(({ phrase, values }) => write(phrase, values, on))].join('\n');
  });
  return `${[...lines, ...parts.filter(Boolean)].join('\n')}\n`;
}
