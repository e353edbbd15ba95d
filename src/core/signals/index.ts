/** Signals on the track: the ways ahead of each through points, and the stretches that one direction holds. */
export * from './along';
export * from './obligation';
export * from './signal-findings';
export * from './stretches';
export * from './ways';
