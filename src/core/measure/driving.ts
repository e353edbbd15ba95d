/** How far before a signal at stop, or before the end of the track, a driver stops; our assumption. */
export const STOP_SHORT_MM = 40;

/** Of the speed that trains run at, the share at which they run past a signal that obliges them to stop at the next one; common practice, no source. */
export const CAUTION_SHARE = 0.5;

/** A driver sees the signals before him from as far as he needs to stop, and from this much farther; our assumption. */
export const SIGHT_BEYOND_BRAKING_MM = 500;

/** A scan of the rule program, and a step of a train’s motion, in seconds. */
export const SCAN_S = 0.02;

/** Spread of speed between trains of one kind: one deviation is 2 %, and none is off by more than six; our assumption. */
export const SPEED_DEVIATION = 0.02;
/** Spread of the start delay: one deviation is 10 %; our assumption. */
export const DELAY_DEVIATION = 0.1;
/** A sum of twelve uniform numbers, less six, is never farther from 0 than this. */
export const MOST_DEVIATIONS = 6;

/** The fastest that a train surveyed at a speed runs, in the same unit. */
export const fastest = (surveyed: number): number => surveyed * (1 + MOST_DEVIATIONS * SPEED_DEVIATION);
