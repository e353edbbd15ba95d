import type { Aspect } from '../../kinds';
import { type Command, sayCommand } from '../commands';
import type { EventKind } from './kind';
import { signalName, trainName } from './of-trains';

export const aspect: EventKind<{ kind: 'aspect'; signal: number; aspect: Aspect }> = {
  code: 8,
  group: 'aspects',
  says: (run, { signal, aspect: shown }) => `${signalName(run, signal)} shows ${shown.id}`,
};

const REFUSALS = {
  locked: 'refuses: it is locked',
  'asked both ways': 'stays where it is: it is asked to lie both ways at once',
  otherwise: 'refuses: it is not free to move',
};

export const refused: EventKind<{
  kind: 'refused';
  motor: number;
  because: 'locked' | 'asked both ways' | 'otherwise';
}> = {
  code: 9,
  group: 'turnouts',
  says: (run, { motor, because }) => `${run.motors[motor]!.name} ${REFUSALS[because]}`,
};

/** A person has done something. */
export const told: EventKind<{ kind: 'told'; command: Command }> = {
  code: 10,
  group: 'what people do',
  says: (run, { command }) => sayCommand(run, command),
};

/** A train stands where it was sent; the block by its name. */
export const done: EventKind<{ kind: 'done'; train: number; block: string }> = {
  code: 11,
  group: 'stops and starts',
  says: (run, { train, block }) => `${trainName(run, train)} is in ${block}, where it was sent`,
};

/** A button at a post was pressed to no effect: one that conflicts shows proceed, or the signal does so itself. */
export const notCleared: EventKind<{ kind: 'not cleared'; signal: number; rival?: number }> = {
  code: 14,
  group: 'aspects',
  says: (run, { signal, rival }) =>
    `${signalName(run, signal)} is not cleared: ${rival === undefined ? 'it shows proceed already, or nobody is at its post' : `${signalName(run, rival)}, which conflicts, shows proceed`}`,
};
