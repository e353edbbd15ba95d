import type { Program } from './expr';
import { type Present, presentValue } from './present-value';

/**
 * What names are whatever inputs say and memories hold; undefined for one that can be this or that. It follows rules into the rules that they read, and takes every input, memory
 * and PREVIOUS for unknown, so that what it says is so in every scan.
 */
export function alwaysOf({ declarations, enums }: Program): (name: string) => number | undefined {
  const byName = new Map(declarations.map((one) => [one.name, one]));
  const known = new Map<string, number | undefined>();
  const present: Present = {
    enums,
    typeOf: (name) => byName.get(name)?.type,
    read: (name, before) => (before ? undefined : find(name)),
  };
  const find = (name: string): number | undefined => {
    if (known.has(name)) return known.get(name);
    /** A circle is no rule that runs; what is in it is not known. */
    known.set(name, undefined);
    const declaration = byName.get(name);
    const value = declaration?.expr && presentValue(declaration.expr, present, declaration.type);
    known.set(name, value);
    return value;
  };
  return find;
}
