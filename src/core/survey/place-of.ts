import type { TenthUm } from '../measure';
import { LIST_NAMES, LISTS, type Thing, thingsOf } from './lists';
import { idsNamed, partAt } from './lists/references';
import type { LayoutDocument } from './schema';

/** Where a thing of the document lies; a thing at one place takes up no length. */
export interface Span {
  line: string;
  from: TenthUm;
  to: TenthUm;
}

/** The stretch of its line that a thing takes up, by id; undefined where it lies nowhere, or is gone. */
export function spanOf(document: LayoutDocument, id: string): Span | undefined {
  for (const list of LIST_NAMES) {
    const thing: Thing | undefined = thingsOf(document, list).find((one) => one.id === id);
    if (!thing) continue;
    const along = LISTS[list].refers.find(({ to, distances }) => to === 'lines' && distances);
    const [line] = along ? idsNamed(thing, along) : [];
    const [at, to] = (along?.distances ?? []).map((way) => partAt(thing, way) as { tenthUm: TenthUm } | undefined);
    return line && at ? { line, from: at.tenthUm, to: (to ?? at).tenthUm } : undefined;
  }
  return undefined;
}
