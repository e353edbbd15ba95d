import type { Declaration, Expr } from '../logic';
import type { SignalReading } from '../signals';
import type { Pattern } from './pattern';
import { PATTERNS } from './pattern-list';
import { RuleBook } from './rule-book';
import type { NamedRoute, Scheme } from './scheme';
import { type Fills, type GroundId, type PlaceOf, type PutIn, SLOTS, type SlotId } from './slots';

/** What a pattern put into a slot, with the pattern that put it there. */
type Gathered<S extends SlotId> = PutIn<S> & { pattern: string };
/** A condition with the pattern that put it there. */
export type PutTerm = Gathered<'proceed'>;

const filling = new Map<keyof Fills, readonly Pattern[]>();
/** The patterns that fill a slot, in the order in which they are listed: most fill few. */
function fillers(slot: keyof Fills): readonly Pattern[] {
  const known = filling.get(slot) ?? PATTERNS.filter((pattern) => pattern[slot]);
  filling.set(slot, known);
  return known;
}

/** Has patterns write what other terms at a place rest on. */
export function lay<S extends GroundId>(slot: S, scheme: Scheme, place: PlaceOf<S>, into: Declaration[]): void {
  for (const pattern of fillers(slot)) {
    const fill = pattern[slot] as (scheme: Scheme, place: PlaceOf<S>, book: RuleBook) => void;
    fill(scheme, place, new RuleBook(into, pattern.id));
  }
}

/** Everything that patterns put into a slot at a place; the rules that it rests on are written into a list. */
export function gather<S extends SlotId>(
  slot: S,
  scheme: Scheme,
  place: PlaceOf<S>,
  into: Declaration[] = [],
  from: (pattern: Pattern) => boolean = () => true,
): Gathered<S>[] {
  return fillers(slot)
    .filter(from)
    .flatMap((pattern) => {
      const fill = pattern[slot] as (scheme: Scheme, place: PlaceOf<S>, book: RuleBook) => PutIn<S>[];
      return fill(scheme, place, new RuleBook(into, pattern.id)).map((put) => ({ ...put, pattern: pattern.id }));
    });
}

/** What terms of a slot come to together, by its rule of combining. */
export const combine = <S extends SlotId>(slot: S, put: readonly PutIn<S>[]): Expr =>
  (SLOTS[slot].combine as (put: readonly PutIn<S>[]) => Expr)(put);

/** What is asked before a signal is cleared for a route, whatever else could be granted: of a pattern that decides instead of the others, and what is asked always. */
export function asksOf(
  scheme: Scheme,
  route: NamedRoute,
  into: Declaration[] = [],
): { asks: PutTerm[]; alone: boolean } {
  const instead = gather('instead', scheme, route, into);
  const alone = instead.length > 0;
  const decides = PATTERNS.filter(({ id }) => instead.some(({ pattern }) => pattern === id));
  const released = decides.every(({ keepsReleases = false }) => keepsReleases);
  const asks = gather(
    'proceed',
    scheme,
    route,
    into,
    ({ always = false, releases = false }) => !alone || always || (releases && released),
  );
  return { asks: [...asks, ...instead], alone };
}

/** Everything that must be so before a signal is cleared for a route, each with its reason. */
export function needsOf(scheme: Scheme, route: NamedRoute): PutTerm[] {
  const { asks, alone } = asksOf(scheme, route);
  return alone ? asks : [...asks, ...gather('grant', scheme, route)];
}

/** What alone clears a signal for a route, whatever else is asked for. */
export const besidesOf = (scheme: Scheme, route: NamedRoute): PutTerm[] => gather('besides', scheme, route);

/** What makes a signal show more restrictive an aspect than it would. */
export const expectedOf = (scheme: Scheme, reading: SignalReading): Gathered<'expects'>[] =>
  gather('expects', scheme, reading);
