import type { Scheme } from './scheme';

/** Finds something of a scheme once, however often it is asked. */
export function byScheme<Found>(find: (scheme: Scheme) => Found): (scheme: Scheme) => Found {
  const known = new WeakMap<Scheme, Found>();
  return (scheme) => {
    let found = known.get(scheme);
    if (found === undefined) {
      found = find(scheme);
      known.set(scheme, found);
    }
    return found;
  };
}
