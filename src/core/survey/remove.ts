import { asItWas } from './draft';
import { kindWords, LIST_NAMES, LISTS, type ListName, type Thing, thingsOf } from './lists';
import { idsNamed, leaveOut } from './lists/references';
import { refuse } from './refused';
import { callThing } from './say-thing';
import type { LayoutDocument } from './schema';

/** Takes things out of a draft with all that cannot be without them; says in words what was done, or refuses. */
export function remove(document: LayoutDocument, ids: readonly string[]): string {
  const before = asItWas(document);
  const chosen = LIST_NAMES.flatMap((list) =>
    thingsOf(before, list)
      .filter(({ id }) => ids.includes(id))
      .map((thing) => ({ list, thing })),
  );
  const [first] = chosen;
  if (!first || chosen.length < ids.length)
    return refuse(chosen.length === 0 ? 'It is no longer there.' : 'Not all of them are there any more.');
  const { list, thing } = first;
  const says =
    chosen.length > 1
      ? `Delete ${chosen.length} things`
      : `Delete ${callIt(thing) ?? kindWords(list, thing).toLowerCase()}${LISTS[list].andAll ?? ''}`;
  const gone = goingWith(before, ids);
  const kept = keepers(before, gone);
  if (kept) refuse(kept);
  for (const name of LIST_NAMES) {
    const things = thingsOf(before, name);
    if (things.some((one) => gone.has(one.id)))
      Object.assign(document, { [name]: things.filter((one) => !gone.has(one.id)) });
  }
  /** Lists that were filtered hold the things as they were, frozen: each that does without is put there anew. */
  const anew = new Map<string, Thing>();
  for (const { list: of, id: one, without } of doingWithout(before, gone)) {
    const thing = anew.get(one) ?? structuredClone(thingsOf(before, of).find((other) => other.id === one)!);
    leaveOut(thing, without);
    anew.set(one, thing);
    const things = thingsOf(document, of);
    things[things.findIndex((other) => other.id === one)] = thing;
  }
  if (gone.has(document.referenceLine)) document.referenceLine = document.lines[0]?.id ?? '';
  return says;
}

/** What would come of deleting things: all that goes, in words, themselves first; or why they cannot go. */
export function deletionOf(document: LayoutDocument, ...ids: string[]): { goes: string[]; kept?: string } {
  const gone = goingWith(document, ids);
  const kept = keepers(document, gone);
  const things = LIST_NAMES.flatMap((list) =>
    thingsOf(document, list)
      .filter((thing) => gone.has(thing.id))
      .map((thing) => ({
        own: ids.includes(thing.id),
        says: list === 'joins' ? undefined : callThing(list, thing, document.shownUnit),
      })),
  );
  const goes = things.sort((a, b) => Number(b.own) - Number(a.own)).flatMap(({ says }) => says ?? []);
  return kept === undefined ? { goes } : { goes, kept };
}

const callIt = ({ name }: Thing): string | undefined => (typeof name === 'string' ? name : undefined);

const staying = (document: LayoutDocument, list: ListName, gone: ReadonlySet<string>): Thing[] =>
  thingsOf(document, list).filter(({ id }) => !gone.has(id));

/** All that goes when things go, by id. */
function goingWith(document: LayoutDocument, ids: readonly string[]): Set<string> {
  const gone = new Set(ids);
  for (let before = 0; before !== gone.size; ) {
    before = gone.size;
    for (const list of LIST_NAMES) {
      const { refers, takesAlong, goesWith } = LISTS[list];
      const holding = refers.filter(({ whenGone }) => whenGone === 'goes too');
      for (const thing of thingsOf(document, list)) {
        if (ids.includes(thing.id)) for (const other of takesAlong?.(thing, document) ?? []) gone.add(other);
        const named = holding.some((reference) => idsNamed(thing, reference).some((one) => gone.has(one)));
        if (named || goesWith?.(thing, gone)) gone.add(thing.id);
      }
    }
  }
  return gone;
}

/** What stays and keeps something of what would go from going, in a sentence. */
function keepers(document: LayoutDocument, gone: ReadonlySet<string>): string | undefined {
  const found: { kept: string; keeps: string; by: string }[] = [];
  for (const list of LIST_NAMES)
    for (const thing of staying(document, list, gone))
      for (const reference of LISTS[list].refers) {
        const { whenGone } = reference;
        if (typeof whenGone === 'string' || !('keeps' in whenGone)) continue;
        for (const id of idsNamed(thing, reference))
          if (gone.has(id)) found.push({ kept: id, keeps: whenGone.keeps, by: callIt(thing) ?? thing.id });
      }
  const [first] = found;
  if (!first) return undefined;
  const kept = LIST_NAMES.flatMap((list) => thingsOf(document, list)).find(({ id }) => id === first.kept)!;
  const by = [...new Set(found.filter((one) => one.kept === first.kept).map((one) => one.by))];
  return `${callIt(kept)} ${first.keeps}: ${by.join(', ')}. Delete ${by.length === 1 ? 'that' : 'those'} first.`;
}

/** Things that stay and do without a field that named what goes. */
const doingWithout = (
  document: LayoutDocument,
  gone: ReadonlySet<string>,
): { list: ListName; id: string; without: string }[] =>
  LIST_NAMES.flatMap((list) =>
    staying(document, list, gone).flatMap((thing) =>
      LISTS[list].refers.flatMap((reference) => {
        const { whenGone } = reference;
        if (typeof whenGone === 'string' || !('without' in whenGone)) return [];
        return idsNamed(thing, reference).some((named) => gone.has(named))
          ? [{ list, id: thing.id, without: whenGone.without }]
          : [];
      }),
    ),
  );
