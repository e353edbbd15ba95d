import { END_OF_TRACK, mustStopBefore } from '../../signals';
import type { Before } from './placement';

/**
 * How far a train is committed to go whatever its signals show next: past how many of the things before it, counted from the nearest,
 * and which of these are signals that showed proceed since it was within braking distance. One number: a leading one over as
 * many bits as it is committed past, less one, so that 0 is a train that can stop before everything.
 */
export const committedPast = (committed: number): number => 31 - Math.clz32(committed + 1);
export const countedOn = (committed: number, thing: number): boolean => ((committed + 1) >> thing) % 2 === 1;
const numberOf = (past: number, counted: number): number => ((1 << past) | counted) - 1;

/** Values of `committed` with so many things ahead. */
export const committedValues = (things: number): number => (1 << (things + 1)) - 1;

/**
 * What a train is committed to pass: everything before the thing that it must stop at as signals show now, and
 * what it was committed to pass before.
 * `stopsIn` gives what a signal obliges to; `lies` how points lie, or undefined while they move.
 */
export function committedNow(
  before: Before[],
  committed: number,
  stopsIn: (signal: number) => number,
  lies: (motor: number) => number | undefined,
): number {
  const count = before.length;
  if (count === 0) return 0;
  /** What comes as the points lie, as far as that is certain. */
  const coming: number[] = [];
  for (let i = 0; i < count; i++) {
    const { over } = before[i]!;
    if (over.some(({ motor }) => lies(motor) === undefined)) break;
    if (over.every(({ motor, position }) => lies(motor) === position)) coming.push(i);
  }
  const stop = mustStopBefore(coming.length, (i) => before[coming[i]!]!.signal, stopsIn);
  const past = Math.max(committedPast(committed), stop < 0 ? count : coming[stop]!);
  let counted = (committed + 1) & ~(1 << committedPast(committed));
  for (let i = 0; i < past; i++) {
    const { signal } = before[i]!;
    if (signal !== END_OF_TRACK && stopsIn(signal) !== 0) counted |= 1 << i;
  }
  return numberOf(past, counted);
}

/** The same once the train has gone on: what is still before it has another number. */
export function committedCarried(committed: number, carry: number[]): number {
  const past = committedPast(committed);
  let [still, counted] = [0, 0];
  for (let i = 0; i < past; i++) {
    const now = carry[i]!;
    if (now < 0) continue;
    still = Math.max(still, now + 1);
    if (countedOn(committed, i)) counted |= 1 << now;
  }
  return numberOf(still, counted);
}

/** A train that has come to a stand is committed past nothing that it must stop before. */
export const STOOD = 0;
