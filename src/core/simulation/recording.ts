import type { TimedCommand } from './commands';

/** A run that can be had again: what was done, and when. */
export interface Recording {
  seed: number;
  ticks: number;
  commands: TimedCommand[];
}
