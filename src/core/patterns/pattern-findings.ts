import type { Finding } from '../findings';
import { type Edit, type LayoutDocument, type Setting, signalsOf } from '../survey';
import { isOption } from './options';
import { CHOOSABLE } from './pattern-list';

/** Ways of working that a thing is said to use and that there are not, or not for such a thing: it works as if it used none. */
export function patternFindings(document: LayoutDocument): Finding<Edit>[] {
  return placesOf(document).flatMap(([at, things]) =>
    things.flatMap((thing) => [...unknownPatterns(at, thing), ...unknownOptions(at, thing)]),
  );
}

interface Worked {
  id: string;
  name: string;
  patterns?: string[];
  settings?: Setting[];
}
type At = (typeof CHOOSABLE)[number]['at'];
const placesOf = (document: LayoutDocument): [At, Worked[]][] => [
  ['signal', signalsOf(document)],
  ['points', [...document.turnouts, ...document.crossings]],
  ['sensor', document.sensors],
];

const unknownPatterns = (at: At, { id, name, patterns = [] }: Worked): Finding<Edit>[] =>
  patterns
    .filter((pattern) => !CHOOSABLE.some((one) => one.id === pattern && one.at === at))
    .map((pattern) => ({
      id: `pattern ${id} ${pattern}`,
      kind: 'way of working that does not exist',
      severity: 'check',
      subject: id,
      says: `${name} is said to work as “${pattern}”. There is nothing of that name for it, so it works without.`,
      figures: [],
      advice: 'It may have been chosen in a newer version of Roblik.',
      fixes: [{ says: 'Leave it out', edit: { do: 'use pattern', id, pattern, on: false } }],
    }));

const unknownOptions = (at: At, { id, name, settings = [] }: Worked): Finding<Edit>[] =>
  settings
    .filter((setting) => !isOption(at, setting))
    .map(({ pattern, option }) => ({
      id: `option ${id} ${pattern} ${option}`,
      kind: 'way of working that does not exist',
      severity: 'check',
      subject: id,
      says: `“${option}” of “${pattern}” is set for ${name}. There is no such thing to set, so it has no effect.`,
      figures: [],
      advice: 'It may have been set in a newer version of Roblik.',
      fixes: [{ says: 'Leave it out', edit: { do: 'set option', id, pattern, option } }],
    }));
