import { fields } from '../../survey';
import { commandKind } from './kind';

export const throwPoints = commandKind({
  /** The id of a motor. */
  schema: fields.record({ turnout: fields.text(60), to: fields.choice('straight', 'diverging') }),
  carryOut(run, { turnout, to }) {
    const motor = run.motors.findIndex(({ id }) => id === turnout);
    if (motor < 0) return 'That turnout is no longer there.';
    run.ask(motor, to, true);
    return undefined;
  },
  says: (run, { turnout, to }) =>
    `Somebody asks for ${run.motors.find(({ id }) => id === turnout)?.name ?? turnout} to lie ${to}`,
});
