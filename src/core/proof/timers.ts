import { type Compiled, Op } from '../logic';

/** Whether each timer is a TON, and its milliseconds, by where its state begins. */
export function timerKinds({ code }: Compiled): Map<number, { ton: boolean; ms: number }> {
  const kinds = new Map<number, { ton: boolean; ms: number }>();
  for (let pc = 0; pc < code.length; ) {
    const op = code[pc++]!;
    if (op >= Op.TON && op <= Op.TP) kinds.set(code[pc]!, { ton: op === Op.TON, ms: code[pc + 1]! });
    pc += op === Op.Not || op === Op.Is || op === Op.Choose ? 0 : op >= Op.TON && op <= Op.TP ? 2 : 1;
  }
  return kinds;
}
