import { SCAN_S } from '../../measure';
import type { Advance, Motion, Placement, Turn } from './placement';

/** Distances nearer than this are one. */
export const SAME_MM = 1e-5;

export const ordered = (numbers: Iterable<number>): number[] => [...new Set(numbers)].sort((a, b) => a - b);

/**
 * Makes one of all placements that a train goes through with no detector, signal or points taking notice. It may wait in any of
 * them while others move, and nobody can tell in which, so that whatever can happen to it in one of them can happen to it in the
 * whole: it has every block, piece and fouling place of any of them, and everything before it that any of them has. Where people look at it, they can tell.
 */
export function unnoticedAsOne(placements: Placement[], lookedAt?: Motion['lookedAt']): Placement[] {
  const looksSame = (one: Placement, next: Placement): boolean =>
    !lookedAt ||
    (lookedAt.blocks.every((block) => one.blocks.includes(block) === next.blocks.includes(block)) &&
      lookedAt.motors.every((motor) => one.over.includes(motor) === next.over.includes(motor)));
  const isNoticed = (from: number): boolean => {
    const [only] = placements[from]!.advances;
    if (placements[from]!.advances.length !== 1 || !only || only.gates.length + only.turnouts.length > 0) return true;
    return only.offTheEnd || only.seen || only.to === from || !looksSame(placements[from]!, placements[only.to]!);
  };
  /** Where a train goes unnoticed from a placement, and through how many others. */
  const onward = (from: number): { end: number; steps: number } => {
    let [end, steps] = [from, 0];
    while (steps < placements.length && !isNoticed(end)) {
      end = placements[end]!.advances[0]!.to;
      steps += 1;
    }
    return { end, steps };
  };
  /** Of the placements that a train may turn back into, of which the same is said, and that lead to the same end, the first stands for all. */
  const firstOf = (turns: Turn[]): Turn[] => {
    const first = new Map<string, { turn: Turn; steps: number; standsMm: Turn['standsMm'] }>();
    for (const turn of turns) {
      const { end, steps } = onward(turn.to);
      const key = `${end} ${turn.cameIn}`;
      const known = first.get(key);
      const [from, to] = known?.standsMm ?? turn.standsMm;
      const standsMm: Turn['standsMm'] = [Math.min(from, turn.standsMm[0]), Math.max(to, turn.standsMm[1])];
      first.set(key, { ...(known && steps < known.steps ? known : { turn, steps }), standsMm });
    }
    return [...first.values()].map(({ turn, standsMm }) => ({ ...turn, standsMm }));
  };
  const numbers = new Map<number, number>();
  const entries: number[] = [];
  const numberOf = (old: number): number => {
    const known = numbers.get(old);
    if (known !== undefined) return known;
    numbers.set(old, entries.length);
    entries.push(old);
    return entries.length - 1;
  };
  numberOf(0);
  const kept: Placement[] = [];
  for (let i = 0; i < entries.length; i++) {
    let whole = placements[entries[i]!]!;
    let turns = whole.turns;
    let last = entries[i]!;
    for (let steps = 0; steps < placements.length && !isNoticed(last); steps++) {
      last = placements[last]!.advances[0]!.to;
      const beforeMm = whole.noseMm[1] - whole.noseMm[0];
      turns = [...turns, ...placements[last]!.turns.map((turn) => fartherOn(turn, beforeMm))];
      whole = joined(whole, placements[last]!);
    }
    const { noseMm } = whole;
    const advances = placements[last]!.advances.map((advance) => ({
      ...advance,
      to: numberOf(advance.to),
      runMm: advance.offTheEnd ? 0 : noseMm[1] - noseMm[0],
    }));
    kept.push({ ...whole, advances, turns: firstOf(turns).map((turn) => ({ ...turn, to: numberOf(turn.to) })) });
  }
  return kept;
}

/** A turn, from a placement that begins so much farther back. */
export const fartherOn = (turn: Turn, byMm: number): Turn => ({
  ...turn,
  standsMm: [turn.standsMm[0] + byMm, turn.standsMm[1] + byMm],
  beyondMm: turn.beyondMm + byMm,
});

