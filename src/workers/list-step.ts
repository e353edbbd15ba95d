/** From one list to the next: runs of things that are the same as before, by their places there, and things that are put between them. */
export type ListStep<T> = ({ keep: readonly [from: number, count: number] } | { put: T[] })[];

/** `before`: by what each thing of the old list is known, in order; `keyOf` says the same of a new one. */
export function listStep<T>(before: readonly unknown[], now: readonly T[], keyOf: (one: T) => unknown): ListStep<T> {
  const places = new Map(before.map((key, place) => [key, place]));
  const step: ListStep<T> = [];
  for (const one of now) {
    const place = places.get(keyOf(one));
    const last = step.at(-1);
    if (place === undefined) {
      if (last && 'put' in last) last.put.push(one);
      else step.push({ put: [one] });
    } else if (last && 'keep' in last && last.keep[0] + last.keep[1] === place)
      step[step.length - 1] = { keep: [last.keep[0], last.keep[1] + 1] };
    else step.push({ keep: [place, 1] });
  }
  return step;
}

/** The next list: what is the same as before is the same object. */
export const takeListStep = <T>(before: readonly T[], step: ListStep<T>): T[] =>
  step.flatMap((part) => ('put' in part ? part.put : before.slice(part.keep[0], part.keep[0] + part.keep[1])));
