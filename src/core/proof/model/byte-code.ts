import { type Compiled, layoutOf, Op } from '../../logic';

const operandsOf = (op: number): number =>
  op === Op.Not || op === Op.Is || op === Op.Choose ? 0 : op >= Op.TON && op <= Op.TP ? 2 : 1;

/** Every operation of a program’s byte code with its operands, in order. */
function operations({ code }: Compiled): { op: number; first: number; second: number }[] {
  const found = [];
  for (let pc = 0; pc < code.length; pc += 1 + operandsOf(code[pc]!))
    found.push({ op: code[pc]!, first: code[pc + 1]!, second: code[pc + 2]! });
  return found;
}

const isTimer = (op: number) => op >= Op.TON && op <= Op.TP;

/** Whether each timer is a TON, and its milliseconds, by where its state begins. */
export function timerKinds(compiled: Compiled): Map<number, { ton: boolean; ms: number }> {
  const timers = operations(compiled).filter(({ op }) => isTimer(op));
  return new Map(timers.map(({ op, first, second }) => [first, { ton: op === Op.TON, ms: second }]));
}

/**
 * For each word of an emitted program’s memory, the numbers of the rules that read it. What a rule remembers itself has none: it
 * changes only with something else that the rule reads.
 */
export function readersOf(compiled: Compiled): number[][] {
  const layout = layoutOf(compiled);
  const [before, mayEnd] = [layout.before / 4, layout.mayEnd / 4];
  const readers: number[][] = Array.from({ length: layout.end / 4 }, () => []);
  let rule = 0;
  for (const { op, first } of operations(compiled)) {
    if (op === Op.Store) rule += 1;
    else if (op === Op.Load) readers[first]!.push(rule);
    else if (op === Op.Previous) readers[before + first]!.push(rule);
    else if (isTimer(op)) readers[mayEnd + compiled.timers.indexOf(first)]!.push(rule);
  }
  return readers;
}
