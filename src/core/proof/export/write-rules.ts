import type { Expr } from '../../logic';
import type { ProofModel } from '../model/model';

/** The rules of a model in C: the statements of one scan on the state of the Promela model, and how much they remember. */
export interface PromelaRules {
  scan: string[];
  /** Bits that latches, edges and timers remember. */
  memory: number;
  temporary: number;
  timers: { word: number; ton: boolean }[];
}

/** Writes out the rules from their own expressions. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each operation, all writing to one scan.
export function writeRulesPromela(model: ProofModel): PromelaRules {
  const { compiled, program } = model.rules.wiring;
  const slotOf = (name: string) => `now.value[${compiled.slots.get(name)!}]`;
  let memory = 0;
  const timers: { word: number; ton: boolean }[] = [];
  const scan: string[] = [];
  let temporary = 0;
  const { enums } = program;
  const types = new Map(program.declarations.map((d) => [d.name, d.type]));
  const typeOf = (expr: Expr): string => {
    if (expr.op === 'name' || expr.op === 'previous') return types.get(expr.name)!;
    if (expr.op === 'if') return typeOf(expr.then) === '?' ? typeOf(expr.otherwise) : typeOf(expr.then);
    return expr.op === 'value' ? '?' : 'bool';
  };
  /** The text of an expression; what it remembers is written to the scan before it. */
  const text = (expr: Expr, type: string): string => {
    switch (expr.op) {
      case 'true':
      case 'false':
        return expr.op === 'true' ? '1' : '0';
      case 'value':
        return String(enums[type]!.indexOf(expr.value));
      case 'name':
        return slotOf(expr.name);
      case 'previous':
        return `now.before[${compiled.slots.get(expr.name)!}]`;
      case 'not':
        return `(1 - ${text(expr.of, 'bool')})`;
      case 'and':
        return `(${expr.of.map((part) => text(part, 'bool')).join(' && ')})`;
      case 'or':
        return `(${expr.of.map((part) => text(part, 'bool')).join(' || ')})`;
      case 'is': {
        const kind = typeOf(expr.left) === '?' ? typeOf(expr.right) : typeOf(expr.left);
        return `(${text(expr.left, kind)} == ${text(expr.right, kind)})`;
      }
      case 'if':
        return `(${text(expr.when, 'bool')} ? ${text(expr.then, type)} : ${text(expr.otherwise, type)})`;
      case 'SR':
      case 'RS': {
        const [set, reset] = [text(expr.set, 'bool'), text(expr.reset, 'bool')];
        const m = memory++;
        scan.push(
          expr.op === 'SR'
            ? `now.memo[${m}] = (${set} || ((1 - ${reset}) && now.memo[${m}]));`
            : `now.memo[${m}] = ((1 - ${reset}) && (${set} || now.memo[${m}]));`,
        );
        return `now.memo[${m}]`;
      }
      case 'R_TRIG':
      case 'F_TRIG': {
        const input = text(expr.in, 'bool');
        const m = memory++;
        const t = temporary++;
        scan.push(
          `temp[${t}] = ${expr.op === 'R_TRIG' ? `(${input} && (1 - now.memo[${m}]))` : `(now.memo[${m}] && (1 - ${input}))`};`,
          `now.memo[${m}] = ${input};`,
        );
        return `temp[${t}]`;
      }
      default: {
        const input = text(expr.in, 'bool');
        const [last, counts] = [memory, memory + 2];
        memory += 3;
        const may = `now.ends[${timers.length}]`;
        timers.push({ word: last, ton: expr.op === 'TON' });
        const t = temporary++;
        scan.push(`temp[${t}] = ${input};`);
        if (expr.op === 'TON') scan.push(`now.memo[${counts}] = (temp[${t}] && (now.memo[${counts}] || ${may}));`);
        else if (expr.op === 'TOF')
          scan.push(
            `now.memo[${counts}] = ((1 - temp[${t}]) && (now.memo[${last}] || now.memo[${counts}]) && (1 - ${may}));`,
          );
        else
          scan.push(
            `now.memo[${counts}] = (((temp[${t}] && (1 - now.memo[${last}])) || now.memo[${counts}]) && (1 - ${may}));`,
          );
        scan.push(`now.memo[${last}] = temp[${t}];`);
        return expr.op === 'TOF' ? `(temp[${t}] || now.memo[${counts}])` : `now.memo[${counts}]`;
      }
    }
  };
  for (const declaration of compiled.order) {
    const value = text(declaration.expr!, declaration.type);
    scan.push(`${slotOf(declaration.name)} = ${value};`);
  }
  return { scan, memory, temporary, timers };
}
