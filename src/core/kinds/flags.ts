/**
 * What rules work out on the way that others ask for by what it means: screens, the proof, what a rehearsal tells. Each says what it
 * belongs to, by number.
 */
export const FLAGS = {
  occupied: { of: 'block' },
  /** A block that is inferred to be occupied: no detector watches all of it. */
  inferred: { of: 'block' },
  locked: { of: 'motor' },
  /** Points that nothing tells of were sent to a position, long enough ago to lie there; by the position. */
  sent: { of: 'motor' },
  proceed: { of: 'signal' },
  /** What a driver reads off a signal whose lamps may be dark. */
  read: { of: 'signal' },
  /** Cleared from a post for one train. */
  given: { of: 'signal' },
  /** Somebody has set a route, by its id, and no train has come into it since. */
  'route set': { of: 'signal' },
  /** A train is cleared to leave a road beyond points: a pulse by hand is refused. */
  leaving: { of: 'motor' },
  /** Of two roads beyond points, that it is the turn of the diverging one. */
  turn: { of: 'motor' },
  /** A train in a road beyond points was let go; by the road. */
  departure: { of: 'motor' },
  /** A train before a signal was released; by the pattern. */
  released: { of: 'signal' },
  /** A train that was cleared for a route has not arrived yet; by the route. */
  'under way': { of: 'signal' },
  /** What the rules want of an output that something failing may change on its way out; by the kind of that. */
  wanted: { of: 'any' },
} as const;
export type FlagId = keyof typeof FLAGS;
