import { LIST_NAMES, thingsOf } from './lists';
import type { LayoutDocument } from './schema';

/** Around an id that stands where a name will: two signs that nobody types, and that are not seen where they are left. */
const [OPENS, CLOSES] = ['\u2068', '\u2069'];
const STANDS_FOR = new RegExp(`${OPENS}([^${CLOSES}]*)${CLOSES}`, 'g');

/**
 * The same layout with the id of each thing in the place of its name. What is said of it can be kept, and told later with the names that things
 * then have (`withNames`).
 */
export function idsForNames(document: LayoutDocument): LayoutDocument {
  const lists = LIST_NAMES.map((list) => [
    list,
    /** What rules of one’s own and aspect systems are called is what they are known by. */
    thingsOf(document, list).map((thing) =>
      typeof thing.name === 'string' && list !== 'rules' && list !== 'aspectSystems'
        ? { ...thing, name: `${OPENS}${thing.id}${CLOSES}` }
        : thing,
    ),
  ]);
  return { ...document, ...Object.fromEntries(lists) };
}

/** What things of a layout are called, by their ids. */
export const namesById = (document: LayoutDocument): ReadonlyMap<string, string> =>
  new Map(
    LIST_NAMES.flatMap((list) =>
      thingsOf(document, list).flatMap(({ id, name }): [string, string][] =>
        typeof name === 'string' ? [[id, name]] : [],
      ),
    ),
  );

/** A text with the names that things have now; one that is gone is called by its id. */
export const withNames = (text: string, names: ReadonlyMap<string, string>): string =>
  text.replace(STANDS_FOR, (_, id: string) => names.get(id) ?? id);
