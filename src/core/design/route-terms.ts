import { allOf, anyOf, type Expr, type Teller, writeExpr } from '../logic';
import { type NamedRoute, names } from '../patterns';

/** Ways to clear a signal for a route, each with all that it asks for; what is granted and what counts as free are looked into. */
export function waysToClear(teller: Teller, route: NamedRoute): (readonly Expr[])[] {
  const inside = new Set([names.may(route), names.free(route)]);
  const parts = (expr: Expr): readonly Expr[] =>
    allOf(expr).flatMap((part) => {
      const rule = part.op === 'name' && inside.has(part.name) ? teller.ruleOf(part.name)?.expr : undefined;
      /** That it may be granted is asked by rivals, so that its name stays. */
      return rule ? [...(part.op === 'name' && part.name === names.may(route) ? [part] : []), ...parts(rule)] : [part];
    });
  const rule = teller.ruleOf(names.go(route))?.expr;
  return rule ? anyOf(rule).map(parts) : [];
}

/** Conditions, each as what it is about and what that has to be. */
export type Literals = ReadonlyMap<string, string>;

/** Whether two sets of conditions cannot all be so at once, by one that the other denies, or by points that would lie both ways. */
export function exclude(one: Literals, two: Literals): boolean {
  for (const [what, is] of one) {
    const other = two.get(what);
    if (other !== undefined && other !== is) return true;
  }
  return false;
}

export function literalsOf(parts: readonly Expr[]): Literals {
  return new Map(
    parts.map((part) => {
      if (part.op === 'false') return ['never', 'so'];
      if (part.op === 'not') return [writeExpr(part.of), 'false'];
      if (part.op === 'is' && part.right.op === 'value') return [writeExpr(part.left), part.right.value];
      return [writeExpr(part), 'true'];
    }),
  );
}
