import type { Reference, Thing } from './kind';

type Fields = Record<string, unknown>;

/** Ways taken apart, once each: “anchor.line” is anchor, then line. */
const ways = new Map<string, readonly string[]>();
function stepsOf(way: string): readonly string[] {
  let steps = ways.get(way);
  if (!steps) {
    steps = way === '' ? [] : way.split('.');
    ways.set(way, steps);
  }
  return steps;
}

/** The part of a thing at the end of a way such as “anchor.at”; the thing itself where the way is empty. */
export function partAt(thing: Thing, way: string): unknown {
  let part: unknown = thing;
  for (const step of stepsOf(way)) part = (part as Fields | undefined)?.[step];
  return part;
}

/** What holds an id that a thing names, and the way to it, with its number where there are several. */
export interface IdHolder {
  holder: Fields;
  field: string;
  way: string;
}

/** Where a thing names others by a reference, “legs[].line” in each leg; of ids in a list, “vehicles[]”, the list itself holds them. */
export function holdersOf(thing: Thing, { at }: Reference): IdHolder[] {
  const [before, after] = at.split('[]') as [string, string?];
  if (after === undefined) {
    const steps = stepsOf(at);
    const way = steps.slice(0, -1).join('.');
    const holder = partAt(thing, way) as Fields | undefined;
    return holder ? [{ holder, field: steps.at(-1)!, way }] : [];
  }
  const several = (partAt(thing, before) ?? []) as unknown[];
  if (after === '')
    return several.map((_, i) => ({ holder: several as unknown as Fields, field: String(i), way: `${before}[${i}]` }));
  return several.map((one, i) => ({ holder: one as Fields, field: after.slice(1), way: `${before}[${i}]` }));
}

const idIn = ({ holder, field }: IdHolder): string | undefined =>
  (holder[field] as string | null | undefined) ?? undefined;

/** The ids that a thing names by a reference; none where it leaves that out. */
export function idsNamed(thing: Thing, reference: Reference): readonly string[] {
  const { at } = reference;
  if (!at.includes('[]')) {
    const value = partAt(thing, at);
    return value === undefined || value === null ? [] : [value as string];
  }
  return holdersOf(thing, reference).flatMap((one) => idIn(one) ?? []);
}

/** Puts another id wherever a thing names one by a reference. */
export function renameIn(thing: Thing, reference: Reference, rename: (id: string) => string): void {
  for (const one of holdersOf(thing, reference)) {
    const id = idIn(one);
    if (id !== undefined) one.holder[one.field] = rename(id);
  }
}

/** Leaves a field out of a thing. */
export function leaveOut(thing: Thing, way: string): void {
  const steps = stepsOf(way);
  (partAt(thing, steps.slice(0, -1).join('.')) as Fields)[steps.at(-1)!] = undefined;
}
