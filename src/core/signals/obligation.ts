/** Three aspects, most restrictive first. */
export const ASPECTS = ['stop', 'caution', 'clear'] as const;
export type Aspect = (typeof ASPECTS)[number];

/** What an aspect obliges a driver to do. Drivers of the rehearsal and trains of the proof both read it here. */
export type Obligation = 'stop' | 'be ready to stop at the next' | 'none';

/** By aspect, in the order of ASPECTS. */
export const OBLIGATIONS: readonly Obligation[] = ['stop', 'be ready to stop at the next', 'none'];
export const obligationOf = (aspect: Aspect): Obligation => OBLIGATIONS[ASPECTS.indexOf(aspect)]!;

/** Stands for the end of the track among the signals that a train has before it. */
export const END_OF_TRACK = -1;

/**
 * Before which of the things ahead, nearest first, a driver has to stop, as they show now; -1 when before none of them. He obeys
 * the next signal, what that one says of the one after it, and he knows where the track ends.
 */
export function mustStopBefore(
  count: number,
  signalAt: (i: number) => number,
  shows: (signal: number) => Obligation,
): number {
  let next: Obligation | undefined;
  for (let i = 0; i < count; i++) {
    const signal = signalAt(i);
    if (signal === END_OF_TRACK) return i;
    if (next === undefined) {
      next = shows(signal);
      if (next === 'stop') return i;
    } else if (next === 'be ready to stop at the next') return i;
  }
  return -1;
}
