import { type ShownUnit, showLength, type TenthUm } from '../measure';
import { kindWords, LISTS, type ListName, type Thing } from './lists';
import { idsNamed, partAt } from './lists/references';
import type { LayoutDocument } from './schema';

const isLength = (value: unknown): value is { tenthUm: TenthUm } =>
  typeof value === 'object' && value !== null && 'tenthUm' in value;

/** A thing by its name, or by where it is: “Signal S1”, “Gap at 96 cm”. */
export function callThing(list: ListName, thing: Thing, unit: ShownUnit): string {
  const what = kindWords(list, thing);
  if (typeof thing.name === 'string') return `${what} ${thing.name}`;
  return isLength(thing.at) ? `${what} at ${showLength(thing.at.tenthUm, unit)}` : `${what} ${thing.id}`;
}

/** The same with its line, so that it can be told from others: “Signal S1, 96 cm on Main”. */
export function placeThing(document: LayoutDocument, list: ListName, thing: Thing): string {
  const call = callThing(list, thing, document.shownUnit);
  const along = LISTS[list].refers.find(({ to, distances }) => to === 'lines' && distances);
  const [on] = along ? idsNamed(thing, along) : [];
  const at = along?.distances && partAt(thing, along.distances[0]!);
  if (!on || !isLength(at)) return call;
  const line = document.lines.find(({ id }) => id === on)?.name;
  return typeof thing.name === 'string'
    ? `${call}, ${showLength(at.tenthUm, document.shownUnit)} on ${line}`
    : `${call} on ${line}`;
}
