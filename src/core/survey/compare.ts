import { type ShownUnit, showLength, type TenthUm } from '../measure';
import { LIST_NAMES, type ListName, type Thing, thingsOf } from './lists';
import { callThing } from './say-thing';
import type { LayoutDocument } from './schema';

/** The fields of a document beside its lists, in words. */
export const FIELDS = {
  name: 'Name of the layout',
  notes: 'Notes',
  scale: 'Scale',
  shownUnit: 'Unit of length',
  power: 'Track power',
  modules: 'Modules of the sensors',
  dropouts: 'What is expected of drop-outs',
  electrics: 'Voltage, resistor axles and leakage',
  prices: 'Prices and budget',
  money: 'Money of the prices',
  people: 'People who run it',
  ownReturns: 'Returns of the boosters',
  directions: 'Names of the directions',
  signalSide: 'Side on which signals stand',
  turnoutsIn: 'Turnouts belong to',
  referenceLine: 'Line of the ruler',
} as const;
export type FieldName = keyof typeof FIELDS;

/** A place that a difference can be shown at. */
export interface DifferencePlace {
  line: string;
  from: TenthUm;
  to: TenthUm;
}

/** One thing, or one field of the layout, that is not the same in two documents. */
export interface Difference {
  /** The same thing has the same key in every comparison. */
  key: string;
  change: 'added' | 'removed' | 'changed';
  /** In words: “Gap at 96 cm moved to 97 cm”. */
  says: string;
  before?: DifferencePlace;
  after?: DifferencePlace;
}

/** What changed from one document to another, thing by thing. The order of things in their lists does not count. */
export function compareDocuments(before: LayoutDocument, after: LayoutDocument): Difference[] {
  const found: Difference[] = [];
  for (const field of Object.keys(FIELDS) as FieldName[]) {
    if (same(before[field], after[field])) continue;
    const short = typeof after[field] === 'string' && field !== 'notes' && field !== 'referenceLine';
    const says = short ? `${FIELDS[field]}: ${before[field]} became ${after[field]}` : `${FIELDS[field]} changed`;
    found.push({ key: field, change: 'changed', says });
  }
  for (const list of LIST_NAMES) {
    const old = byId(before, list);
    const now = byId(after, list);
    for (const id of new Set([...old.keys(), ...now.keys()])) {
      const [was, is] = [old.get(id), now.get(id)];
      if (was && is && same(was, is)) continue;
      found.push({
        key: `${list} ${id}`,
        change: !was ? 'added' : !is ? 'removed' : 'changed',
        says: sayDifference(list, was, is, after.shownUnit),
        before: was && placeOf(list, was, before),
        after: is && placeOf(list, is, after),
      });
    }
  }
  return found;
}

export function byId(document: LayoutDocument, list: ListName): Map<string, Thing> {
  return new Map(thingsOf(document, list).map((thing) => [thing.id, thing]));
}

/** Deep equality of plain data, whatever the order of fields; a field left out is the same as undefined. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [p, q] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [...new Set([...Object.keys(p), ...Object.keys(q)])].every((key) => same(p[key], q[key]));
}

const isLength = (value: unknown): value is { tenthUm: TenthUm } =>
  typeof value === 'object' && value !== null && 'tenthUm' in value;

function sayDifference(list: ListName, was: Thing | undefined, is: Thing | undefined, unit: ShownUnit): string {
  if (!was) return `${callThing(list, is!, unit)} added`;
  const what = callThing(list, was, unit);
  if (!is) return `${what} removed`;
  const parts = [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((field) => !same(was[field], is[field]))
    .map((field) => {
      const [a, b] = [was[field], is[field]];
      if (field === 'at' && isLength(b)) return `moved to ${showLength(b.tenthUm, unit)}`;
      if (field === 'name') return `renamed to ${b}`;
      const label = field.replace(/(Kmh|Ms|MmPerS2?)$/, '').replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
      if (isLength(a) && isLength(b))
        return `${label} ${showLength(a.tenthUm, unit)} became ${showLength(b.tenthUm, unit)}`;
      const plain = (value: unknown) => ['string', 'number', 'boolean'].includes(typeof value);
      return plain(a) && plain(b) ? `${label} ${a} became ${b}` : `${label} changed`;
    });
  return `${what} ${parts.join(', ')}`;
}

function placeOf(list: ListName, thing: Thing, document: LayoutDocument): DifferencePlace | undefined {
  if (list === 'lines') return { line: thing.id, from: 0, to: (thing.length as { tenthUm: TenthUm }).tenthUm };
  const spot = (thing.anchor ?? thing.start ?? thing.a ?? thing) as { line?: string; at?: unknown; from?: unknown };
  const at = spot.at ?? spot.from;
  if (typeof spot.line !== 'string' || !isLength(at)) return undefined;
  if (!document.lines.some((line) => line.id === spot.line)) return undefined;
  const to = isLength(thing.to) ? thing.to.tenthUm : at.tenthUm;
  return { line: spot.line, from: at.tenthUm, to };
}
