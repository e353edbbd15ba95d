import type { Advance, Placement, Turn } from './placement';
import { fartherOn } from './unnoticed';

/**
 * Where no current flows while a train stands: adds to each placement in which something of it is noticed by what needs current the same one at rest, in
 * which that is not noticed, with the way there and back. A train may come to rest anywhere, and it stands at rest where it begins.
 */
export function withRest(
  placements: Placement[],
  needsCurrent: (field: number) => boolean,
  fedBy: (placement: Placement) => Advance['fedBy'],
): Placement[] {
  const all = placements.map((p) => ({ ...p, advances: [...p.advances] }));
  placements.forEach((p, number) => {
    const detected = p.detected.filter((field) => !needsCurrent(field));
    if (detected.length === p.detected.length) return;
    all[number]!.advances.push({ ...step(p), to: all.length, rests: 'begins' });
    all.push({ ...p, detected, advances: [{ ...step(p), to: number, rests: 'ends', fedBy: fedBy(p) }] });
  });
  const resting = all[0]!.advances.find(({ rests }) => rests === 'begins')?.to;
  return resting === undefined ? all : exchanged(all, 0, resting);
}

/**
 * Adds the placement in which a train stands from the beginning without current, at no more than its place, and which it leaves only once it has some; and
 * those in which it stands there turned round. `asItStands`: what it stands on, and how it came in.
 */
export function withStandingStart(
  placements: Placement[],
  place: Placement,
  asItStands: Pick<Turn, 'standsOn' | 'cameIn'>,
  fedBy: readonly number[],
): Placement[] {
  const [standingAt, turnedAt] = [placements.length, placements.length + 1];
  const starts = (to: number): Advance => ({ ...step(placements[to]!), seen: false, to, rests: 'ends', fedBy });
  const { before, terminus } = placements[0]!;
  const turns = possible(placements[0]!.turns, place);
  const { blocks, heldIn, over, zones, zonesThroughout } = place;
  const standing: Placement = {
    ...place,
    ...{ before, terminus },
    turns: turns.map((turn, i) => ({ ...turn, to: turnedAt + i })),
    advances: [starts(0)],
  };
  const turned = turns.map(({ to, standsMm: [near, far], beyondMm }): Placement => {
    const back: Turn = { ...asItStands, to: standingAt, standsMm: [beyondMm - far, beyondMm - near], beyondMm };
    return {
      ...placements[to]!,
      ...{ blocks, heldIn, over, zones, zonesThroughout },
      turns: [back],
      advances: [starts(to)],
    };
  });
  return exchanged([...placements, standing, ...turned], 0, standingAt);
}

/**
 * Adds the placement in which it begins, no farther back than it stands; it comes round to the one that begins `leadMm`, a negative number, before its nose. For trains that
 * begin near another: behind where it stands it never was.
 */
export function withOwnStart(placements: Placement[], leadMm: number): Placement[] {
  const first = placements[0]!;
  const advances = first.advances.map((advance) =>
    advance.rests || advance.offTheEnd ? advance : { ...advance, runMm: advance.runMm + leadMm },
  );
  const begins: Placement = { ...first, noseMm: [first.noseMm[0] - leadMm, first.noseMm[1]], advances };
  begins.turns = possible(
    first.turns.map((turn) => fartherOn(turn, leadMm)),
    begins,
  );
  return exchanged([...placements, begins], 0, placements.length);
}

/** Turns that a train can take within a placement. */
const possible = (turns: readonly Turn[], { noseMm }: Placement): Turn[] =>
  turns.flatMap(({ standsMm: [near, far], ...turn }) => {
    const standsMm: Turn['standsMm'] = [Math.max(0, near), Math.min(noseMm[1] - noseMm[0], far)];
    return standsMm[0] <= standsMm[1] ? [{ ...turn, standsMm }] : [];
  });

/** It goes nowhere. */
const step = ({ before }: Placement): Omit<Advance, 'to'> => ({
  gates: [],
  passes: [],
  turnouts: [],
  carry: before.map((_, i) => i),
  seen: true,
  offTheEnd: false,
  runMm: 0,
});

/** Two placements by each other's number. */
function exchanged(placements: Placement[], one: number, two: number): Placement[] {
  const other = (n: number) => (n === one ? two : n === two ? one : n);
  return placements.map((_, n) => {
    const { advances, turns, ...rest } = placements[other(n)]!;
    return {
      ...rest,
      advances: advances.map((advance) => ({ ...advance, to: other(advance.to) })),
      turns: turns.map((turn) => ({ ...turn, to: other(turn.to) })),
    };
  });
}
