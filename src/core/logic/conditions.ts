import type { Declaration, Expr, Program } from './expr';
import { writeExpr, writeName } from './write-text';

/** One thing that must be so, in a sentence without its full stop, and the pattern that asks for it. */
export interface Condition {
  says: string;
  pattern: string;
}

/** What has to be so together for an expression to be true. */
export const allOf = (expr: Expr): readonly Expr[] =>
  expr.op === 'and' ? expr.of.flatMap(allOf) : expr.op === 'true' ? [] : [expr];
/** What makes it true, each alone. */
export const anyOf = (expr: Expr): readonly Expr[] =>
  expr.op === 'or' ? expr.of.flatMap(anyOf) : expr.op === 'false' ? [] : [expr];

/** Whether two expressions are the same as they are written. */
export const sameExpr = (one: Expr, other: Expr): boolean => writeExpr(one) === writeExpr(other);

/** Tells conditions of a program in the sentences of the names that they ask for, as its rules stand: whoever wrote them. */
export class Teller {
  private readonly byName: ReadonlyMap<string, Declaration>;

  constructor(private readonly program: Program) {
    this.byName = new Map(program.declarations.map((one) => [one.name, one]));
  }

  ruleOf(name: string): Declaration | undefined {
    return this.byName.get(name);
  }

  /** In a sentence, if it is simple enough; else as people write it. */
  say(expr: Expr, so = true): string {
    switch (expr.op) {
      case 'true':
      case 'false':
        return (expr.op === 'true') === so ? 'always' : 'never';
      case 'name':
        return this.nameSays(expr.name, so);
      case 'previous':
        return `${this.nameSays(expr.name, so)}, a scan before`;
      case 'not':
        return this.say(expr.of, !so);
      case 'and':
      case 'or':
        return expr.of.map((part) => this.say(part, so)).join((expr.op === 'and') === so ? ', and ' : ', or ');
      case 'is':
        if (so && expr.left.op === 'name' && expr.right.op === 'value') {
          const why = this.byName.get(expr.left.name)?.why;
          if (why) return why.yes.replace('{}', expr.right.value);
        }
    }
    const text = writeExpr(expr, this.program.called);
    return so ? `“${text}” is so` : `“${text}” is not so`;
  }
  private nameSays(name: string, so: boolean): string {
    const why = this.byName.get(name)?.why;
    const said = so ? why?.yes : why?.no;
    return said || `${writeName(name, this.program.called)} is ${so ? 'true' : 'false'}`;
  }
}
