import { blockOf } from '../../detection';
import { fields } from '../../survey';
import { commandKind } from './kind';

/** Says of a block that no detector watches throughout whether it is free. */
export const sayOfBlock = commandKind({
  schema: fields.record({ block: fields.text(60), free: fields.yesOrNo() }),
  carryOut({ system, controller }, { block, free }) {
    const found = blockOf(system.partition, block);
    const input = found && system.terminals.find(free ? 'said free' : 'said occupied', found.index);
    if (!input) return 'Of that block its sensors tell; there is nothing to say.';
    controller.pulse(input.slot);
    return undefined;
  },
  says({ system }, { block, free }) {
    const name = blockOf(system.partition, block)?.name ?? block;
    return `Somebody says that ${free ? `${name} is free` : `a train is in ${name}`}`;
  },
});
