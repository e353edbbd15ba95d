import { fields } from '../../survey';
import type { Automatic } from '../../system';
import type { Rehearsal } from '../rehearsal';
import { commandKind } from './kind';

const GONE = 'Nothing works there by itself.';
const found = ({ system }: Rehearsal, id: string, what: string): Automatic | undefined =>
  system.automatic.find((one) => one.id === id && one.what === what);

/** Automatic working of a signal or of points is switched off, or on again. */
export const switchAutomatic = commandKind({
  schema: fields.record({ thing: fields.text(60), what: fields.text(40), on: fields.yesOrNo() }),
  carryOut(run, { thing, what, on }) {
    const one = found(run, thing, what);
    if (!one) return GONE;
    run.sent.leave(one.off);
    run.controller.set(one.off, on ? 0 : 1);
    return undefined;
  },
  says: (run, { thing, what, on }) =>
    `Automatic working of ${found(run, thing, what)?.name ?? thing} is switched ${on ? 'on' : 'off'}`,
});

/** A pulse that automatic working waits for is given by hand. */
export const givePulse = commandKind({
  schema: fields.record({ thing: fields.text(60), what: fields.text(40) }),
  carryOut(run, { thing, what }) {
    const one = found(run, thing, what);
    const pulse = one?.pulse;
    if (pulse === undefined) return GONE;
    const refused = one?.refusedWhile;
    if (refused !== undefined && run.controller.values[refused] === 1)
      return `A train is cleared to leave there. ${one!.name} takes a pulse once it has left.`;
    run.controller.pulse(pulse);
    return undefined;
  },
  says: (run, { thing, what }) => `Somebody gives ${found(run, thing, what)?.name ?? thing} a pulse`,
});
