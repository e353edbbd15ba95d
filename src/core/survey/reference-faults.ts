import { showLength, type TenthUm } from '../measure';
import { LIST_NAMES, LISTS, type ListName, type Reference, type Thing, thingsOf } from './lists';
import type { Surroundings, Tell } from './lists/kind';
import type { Line } from './lists/lines';
import { holdersOf, idsNamed, partAt } from './lists/references';
import type { LayoutDocument } from './schema';

/** One thing wrong in a file: where, what, and what to do. */
export interface Fault {
  /** A path such as features[3].at, or “the file”. */
  place: string;
  problem: string;
  remedy: string;
}

/**
 * Things whose references were found to lead somewhere, and the lists that they led into: while both are what they were, nothing
 * of that can have changed, and an edit need not look again at all that it left alone. Only of documents that edits have made, which
 * are frozen.
 */
const settled = new WeakMap<Thing, readonly (readonly Thing[])[]>();

/** Ids that are used twice or point nowhere, distances past an end, ends used twice, and what each list says of its things. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one pass over all things; what each says shares what is claimed and known.
export function referenceFaults(document: LayoutDocument): Fault[] {
  const faults: Fault[] = [];
  const say = (place: string, problem: string, remedy: string) => faults.push({ place, problem, remedy });
  const lines = new Map(document.lines.map((line) => [line.id, line]));
  const known = Object.fromEntries(
    LIST_NAMES.map((list) => [list, new Set(thingsOf(document, list).map(({ id }) => id))]),
  ) as Record<ListName, Set<string>>;
  const claimed = new Map<string, string>();
  const claim = (key: string, place: string) => {
    const first = claimed.get(key);
    if (!first) claimed.set(key, place);
    return first;
  };

  if (document.lines.length > 0 && !lines.has(document.referenceLine)) {
    say(
      'referenceLine',
      `There is no line “${document.referenceLine}”.`,
      'Name the line whose distances the ruler shows.',
    );
  }
  const firstWith = new Map<string, { list: ListName; i: number }>();
  for (const list of LIST_NAMES)
    thingsOf(document, list).forEach(({ id }, i) => {
      const first = firstWith.get(id);
      if (!first) firstWith.set(id, { list, i });
      else {
        const problem = `The id “${id}” is used twice, first at ${first.list}[${first.i}].id.`;
        say(`${list}[${i}].id`, problem, 'Give one of them another id.');
      }
    });

  /** Where the thing stands that is looked at, and a part of it. */
  let place = '';
  const under = (way: string) => (way === '' ? place : `${place}.${way}`);
  const tell: Tell = (way, problem, remedy) => say(under(way), problem, remedy);
  const takeEnd = (way: string, { line, end }: { line: string; end: string }) => {
    const first = claim(`end ${line} ${end}`, under(way));
    if (first)
      tell(way, `The ${end} of line “${line}” is already used at ${first}.`, 'An end can go to one place only.');
  };
  const around: Surroundings = {
    document,
    lengthOf: (line) => lines.get(line)?.length.tenthUm,
    lineName: (line) => lines.get(line)?.name ?? line,
    claim: (key) => claim(key, place),
    takeEnd,
  };

  const distanceOn = (line: Line, way: string, at: TenthUm | undefined) => {
    if (at === undefined || at <= line.length.tenthUm) return;
    const length = showLength(line.length.tenthUm, document.shownUnit);
    tell(
      way,
      `${showLength(at, document.shownUnit)} is past the end of line “${line.name}”, which is ${length} long.`,
      `Move it to ${length} or less, or correct the length of the line.`,
    );
  };
  const nowhere = ({ at, to, whenGone }: Reference, id: string, k: number) => {
    const what = LISTS[to].title.toLowerCase();
    const leave = typeof whenGone === 'object' && 'without' in whenGone;
    tell(
      at.replace('[]', `[${k}]`),
      `There is no ${what} “${id}”.`,
      `Name a ${what} that exists, or ${leave ? 'leave it out' : `add that ${what}`}.`,
    );
  };
  const follow = (thing: Thing, reference: Reference) => {
    const ids = idsNamed(thing, reference);
    for (let k = 0; k < ids.length; k++)
      if (!known[reference.to].has(ids[k]!) && !reference.besides?.includes(ids[k]!)) nowhere(reference, ids[k]!, k);
    const line = reference.distances && ids[0] !== undefined && lines.get(ids[0]);
    if (line)
      for (const way of reference.distances!)
        distanceOn(line, way, (partAt(thing, way) as { tenthUm: TenthUm } | undefined)?.tenthUm);
    if (!reference.takesEnd || ids.length === 0) return;
    for (const { holder, way } of holdersOf(thing, reference)) takeEnd(way, holder as { line: string; end: string });
  };

  for (const list of LIST_NAMES) {
    const { refers, faults: own } = LISTS[list];
    const into = [document.lines, ...refers.map(({ to }) => thingsOf(document, to))];
    thingsOf(document, list).forEach((thing, i) => {
      place = `${list}[${i}]`;
      const found = faults.length;
      const led = settled.get(thing);
      const holds = led !== undefined && into.every((things, k) => things === led[k]);
      for (const reference of refers) if (!holds || reference.takesEnd) follow(thing, reference);
      if (!holds && faults.length === found && Object.isFrozen(document)) settled.set(thing, into);
      own?.(thing, tell, around);
    });
  }
  return faults;
}
