import { cm, type ScaleId, type TenthUm, type TypedLength } from '../measure';
import { DIRECTIONS } from './migrate-document';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION, type LayoutDocument } from './schema';

/** A layout with a name and nothing on it: the bare ruler. */
export function newDocument(name: string, scale: ScaleId = 'H0', shownUnit: 'cm' | 'inch' = 'cm'): LayoutDocument {
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
    lines: [],
    joins: [],
    turnouts: [],
    crossings: [],
    features: [],
    blocks: [],
    detectors: [],
    areas: [],
    vehicles: [],
    trains: [],
  };
}

/** The next free id with a prefix: g1, g2 … Ids are never reused while their bearer exists. */
export function freshId(document: LayoutDocument, prefix: string): string {
  const used = new Set<string>();
  for (const list of [
    document.lines,
    document.joins,
    document.turnouts,
    document.crossings,
    document.features,
    document.blocks,
    document.detectors,
    document.areas,
    document.vehicles,
    document.trains,
  ]) {
    for (const thing of list) if (thing.id.startsWith(prefix)) used.add(thing.id);
  }
  for (let n = 1; ; n++) if (!used.has(`${prefix}${n}`)) return `${prefix}${n}`;
}

/** A length in tenths of a micrometre with a typed form in centimetres, for values that were computed rather than typed. */
export function asTyped(tenthUm: TenthUm): TypedLength {
  return { ...cm(tenthUm / 100_000), tenthUm };
}
