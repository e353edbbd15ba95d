import type { Expr } from './expr';

/** What the value of an expression is read from. */
export interface Present {
  enums: Record<string, string[]>;
  /** The type of a name, if there is such a name. */
  typeOf(name: string): string | undefined;
  /** The value of a name, now or at the last scan; undefined when it is not known. */
  read(name: string, before: boolean): number | undefined;
}

const typeOf = (expr: Expr, present: Present): string | undefined =>
  expr.op === 'name' || expr.op === 'previous' ? present.typeOf(expr.name) : undefined;

/** The type of what a comparison compares: an enumeration, named by either side. */
export const comparedType = ({ left, right }: { left: Expr; right: Expr }, present: Present): string | undefined =>
  typeOf(left, present) ?? typeOf(right, present);

/** The value of an expression from present values; undefined where it rests on what is not known, or on a memory inside it. */
export function presentValue(expr: Expr, present: Present, type?: string): number | undefined {
  switch (expr.op) {
    case 'true':
      return 1;
    case 'false':
      return 0;
    case 'value': {
      const index = present.enums[type ?? '']?.indexOf(expr.value) ?? -1;
      return index < 0 ? undefined : index;
    }
    case 'name':
    case 'previous':
      return present.read(expr.name, expr.op === 'previous');
    case 'not': {
      const of = presentValue(expr.of, present);
      return of === undefined ? undefined : of ^ 1;
    }
    case 'and':
    case 'or': {
      const decisive = expr.op === 'or' ? 1 : 0;
      let unknown = false;
      for (const part of expr.of) {
        const value = presentValue(part, present);
        if (value === decisive) return decisive;
        unknown ||= value === undefined;
      }
      return unknown ? undefined : decisive ^ 1;
    }
    case 'is': {
      const kind = comparedType(expr, present);
      const [left, right] = [presentValue(expr.left, present, kind), presentValue(expr.right, present, kind)];
      return left === undefined || right === undefined ? undefined : left === right ? 1 : 0;
    }
    case 'if': {
      const condition = presentValue(expr.when, present);
      return condition === undefined ? undefined : presentValue(condition ? expr.then : expr.otherwise, present, type);
    }
    default:
      return undefined;
  }
}
