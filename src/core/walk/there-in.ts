import { type LayoutDocument, type ListName, thingsOf } from '../survey';
import type { Addition } from './walk';

/** What a thing is called by, and what becomes of it, makes it no other. */
const ASIDE = new Set(['id', 'certainty', 'fixedOn']);

/** Tells of things whether a list of the document has one like them. */
export function thereIn(document: LayoutDocument): (addition: Addition) => boolean {
  const said = new Map<ListName, Set<string>>();
  return ({ list, thing }) => {
    let own = said.get(list);
    if (!own) {
      own = new Set((thingsOf(document, list) as object[]).map(sayAll));
      said.set(list, own);
    }
    return own.has(sayAll(thing));
  };
}

/** All that is said of a thing as text; a length by its measure, however it was typed. */
const sayAll = (thing: object): string =>
  JSON.stringify(thing, (_, value: unknown) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    if ('tenthUm' in value) return value.tenthUm;
    const fields = Object.entries(value).filter(([field, part]) => !ASIDE.has(field) && part !== undefined);
    return Object.fromEntries(fields.sort(([a], [b]) => (a < b ? -1 : 1)));
  });
