import type { Edit } from './edit';
import { LIST_NAMES, thingsOf } from './lists';
import { placeThing } from './say-thing';
import type { LayoutDocument } from './schema';

/** Something that an edit would move though it has been cut, drilled or laid. */
export interface FixedThing {
  id: string;
  /** With its line: “Gap at 96 cm on Main”. */
  says: string;
  /** Since when, as year-month-day, where that was kept. */
  since?: string;
}

/** The day since which a thing is fixed, where that was kept. */
export const fixedSince = (document: LayoutDocument, id: string): string | undefined =>
  LIST_NAMES.flatMap((list) => thingsOf(document, list)).find((thing) => thing.id === id)?.fixedOn as
    | string
    | undefined;

/** What an edit would move of what is fixed; nothing for an edit that moves nothing. */
export function fixedThatMoves(document: LayoutDocument, edit: Edit): FixedThing[] {
  const ids = edit.do === 'move' ? [edit.id] : edit.do === 'move all' ? edit.ids : [];
  if (ids.length === 0) return [];
  return LIST_NAMES.flatMap((list) =>
    thingsOf(document, list)
      .filter(({ id, certainty }) => certainty === 'fixed' && ids.includes(id))
      .map((thing) => ({
        id: thing.id,
        says: placeThing(document, list, thing),
        since: thing.fixedOn as string | undefined,
      })),
  );
}