/** A placement and the one that comes after it, as one. */
function joined(one: Placement, next: Placement): Placement {
  const [head, then] = [one.tape[one.tape.length - 1]!, next.tape[next.tape.length - 1]!];
  const shift = head.piece === then.piece && head.exit === then.exit && next.noseMm[0] > SAME_MM ? 0 : head.to;
  const before = one.tape.map((entry) => ({ ...entry, from: entry.from - shift, to: entry.to - shift }));
  const gone = before.filter((entry) => entry.to <= next.tape[0]!.from + SAME_MM);
  return {
    tape: [...gone, ...next.tape],
    turned: next.turned,
    noseMm: [one.noseMm[0] - shift, next.noseMm[1]],
    blocks: ordered([...one.blocks, ...next.blocks]),
    heldIn: [...new Map([...one.heldIn, ...next.heldIn].map((held) => [held.join(), held])).values()],
    parts: [one.parts[0], next.parts[1]],
    detected: next.detected,
    over: ordered([...one.over, ...next.over]),
    zones: ordered([...one.zones, ...next.zones]),
    zonesThroughout: one.zonesThroughout.filter((zone) => next.zonesThroughout.includes(zone)),
    before: next.before,
    terminus: next.terminus,
    advances: [],
    turns: [],
  };
}

/** Two places that the tape puts nearer together than this may be in either order; common practice, no source. */
export const NEAR_MM = 5;

/**
 * Adds, where parts of a train cross two boundaries at places nearer together than the tape can tell, the state in which the
 * sensors notice them in the other order; and where the tape says that two cross at once, either before the other.
 */
export function inEitherOrder(placements: Placement[]): Placement[] {
  const all = placements.map((p) => ({ ...p, advances: [...p.advances] }));
  const changed = (from: Placement, to: Placement) =>
    from.parts[1].flatMap((fields, i) => (fields.join() === to.parts[0][i]!.join() ? [] : [i]));
  /** On the way from one placement to another, the state in which only some of the parts have crossed: like `like`, and left by `on`. */
  const add = (from: number, like: Placement, crossed: number[], then: Placement, onto: Advance, on: Advance) => {
    const was = placements[from]!;
    const parts = was.parts[1].map((fields, i) => (crossed.includes(i) ? then.parts[0][i]! : fields));
    const detected = ordered(parts.flat());
    const [before, after] = [was, then].map((p) => p.detected.join());
    if (detected.join() === before || detected.join() === after) return;
    all[from]!.advances.push({ ...onto, to: all.length, seen: true });
    all.push({ ...like, parts: [parts, parts], detected, advances: [{ ...on, seen: true }], turns: [] });
  };
  placements.forEach(({ advances }, p) => {
    for (const one of advances) {
      const next = placements[one.to]!;
      if (one.offTheEnd) continue;
      const first = changed(placements[p]!, next);
      if (first.length > 1) {
        const still = { gates: [], passes: [], turnouts: [], carry: next.before.map((_, i) => i), runMm: 0 };
        const ways = [
          ...first.map((i) => [i]),
          ...(first.length > 2 ? first.map((i) => first.filter((k) => k !== i)) : []),
        ];
        for (const crossed of ways) add(p, next, crossed, next, one, { ...one, ...still });
      }
      if (first.length === 0 || next.noseMm[1] - next.noseMm[0] > NEAR_MM) continue;
      for (const two of next.advances) {
        const last = placements[two.to]!;
        const second = changed(next, last);
        if (two.offTheEnd || second.length === 0 || second.some((i) => first.includes(i))) continue;
        add(p, next, second, last, one, two);
      }
    }
  });
  return all;
}

/** Adds, for two events that can fall into one scan, the step that takes both. */
export function takenTogether(placements: Placement[], topMmPerS: number): Placement[] {
  const most = topMmPerS * SCAN_S;
  const near = (p: Placement) => p.noseMm[1] - p.noseMm[0] <= most;
  return placements.map((placement) => {
    const both = placement.advances.flatMap((one) => {
      const between = placements[one.to]!;
      if (one.offTheEnd || !one.seen || !near(between)) return [];
      return between.advances.flatMap((two): Advance[] => {
        if (two.offTheEnd || !two.seen) return [];
        const back = (i: number) => one.carry.indexOf(i);
        const passes = [...one.passes, ...two.passes.map(back)].filter((i) => i >= 0);
        return [
          {
            to: two.to,
            gates: ordered([...one.gates, ...two.gates.map(back).filter((i) => i >= 0)]),
            passes,
            carry: one.carry.map((i) => (i < 0 ? -1 : two.carry[i]!)),
            turnouts: [...one.turnouts, ...two.turnouts],
            seen: true,
            offTheEnd: false,
            runMm: one.runMm + two.runMm,
          },
        ];
      });
    });
    const known = new Set(placement.advances.map((advance) => JSON.stringify(advance)));
    const more = both.filter((advance) => !known.has(JSON.stringify(advance)) && known.add(JSON.stringify(advance)));
    return more.length > 0 ? { ...placement, advances: [...placement.advances, ...more] } : placement;
  });
}
