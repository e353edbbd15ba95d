import { type LayoutDocument, LIST_NAMES, LISTS, type ListName, thingsOf } from '../survey';
import type { Fresh } from './phrase';

/** Ids and names that are free in a document; each is given once. */
export function freshIn(document: LayoutDocument): Fresh {
  const ids = new Set(LIST_NAMES.flatMap((list) => thingsOf(document, list).map(({ id }) => id)));
  const names = new Set(
    [...document.features, ...document.turnouts, ...document.sensors, ...document.crossings].map((thing) =>
      'name' in thing ? thing.name : '',
    ),
  );
  const next = new Map<string, number>();
  const free = (prefix: string, taken: Set<string>, of: string) => {
    let n = next.get(of) ?? 1;
    while (taken.has(`${prefix}${n}`)) n += 1;
    next.set(of, n + 1);
    taken.add(`${prefix}${n}`);
    return `${prefix}${n}`;
  };
  return {
    id: (list: ListName, prefix = LISTS[list].prefix) => free(prefix, ids, `id ${prefix}`),
    name: (prefix) => free(prefix, names, `name ${prefix}`),
  };
}
