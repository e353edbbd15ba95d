import { byId, FIELDS, type FieldName, same } from './compare';
import { LIST_NAMES, LISTS, thingsOf } from './lists';
import { renameIn } from './lists/references';
import type { LayoutDocument } from './schema';

/**
 * Their document with the things named in `mine` taken from my own. The result can point nowhere (a gap on a line that the
 * other deleted), so it has to be checked before it is used.
 */
export function mergeDocuments(own: LayoutDocument, theirs: LayoutDocument, mine: ReadonlySet<string>): LayoutDocument {
  const merged = { ...theirs } as Record<string, unknown>;
  for (const field of Object.keys(FIELDS)) if (mine.has(field)) merged[field] = own[field as FieldName];
  for (const list of LIST_NAMES) {
    const ours = byId(own, list);
    const kept = [...byId(theirs, list)].flatMap(([id, thing]) => {
      if (!mine.has(`${list} ${id}`)) return [thing];
      const own = ours.get(id);
      return own ? [own] : [];
    });
    const known = byId(theirs, list);
    const added = [...ours].filter(([id]) => !known.has(id) && mine.has(`${list} ${id}`)).map(([, thing]) => thing);
    merged[list] = [...kept, ...added];
  }
  return merged as unknown as LayoutDocument;
}

/**
 * My document with another id for each thing that both sides added under one id, so that the two are told apart. `base` is
 * the document both started from.
 */
export function separateIds(base: LayoutDocument, own: LayoutDocument, theirs: LayoutDocument): LayoutDocument {
  const used = new Set([base, own, theirs].flatMap((d) => LIST_NAMES.flatMap((list) => [...byId(d, list).keys()])));
  const renamed = new Map<string, string>();
  for (const list of LIST_NAMES) {
    const [before, there] = [byId(base, list), byId(theirs, list)];
    for (const [id, thing] of byId(own, list)) {
      const other = there.get(id);
      if (before.has(id) || !other || same(thing, other)) continue;
      const prefix = id.replace(/\d+$/, '');
      let n = 1;
      while (used.has(`${prefix}${n}`)) n += 1;
      used.add(`${prefix}${n}`);
      renamed.set(id, `${prefix}${n}`);
    }
  }
  if (renamed.size === 0) return own;
  const apart = structuredClone(own);
  apart.referenceLine = renamed.get(apart.referenceLine) ?? apart.referenceLine;
  for (const list of LIST_NAMES) {
    for (const thing of thingsOf(apart, list)) {
      thing.id = renamed.get(thing.id) ?? thing.id;
      for (const reference of LISTS[list].refers) renameIn(thing, reference, (id) => renamed.get(id) ?? id);
    }
  }
  return apart;
}
