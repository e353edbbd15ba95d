import { allOf, alwaysOf, anyOf, type Condition, type Expr, sameExpr, Teller, writeExpr } from '../logic';
import type { TenthUm } from '../measure';
import { besidesOf, type NamedRoute, names, needsOf, type OptionView, OWN, optionsAt, type Scheme } from '../patterns';
import type { TurnoutPosition } from '../survey';
import { aspectTree, type TreeBranch } from './aspect-tree';
import { type AutomaticView, automaticAt } from './automatic-view';
import type { Design } from './check-design';

export interface SignalView {
  id: string;
  name: string;
  rear: string;
  routes: {
    id: string;
    to: string;
    /** Somebody has to set it. */
    commanded: boolean;
    blocks: string[];
    points: { turnout: string; position: TurnoutPosition }[];
    length: TenthUm;
    ending: string;
    /** It has to be free. */
    watched: boolean;
    /** It is never cleared for it, whatever happens. */
    never: boolean;
    /** All that must be so before it is cleared, and the pattern that asks for it. */
    needs: { says: string; pattern: string }[];
    /** Each of these alone clears it, whatever stands there. */
    besides: { says: string; pattern: string }[];
    /** What it shows once it is cleared for it, by what lies beyond. */
    branches: TreeBranch[];
  }[];
  /** What it shows while it is cleared for none of them. */
  stop: string;
  /** What can be set about the patterns that work there. */
  options: OptionView[];
  /** What works there by itself. */
  automatic: AutomaticView[];
  /** A rule of somebody’s own decides whether it may proceed, whatever its routes say: as people write it. */
  proceeds?: string;
}

/** What a signal protects, route by route, as its rules stand; undefined where there is no such signal. */
export function viewSignal({ scheme, system }: Design, id: string): SignalView | undefined {
  const { program } = system;
  const { partition, readings, routesOf } = scheme;
  const blockName = (index: number) => partition.blocks[index]!.name;
  const reading = readings.find(({ signal }) => signal.id === id);
  if (!reading) return undefined;
  const tree = aspectTree(scheme, program, reading);
  const set = new Set(system.commanded.flatMap(({ signal, route }) => (signal === reading.index ? [route] : [])));
  const teller = new Teller(program);
  const isAlways = alwaysOf(program);
  const proceed = teller.ruleOf(names.proceed(reading.signal));
  return {
    id,
    stop: tree.stop,
    options: optionsAt(scheme, 'signal', reading.signal),
    automatic: automaticAt(system, [id]),
    name: reading.signal.name,
    rear: blockName(reading.rear),
    ...(proceed?.why?.pattern === OWN && { proceeds: writeExpr(proceed.expr!, program.called) }),
    routes: routesOf[reading.index]!.map((named) => {
      const { route, id: leadsTo, to } = named;
      const { needs, besides, asks } = conditionsOf(scheme, teller, named);
      return {
        id: leadsTo,
        to,
        commanded: set.has(leadsTo),
        blocks: route.blocks.map((b) => blockName(b.block)),
        points: route.conditions.map((c) => ({ turnout: partition.graph.motors[c.motor]!.name, position: c.position })),
        length: route.length,
        ending: route.ending.kind,
        watched: asks.some((expr) => expr.op === 'name' && expr.name === names.free(named)),
        never: isAlways(names.go(named)) === 0,
        needs,
        besides,
        branches: tree.routes[leadsTo]!,
      };
    }),
  };
}

/** What a signal is cleared for a route by, read off its rule; in the words of the patterns where these put it there. */
function conditionsOf(
  scheme: Scheme,
  teller: Teller,
  named: NamedRoute,
): { needs: Condition[]; besides: Condition[]; asks: readonly Expr[] } {
  const rule = teller.ruleOf(names.go(named));
  const known = [...needsOf(scheme, named), ...besidesOf(scheme, named)];
  const tell = (expr: Expr): Condition => {
    const term = known.find((one) => sameExpr(one.expr, expr));
    return term
      ? { says: term.says, pattern: term.pattern }
      : { says: teller.say(expr), pattern: rule?.why?.pattern ?? '' };
  };
  const [first, ...others] = rule?.expr ? anyOf(rule.expr) : [];
  if (!first) return { needs: [{ says: 'never', pattern: rule?.why?.pattern ?? '' }], besides: [], asks: [] };
  /** That it may be granted is a rule of its own, of all that is asked for. */
  const may = names.may(named);
  const asks = allOf(first).flatMap((part) => {
    const granted = part.op === 'name' && part.name === may ? teller.ruleOf(may)?.expr : undefined;
    return granted ? allOf(granted) : [part];
  });
  return { needs: asks.map(tell), besides: others.map(tell), asks };
}
