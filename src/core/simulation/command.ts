import { names } from '../patterns';

/** What a person does while trains run. */
export type Command =
  | { kind: 'throw'; turnout: string; to: 'straight' | 'diverging' }
  | { kind: 'hold'; signal: string; on: boolean }
  /** A post is taken by one of the people, counted from 1, who relieves whoever is there; or it is left. */
  | { kind: 'man'; post: string; on: boolean; by?: number }
  /** The button of a signal is pressed, or let go. */
  | { kind: 'give'; signal: string; on: boolean }
  /** Says of a block that nothing watches throughout whether it is free. */
  | { kind: 'say'; block: string; free: boolean }
  /** A spot that gives pulses misses the next one, or gives one too many. */
  | { kind: 'fault'; sensor: string; what: 'miss' | 'extra' }
  | { kind: 'run'; train: string; on: boolean }
  /** Goes to a block, by its id, with the turnouts on its way thrown as it comes to them. */
  | { kind: 'send'; train: string; block: string }
  /** Takes back where it was sent; it waits. */
  | { kind: 'take back'; train: string }
  /** Runs on by a distance, as signals allow, and stops there. */
  | { kind: 'draw up'; train: string; mm: number }
  | { kind: 'turn back'; train: string }
  /** By hand, off the track; and back where it began. */
  | { kind: 'lift off'; train: string }
  | { kind: 'set down'; train: string };

export interface TimedCommand {
  tick: number;
  command: Command;
}

/** The inputs that people work, by the command that does. */
export const WORKED_BY = { hold: names.hold, man: names.manned, give: names.give };
