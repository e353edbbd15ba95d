import { isDraft, original } from 'immer';
import type { ListName, Lists } from './lists';
import type { LayoutDocument } from './schema';

/** The document before the edit, for looking things up: a look into a draft costs a copy of what is looked at. */
export const asItWas = (document: LayoutDocument): LayoutDocument =>
  isDraft(document) ? (original(document) as LayoutDocument) : document;

/** A thing of a list by its id, to be changed. */
export function thingOf<L extends ListName>(
  document: LayoutDocument,
  list: L,
  id: string,
): Lists[L][number] | undefined {
  const at = (asItWas(document)[list] as { id: string }[]).findIndex((thing) => thing.id === id);
  return at < 0 ? undefined : document[list][at];
}
