/** `./roblik test --whole` goes through every sweep to its end; without it a share of each is taken, always the same. */
export const isWhole = process.env.ROBLIK_WHOLE_SWEEPS === '1';

/** One in so many. */
const SHARE = 6;

/** How many of the cases of a sweep are gone through. */
export const ofSweep = (all: number): number => (isWhole ? all : Math.ceil(all / SHARE));
