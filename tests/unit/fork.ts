import { type LayoutDocument, signalsOf } from '@/core/survey';
import { planned } from '@/demo/plans';

/**
 * A single track to the right: block A, points that lead straight to B and C, or aside to D and E, both to an end of the track.
 * Signals, all read to the right: Far before A, Home before the points, Last before C, Side before E.
 */
const FORK = planned({
  name: 'Fork',
  text: `line Main 900
line Aside 300
buffer 0
buffer
line Aside
buffer
line Main
turnout 420 left no 6 T to Aside start
gap 200
gap 400
gap 470
gap 650
signal up 200 Far
signal up 400 Home
signal up 650 Last
block 50 Begin
detector 50 Begin
block 300 A
detector 300 A
block 430 X
detector 430 X
block 600 B
detector 600 B
block 800 C
detector 800 C
line Aside
gap 50
gap 180
signal up 180 Side
block 100 D
detector 100 D
block 250 E
detector 250 E`,
});

/** That layout with all its signals by one system. */
export function fork(system: string): LayoutDocument {
  const d = structuredClone(FORK);
  for (const signal of signalsOf(d)) signal.system = system;
  return d;
}
