import type { Aspect } from '../../kinds';
import { saySide } from '../../signals';
import { type Command, sayCommand } from '../commands';
import type { SaidAtFirst } from '../tell-direction';
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

const AND = new Intl.ListFormat('en');

/** As power comes on, of blocks that no detector watches throughout, by number: what people see there and say, and of which they say nothing; and how trains came in. */
export const saidAtFirst: EventKind<{ kind: 'said at first' } & SaidAtFirst> = {
  code: 15,
  group: 'what people do',
  says(run, { free, taken, silent, directions }) {
    const { partition, trafficSections } = run.system;
    const named = (blocks: number[]) => blocks.map((block) => partition.blocks[block]!.name).join(', ');
    const said = [
      ...(taken.length > 0 ? [`there is a train in ${named(taken)}`] : []),
      ...(free.length > 0 ? [`there is none in ${named(free)}`] : []),
      ...directions.map(
        ({ train, trafficSection, side }) =>
          `${trainName(run, train)} in ${trafficSections.all[trafficSection]!.name} came in ${saySide(trafficSections, side)}`,
      ),
    ];
    const unsaid = silent.length > 0 ? [`of ${named(silent)} nobody says anything`] : [];
    const all = [...(said.length > 0 ? [`somebody looks, and says that ${AND.format(said)}`] : []), ...unsaid];
    return `As power comes on, ${all.join('; ')}`;
  },
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
