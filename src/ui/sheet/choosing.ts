import { kindWords, type LayoutDocument, LIST_NAMES, spanOf, thingsOf } from '@/core/survey';

/** It can be chosen together with others: it stands somewhere on the track, and is tentative or fixed there. */
export const isPlaced = (document: LayoutDocument, id: string): boolean =>
  LIST_NAMES.some((list) => thingsOf(document, list).some((thing) => thing.id === id && thing.certainty !== undefined));

/** All things of the same kind on the same line, in order along it. */
export function alikeOnLine(document: LayoutDocument, id: string): string[] {
  const line = spanOf(document, id)?.line;
  for (const list of LIST_NAMES) {
    const things = thingsOf(document, list);
    const one = things.find((thing) => thing.id === id);
    if (!one || line === undefined) continue;
    const kind = kindWords(list, one);
    return things
      .filter((thing) => kindWords(list, thing) === kind)
      .map((thing) => ({ id: thing.id, span: spanOf(document, thing.id) }))
      .filter(({ span }) => span?.line === line)
      .sort((a, b) => a.span!.from - b.span!.from)
      .map((other) => other.id);
  }
  return [];
}
