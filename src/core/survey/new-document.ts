import { type ScaleId, type ShownUnit, showLength, type TenthUm, type TypedLength } from '../measure';
import { LIST_NAMES, type Lists, thingsOf } from './lists';
import { DIRECTIONS, DOCUMENT_VERSION } from './migrate-document';
import { DOCUMENT_FORMAT, type LayoutDocument } from './schema';

/** A layout with a name and nothing on it: the bare ruler. */
export function newDocument(name: string, scale: ScaleId = 'H0', shownUnit: ShownUnit = 'cm'): LayoutDocument {
  return {
    format: DOCUMENT_FORMAT,
    version: DOCUMENT_VERSION,
    name,
    notes: '',
    scale,
    shownUnit,
    power: 'two-rail digital',
    directions: { ...DIRECTIONS },
    signalSide: 'right',
    turnoutsIn: 'blocks',
    referenceLine: '',
    ...(Object.fromEntries(LIST_NAMES.map((list) => [list, []])) as unknown as Lists),
  };
}

/** The next free id with a prefix: g1, g2 … Ids are never reused while their bearer exists. */
export function freshId(document: LayoutDocument, prefix: string, besides: readonly string[] = []): string {
  const used = new Set(besides);
  for (const list of LIST_NAMES)
    for (const thing of thingsOf(document, list)) if (thing.id.startsWith(prefix)) used.add(thing.id);
  for (let n = 1; ; n++) if (!used.has(`${prefix}${n}`)) return `${prefix}${n}`;
}

/** Nothing on the layout has that id, and anything may have it. */
export const isFreeId = (document: LayoutDocument, id: string): boolean =>
  /^[A-Za-z][A-Za-z0-9_-]{0,39}$/.test(id) &&
  LIST_NAMES.every((list) => thingsOf(document, list).every((thing) => thing.id !== id));

/** A length that was computed rather than typed, with what it would have been typed as in a unit. */
export const asTyped = (tenthUm: TenthUm, unit: ShownUnit): TypedLength => ({
  tenthUm,
  typed: showLength(tenthUm, unit),
});
