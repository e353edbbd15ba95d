/**
 * Every reachable state of plant and rule program. `placements.ts` turns a train’s way into a list of events, `model.ts` joins
 * trains, turnouts and program into one machine, `explore.ts` finds all its states, `story.ts` tells a way to harm in words,
 * `write-promela.ts` writes the same machine for another checker.
 */
export * from './block-steps';
export * from './cause';
export * from './explore';
export * from './model';
export * from './moves';
export * from './placements';
export { harmFlag } from './promela-text';
export * from './prove';
export { STANDING_TICKS } from './standing-start';
export * from './state-set';
export * from './steer';
export * from './story';
export * from './switches';
export * from './write-plant-promela';
export * from './write-promela';
