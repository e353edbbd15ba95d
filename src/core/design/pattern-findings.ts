import type { Finding } from '../findings';
import { CHOOSABLE } from '../patterns';
import { type Edit, type LayoutDocument, signalsOf } from '../survey';

/** Ways of working that a thing is said to use and that there are not, or not for such a thing: it works as if it used none. */
export function patternFindings(document: LayoutDocument): Finding<Edit>[] {
  const places: [string, { id: string; name: string; patterns?: string[] }[]][] = [
    ['signal', signalsOf(document)],
    ['points', [...document.turnouts, ...document.crossings]],
    ['sensor', document.sensors],
  ];
  return places.flatMap(([at, things]) =>
    things.flatMap(({ id, name, patterns = [] }) =>
      patterns
        .filter((pattern) => !CHOOSABLE.some((one) => one.id === pattern && one.at === at))
        .map(
          (pattern): Finding<Edit> => ({
            id: `pattern ${id} ${pattern}`,
            kind: 'way of working that does not exist',
            severity: 'check',
            subject: id,
            says: `${name} is said to work as “${pattern}”. There is nothing of that name for it, so it works without.`,
            figures: [],
            advice: 'It may have been chosen in a newer version of Roblik.',
            fixes: [{ says: 'Leave it out', edit: { do: 'use pattern', id, pattern, on: false } }],
          }),
        ),
    ),
  );
}
