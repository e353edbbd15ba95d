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

/** The ids that a thing names by a reference; none where it leaves that out. */
export function idsNamed(thing: Thing, { at }: Reference): readonly string[] {
  const value = partAt(thing, at.endsWith('[]') ? at.slice(0, -2) : at);
  return value === undefined || value === null ? [] : Array.isArray(value) ? value : [value as string];
}

/** Puts another id wherever a thing names one by a reference. */
export function renameIn(thing: Thing, { at }: Reference, rename: (id: string) => string): void {
  const [way, many] = at.endsWith('[]') ? [at.slice(0, -2), true] : [at, false];
  const steps = stepsOf(way);
  const holder = partAt(thing, steps.slice(0, -1).join('.')) as Fields | undefined;
  const value = holder?.[steps.at(-1)!];
  if (holder === undefined || value === undefined || value === null) return;
  holder[steps.at(-1)!] = many ? (value as string[]).map(rename) : rename(value as string);
}

/** Leaves a field out of a thing. */
export function leaveOut(thing: Thing, way: string): void {
  const steps = stepsOf(way);
  (partAt(thing, steps.slice(0, -1).join('.')) as Fields)[steps.at(-1)!] = undefined;
}
