import type { Advance, Placement } from './placement';

/**
 * Adds, for each place where something gives pulses, that it misses one: from when a part of the train comes there until nothing of it is there any more
 * that would be noticed, it notices nothing. Several may miss theirs at once.
 */
export function withMissed(placements: Placement[], givesPulses: (field: number) => boolean): Placement[] {
  const all: Placement[] = placements.map((p) => ({ ...p }));
  const pulsesIn = placements.map(({ detected }) => detected.filter(givesPulses));
  /** By a placement and what is missed in it, the number of that. */
  const numbers = new Map<string, number>();
  const keyOf = (p: number, missed: readonly number[]) => `${p}: ${missed.join()}`;
  const made: { from: number; missed: readonly number[] }[] = [];
  placements.forEach((p, from) => {
    for (const missed of someOf(pulsesIn[from]!)) {
      if (missed.length === 0) numbers.set(keyOf(from, missed), from);
      else {
        numbers.set(keyOf(from, missed), all.length);
        all.push({ ...p, detected: p.detected.filter((one) => !missed.includes(one)), turns: [] });
      }
      made.push({ from, missed });
    }
  });
  for (const { from, missed } of made) {
    const number = numbers.get(keyOf(from, missed))!;
    const onward = (one: Advance, more: readonly number[]): Advance => {
      const pulses = pulsesIn[one.to]!;
      const to = numbers.get(
        keyOf(
          one.to,
          pulses.filter((field) => missed.includes(field) || more.includes(field)),
        ),
      )!;
      const asBefore = number === from && to === one.to;
      const seen = asBefore ? one.seen : one.offTheEnd || all[number]!.detected.join() !== all[to]!.detected.join();
      return { ...one, to, seen, ...(more.length > 0 && { misses: more }) };
    };
    /** What gives a pulse in the next placement and not in this one may miss it. */
    const fresh = (one: Advance) =>
      one.offTheEnd ? [] : pulsesIn[one.to]!.filter((field) => !placements[from]!.detected.includes(field));
    const { advances } = placements[from]!;
    all[number]!.advances = [
      ...advances.map((one) => onward(one, [])),
      ...advances.flatMap((one) => someOf(fresh(one)).flatMap((more) => (more.length > 0 ? [onward(one, more)] : []))),
    ];
  }
  return all;
}

/** Every choice of some of them, each in the order in which they stand, none first. */
const someOf = (fields: readonly number[]): number[][] =>
  Array.from({ length: 2 ** fields.length }, (_, bits) => fields.filter((_field, i) => (bits >> i) & 1));
