import { type Declaration, type Expr, namesIn, type Program } from './expr';
import { Op } from './interpret';

/** A program that cannot be run: a name that does not exist, a wrong type, or a circle of names. */
export class RuleProgramError extends Error {}

/** A program as typed arrays by index; names live outside. */
export interface Compiled {
  scanMs: number;
  code: Int32Array;
  /** Slot of each name. Inputs come first. */
  slots: Map<string, number>;
  names: string[];
  inputs: number;
  /** At power-up each of them is 0: false, or the first value of its enumeration. */
  slotCount: number;
  /** Initial state words of latches, edges and timers. */
  state: Int32Array;
  /** Where the state words of a timer start, for setting clocks at power-up. */
  timers: number[];
  /** The rule that each timer stands in. */
  timerRules: Declaration[];
  stackDepth: number;
  /** Declarations in the order in which they are evaluated. */
  order: Declaration[];
}

const aOf = (type: string): string =>
  type === 'bool' ? 'a yes or no' : `${/^[aeiou]/.test(type) ? 'an' : 'a'} ${type}`;

/** Orders, checks and compiles a program. Throws RuleProgramError. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: the emitter below writes to the same code, memory and timers.
export function compileProgram(program: Program): Compiled {
  const byName = new Map<string, Declaration>();
  for (const declaration of program.declarations) {
    if (byName.has(declaration.name)) throw new RuleProgramError(`“${declaration.name}” is declared twice.`);
    if (declaration.type !== 'bool' && !program.enums[declaration.type]) {
      throw new RuleProgramError(`“${declaration.name}” has an unknown type “${declaration.type}”.`);
    }
    if ((declaration.role === 'input') === (declaration.expr !== undefined)) {
      throw new RuleProgramError(
        `“${declaration.name}” is an ${declaration.role} and ${declaration.expr ? 'must not have' : 'needs'} a rule.`,
      );
    }
    byName.set(declaration.name, declaration);
  }
  const inputs = program.declarations.filter((d) => d.role === 'input');
  const order = sortByNeed(
    program.declarations.filter((d) => d.role !== 'input'),
    byName,
  );
  const slots = new Map<string, number>();
  for (const declaration of [...inputs, ...order]) slots.set(declaration.name, slots.size);

  const code: number[] = [];
  const state: number[] = [];
  const timers: number[] = [];
  const timerRules: Declaration[] = [];
  let depth = 0;
  let deepest = 0;
  const push = (by: number) => {
    depth += by;
    deepest = Math.max(deepest, depth);
  };

  const typeOf = (name: string, at: Declaration): string => {
    const found = byName.get(name);
    if (!found) throw new RuleProgramError(`“${at.name}” reads “${name}”, which does not exist.`);
    return found.type;
  };

  /** Emits code that leaves the value on the stack. `wanted` is the type it must have; undefined when it may be any. */
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each operation.
  const emit = (expr: Expr, wanted: string | undefined, at: Declaration): string => {
    const must = (type: string) => {
      if (wanted !== undefined && wanted !== type)
        throw new RuleProgramError(`“${at.name}” uses ${aOf(type)} where ${aOf(wanted)} is needed.`);
      return type;
    };
    switch (expr.op) {
      case 'true':
      case 'false':
        code.push(Op.Const, expr.op === 'true' ? 1 : 0);
        push(1);
        return must('bool');
      case 'value': {
        if (wanted === undefined || wanted === 'bool')
          throw new RuleProgramError(`“${at.name}” uses the value ${expr.value} where its kind cannot be told.`);
        const index = program.enums[wanted]!.indexOf(expr.value);
        if (index < 0) throw new RuleProgramError(`“${at.name}” uses ${expr.value}, which is no ${wanted}.`);
        code.push(Op.Const, index);
        push(1);
        return wanted;
      }
      case 'name':
      case 'previous': {
        const type = typeOf(expr.name, at);
        code.push(expr.op === 'name' ? Op.Load : Op.Previous, slots.get(expr.name)!);
        push(1);
        return must(type);
      }
      case 'not':
        emit(expr.of, 'bool', at);
        code.push(Op.Not);
        return must('bool');
      case 'and':
      case 'or':
        for (const part of expr.of) emit(part, 'bool', at);
        code.push(expr.op === 'and' ? Op.And : Op.Or, expr.of.length);
        push(1 - expr.of.length);
        return must('bool');
      case 'is': {
        const [first, second] = expr.left.op === 'value' ? [expr.right, expr.left] : [expr.left, expr.right];
        const type = emit(first, undefined, at);
        emit(second, type, at);
        code.push(Op.Is);
        push(-1);
        return must('bool');
      }
      case 'if': {
        emit(expr.when, 'bool', at);
        const type = emit(expr.then, wanted, at);
        emit(expr.otherwise, type, at);
        code.push(Op.Choose);
        push(-2);
        return type;
      }
      case 'SR':
      case 'RS':
        emit(expr.set, 'bool', at);
        emit(expr.reset, 'bool', at);
        code.push(expr.op === 'SR' ? Op.SR : Op.RS, state.length);
        state.push(expr.starts ? 1 : 0);
        push(-1);
        return must('bool');
      case 'TON':
      case 'TOF':
      case 'TP':
        emit(expr.in, 'bool', at);
        code.push(expr.op === 'TON' ? Op.TON : expr.op === 'TOF' ? Op.TOF : Op.TP, state.length, expr.ms);
        timers.push(state.length);
        timerRules.push(at);
        state.push(expr.starts ? 1 : 0, 0, 0);
        return must('bool');
      case 'R_TRIG':
      case 'F_TRIG':
        emit(expr.in, 'bool', at);
        code.push(expr.op === 'R_TRIG' ? Op.RTrig : Op.FTrig, state.length);
        state.push(expr.starts ? 1 : 0);
        return must('bool');
    }
  };

  for (const declaration of order) {
    emit(declaration.expr!, declaration.type, declaration);
    code.push(Op.Store, slots.get(declaration.name)!);
    push(-1);
  }
  return {
    scanMs: program.scanMs,
    code: Int32Array.from(code),
    slots,
    names: [...slots.keys()],
    inputs: inputs.length,
    slotCount: slots.size,
    state: Int32Array.from(state),
    timers,
    timerRules,
    stackDepth: deepest + 1,
    order,
  };
}

/** Topological order, ties by name. A circle is an error that names its members. */
function sortByNeed(rules: Declaration[], byName: Map<string, Declaration>): Declaration[] {
  const sorted = [...rules].sort((a, b) => (a.name < b.name ? -1 : 1));
  const done = new Set<string>();
  const open: string[] = [];
  const isOpen = new Set<string>();
  const order: Declaration[] = [];
  const visit = (declaration: Declaration): void => {
    if (done.has(declaration.name) || declaration.role === 'input') return;
    if (isOpen.has(declaration.name)) {
      const circle = [...open.slice(open.indexOf(declaration.name)), declaration.name];
      throw new RuleProgramError(`These read each other in a circle: ${circle.join(' -> ')}. Break it with PREVIOUS.`);
    }
    open.push(declaration.name);
    isOpen.add(declaration.name);
    for (const needed of [...namesIn(declaration.expr!)].sort()) {
      const found = byName.get(needed);
      if (!found) throw new RuleProgramError(`“${declaration.name}” reads “${needed}”, which does not exist.`);
      visit(found);
    }
    open.pop();
    isOpen.delete(declaration.name);
    done.add(declaration.name);
    order.push(declaration);
  };
  for (const rule of sorted) visit(rule);
  return order;
}
