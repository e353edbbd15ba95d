import type { Reason } from '../reasoning';
import type { Declaration, Expr, Program } from './expr';
import { presentValue } from './present-value';

/** Reads the present value of a name; undefined when there is none. */
export type ReadValue = (name: string) => number | undefined;

/** How deep an explanation goes before it refers to the text of the rule. */
const DEEPEST = 6;

/**
 * Explains why a name has its present value: the terms that decide it first, each with its own reasons. Conditions that
 * were looked at but do not decide are listed as such, so that nothing is hidden.
 */
export function whyValue(program: Program, name: string, read: ReadValue): Reason {
  const byName = new Map(program.declarations.map((d) => [d.name, d]));
  return explainName(name, { program, byName, read }, 0);
}

interface Context {
  program: Program;
  byName: Map<string, Declaration>;
  read: ReadValue;
}

/** The sentence for a name's value: “M1 is free”, “signal FE shows caution”. */
export function sayValue(program: Program, declaration: Declaration, present: number | undefined): string {
  if (present === undefined) return `${declaration.name} is not known`;
  const why = declaration.why;
  if (declaration.type === 'bool')
    return why ? (present ? why.yes : why.no) : `${declaration.name} is ${present ? 'true' : 'false'}`;
  const shown = program.enums[declaration.type]?.[present] ?? '?';
  return why ? why.yes.replace('{}', shown) : `${declaration.name} is ${shown}`;
}

function explainName(name: string, context: Context, depth: number): Reason {
  const declaration = context.byName.get(name);
  if (!declaration) return { says: `${name} does not exist`, because: [] };
  const present = context.read(name);
  const reason: Reason = {
    says: sayValue(context.program, declaration, present),
    about: declaration.why?.about,
    origin: declaration.role === 'input' ? 'detected' : 'computed',
    because: [],
  };
  if (declaration.expr && depth < DEEPEST) reason.because = termsOf(declaration.expr, context, depth + 1);
  return reason;
}

/** The value of an expression from present values. */
const evaluate = (expr: Expr, { program, byName, read }: Context): number | undefined =>
  presentValue(expr, { enums: program.enums, typeOf: (name) => byName.get(name)?.type, read });

/** The terms of an expression as reasons, each marked by whether it decides the outcome. */
function termsOf(expr: Expr, context: Context, depth: number): Reason[] {
  switch (expr.op) {
    case 'name':
    case 'previous':
      return [{ ...explainName(expr.name, context, depth), decides: true }];
    case 'not':
      return termsOf(expr.of, context, depth);
    case 'and':
    case 'or': {
      const outcome = evaluate(expr, context);
      const decisive = expr.op === 'or' ? 1 : 0;
      return expr.of.flatMap((part) => {
        const decides = outcome !== decisive || evaluate(part, context) === decisive;
        return termsOf(part, context, decides ? depth : DEEPEST).map((reason) => ({
          ...reason,
          decides: decides && reason.decides !== false,
        }));
      });
    }
    case 'is': {
      const { left, right } = expr;
      if ((left.op === 'name' || left.op === 'previous') && right.op === 'value') {
        const reason = explainName(left.name, context, depth);
        const met = evaluate(expr, context);
        return [{ ...reason, says: met ? reason.says : `${reason.says}, not ${right.value}`, decides: true }];
      }
      return [...termsOf(left, context, depth), ...termsOf(right, context, depth)];
    }
    case 'if': {
      const condition = evaluate(expr.when, context);
      const chosen = condition ? expr.then : expr.otherwise;
      const reasons = termsOf(expr.when, context, depth);
      return chosen.op === 'value' ? reasons : [...reasons, ...termsOf(chosen, context, depth)];
    }
    case 'SR':
    case 'RS':
      return [
        {
          says: 'It is remembered once one of these is so:',
          because: termsOf(expr.set, context, DEEPEST),
          decides: true,
        },
        {
          says: 'and forgotten once one of these is so:',
          because: termsOf(expr.reset, context, DEEPEST),
          decides: true,
        },
      ];
    case 'TON':
    case 'TOF':
    case 'TP': {
      if (expr.in.op === 'true') return [];
      const seconds = `${expr.ms / 1000} s`;
      const says =
        expr.op === 'TON'
          ? `It holds once this has been so for ${seconds}:`
          : expr.op === 'TOF'
            ? `It is kept for ${seconds} after this ends:`
            : `It lasts ${seconds} from this:`;
      return [{ says, because: termsOf(expr.in, context, depth), decides: true }];
    }
    case 'R_TRIG':
    case 'F_TRIG':
      return [
        {
          says: expr.op === 'R_TRIG' ? 'At the moment this begins:' : 'At the moment this ends:',
          because: termsOf(expr.in, context, depth),
          decides: true,
        },
      ];
    case 'true':
      return [{ says: 'Always so', because: [] }];
    default:
      return [];
  }
}
