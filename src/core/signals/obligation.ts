/** Stands for the end of the track among the signals that a train has before it. */
export const END_OF_TRACK = -1;

/**
 * Before which of the things ahead, nearest first, a driver has to stop, as they show now; -1 when before none of them. He obeys
 * the next signal, what that one says of those after it, and he knows where the track ends. `stopsIn` is what a signal obliges
 * to (`Aspect.stopsIn`). Drivers of the rehearsal and trains of the proof both read it here.
 */
export function mustStopBefore(
  count: number,
  signalAt: (i: number) => number,
  stopsIn: (signal: number) => number,
): number {
  let within: number | undefined;
  for (let i = 0; i < count; i++) {
    const signal = signalAt(i);
    if (signal === END_OF_TRACK) return i;
    within ??= stopsIn(signal);
    if (i === within) return i;
  }
  return -1;
}
