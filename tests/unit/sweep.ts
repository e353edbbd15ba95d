/** `./roblik test --whole` goes through every sweep to its end; without it a share of each is taken, always the same. */
const WHOLE = process.env.ROBLIK_WHOLE_SWEEPS === '1';

/** How many of the cases of a sweep are gone through. */
export const ofSweep = (all: number): number => (WHOLE ? all : Math.ceil(all / 4));
