import { FAULT_IDS, isKnown, sayFault, thingsStruck } from '../../faults';
import { fields } from '../../survey';
import { commandKind } from './kind';

/** A thing fails in one of the ways that the table of faults lists, or does so no longer. */
export const fail = commandKind({
  fails: true,
  schema: fields.record({ fault: fields.choice(...FAULT_IDS), thing: fields.text(60), on: fields.yesOrNo() }),
  carryOut(run, { fault, thing, on }) {
    const struck = thingsStruck(run.system, fault).find(({ id }) => id === thing);
    if (!struck) return 'Nothing fails so there.';
    if (!isKnown(run.system, fault, struck.of)) return `Nobody has said how ${struck.name} is wired: say so in Signal.`;
    run.fail({ fault, thing }, on);
    return undefined;
  },
  says: ({ system }, { fault, thing, on }) => sayFault(system, { fault, thing }, on),
});
