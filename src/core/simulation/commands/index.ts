import type { Rehearsal } from '../rehearsal';
import type { CommandKind } from './kind';
import { givePulse, switchAutomatic } from './to-automatic';
import { sayOfBlock } from './to-blocks';
import { fault } from './to-sensors';
import { cancelRoutes, clearOnce, giveUp, hold, setRoute, takePost } from './to-signals';
import { fail } from './to-things';
import { drawUp, letRun, liftOff, send, setDown, takeBack, turnBack } from './to-trains';
import { throwPoints } from './to-turnouts';

/** Everything that a person can do while trains run. */
const COMMANDS = {
  throw: throwPoints,
  hold,
  man: takePost,
  give: clearOnce,
  'give up': giveUp,
  'set route': setRoute,
  'cancel routes': cancelRoutes,
  'switch automatic': switchAutomatic,
  'give pulse': givePulse,
  say: sayOfBlock,
  fault,
  fail,
  run: letRun,
  send,
  'take back': takeBack,
  'draw up': drawUp,
  'turn back': turnBack,
  'lift off': liftOff,
  'set down': setDown,
} as const;

type Kinds = typeof COMMANDS;
/** What may be undefined may be left out. */
type MayBeLeftOut<T> = { [K in keyof T as undefined extends T[K] ? never : K]: T[K] } & {
  [K in keyof T as undefined extends T[K] ? K : never]?: T[K];
};
/** What a person does: its kind, and the fields of that kind. */
export type Command = {
  [K in keyof Kinds]: { kind: K } & (Kinds[K] extends CommandKind<infer Fields> ? MayBeLeftOut<Fields> : never);
}[keyof Kinds];

export interface TimedCommand {
  tick: number;
  command: Command;
}

const kindOf = (command: Command): CommandKind<object> => COMMANDS[command.kind] as CommandKind<never>;

export const carryOut = (run: Rehearsal, command: Command): string | undefined =>
  kindOf(command).carryOut(run, command);
export const sayCommand = (run: Rehearsal, command: Command): string => kindOf(command).says(run, command);

/** Of what was done in a run, by what things failed, or worked again. */
export const failuresIn = (commands: readonly TimedCommand[]): TimedCommand[] =>
  commands.filter(({ command }) => kindOf(command).fails);

/** Whether that is a command, with the fields of its kind and no others. */
export function isCommand(value: unknown): value is Command {
  if (typeof value !== 'object' || value === null) return false;
  const { kind, ...fields } = value as { kind?: unknown };
  if (typeof kind !== 'string' || !Object.hasOwn(COMMANDS, kind)) return false;
  return COMMANDS[kind as Command['kind']].schema.isValidSync(fields, { strict: true });
}
