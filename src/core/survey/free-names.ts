import { asItWas } from './draft';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';

/** A name as typed; refused when it is longer than a name of its kind may be, never cut. */
export function named(typed: string, most: number, missing: string): string {
  const name = typed.trim();
  if (!name) refuse(missing);
  if (name.length > most)
    refuse(`“${name.slice(0, 12)}…” has ${name.length} characters; at most ${most} are possible here.`);
  return name;
}

/** A name that no signal, sensor or points bear yet; refused when one does. */
export function freeName(document: LayoutDocument, name: string): string {
  const { turnouts, features, sensors } = asItWas(document);
  const taken = [...turnouts, ...features, ...sensors].some((thing) => 'name' in thing && thing.name === name);
  return taken ? refuse(`The name ${name} is taken. Choose another.`) : name;
}

/** The next free name with a prefix: S1, S2 … */
export function nextName(document: LayoutDocument, prefix: string, ...besides: string[]): string {
  const { turnouts, features, sensors } = asItWas(document);
  const names = new Set([...features, ...turnouts, ...sensors].map((thing) => ('name' in thing ? thing.name : '')));
  for (const name of besides) names.add(name);
  for (let n = 1; ; n++) if (!names.has(`${prefix}${n}`)) return `${prefix}${n}`;
}
