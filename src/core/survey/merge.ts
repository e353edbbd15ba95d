import { byId, FIELDS, type FieldName, LISTS, type ListName, same } from './compare';
import type { LayoutDocument } from './schema';

const LIST_NAMES = Object.keys(LISTS) as ListName[];

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

/** Fields that hold the id of another thing. */
const POINTERS = new Set(['id', 'line', 'throwsWith', 'referenceLine', 'vehicles']);

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
  const walk = (value: unknown, pointer: boolean): unknown => {
    if (typeof value === 'string') return pointer ? (renamed.get(value) ?? value) : value;
    if (Array.isArray(value)) return value.map((part) => walk(part, pointer));
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, walk(part, POINTERS.has(key))]));
  };
  return walk(own, false) as LayoutDocument;
}
