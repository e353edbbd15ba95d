import { allOf, anyOf, type Expr, namesRead, Teller } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { System } from './system';
import type { Terminal } from './terminals';

/** When a request for the points of a motor does nothing, read off the rule that drives it. */
export interface Refusal {
  /** While any of these is so, in sentences. */
  while: string[];
  /** Of those sentences that are one name of the rules, that name. */
  rules: Readonly<Record<string, string>>;
  /** By the drive’s own rule nothing more can be told than its text: it is no memory of requests. */
  otherwise?: string;
}

/** The rule that a drive is guarded by, both ways: what people call its lock. Undefined where the rule that drives it asks for none. */
export function lockOf(
  { terminals, program }: Pick<System, 'terminals' | 'program'>,
  motor: number,
): Terminal | undefined {
  const [drive, lock] = [terminals.wanted('drive', motor), terminals.find('locked', motor)];
  const expr = drive && program.declarations.find(({ name }) => name === drive.name)?.expr;
  if (!lock || (expr?.op !== 'RS' && expr?.op !== 'SR')) return undefined;
  const guards = (part: Expr) =>
    allOf(part).some((one) => one.op === 'not' && one.of.op === 'name' && one.of.name === lock.name);
  return guards(expr.set) && guards(expr.reset) ? lock : undefined;
}

/** What holds a motor where it lies, whatever is asked. */
export function refusalOf({ terminals, program }: System, motor: number): Refusal {
  const teller = new Teller(program);
  const drive = terminals.wanted('drive', motor);
  const expr = drive && teller.ruleOf(drive.name)?.expr;
  if (!expr) return { while: [], rules: {} };
  const asks = new Set(terminals.ofKind('request').map(({ name }) => name));
  const isAsked = (part: Expr) => [...namesRead(part)].some((name) => asks.has(name));
  if (expr.op !== 'RS' && expr.op !== 'SR') return { while: [], rules: {}, otherwise: teller.say(expr) };
  const guards = [expr.set, expr.reset].map((side) => allOf(side).filter((part) => !isAsked(part)));
  const told = new Map<string, string | undefined>();
  for (const guard of guards.flat())
    for (const part of againstIt(teller, guard)) told.set(teller.say(part), part.op === 'name' ? part.name : undefined);
  const named = [...told].filter((one): one is [string, string] => one[1] !== undefined);
  return { while: [...told.keys()], rules: Object.fromEntries(named) };
}

/** What makes a guard false: of a lock, each thing that sets it. */
function againstIt(teller: Teller, guard: Expr): readonly Expr[] {
  if (guard.op !== 'not') return [{ op: 'not', of: guard }];
  const { of } = guard;
  const rule = of.op === 'name' ? teller.ruleOf(of.name) : undefined;
  if (rule?.terminal?.kind !== 'locked' || !rule.expr) return [of];
  return anyOf(rule.expr);
}

/** What throws a motor without anybody asking for it, by the position, in sentences read off its rule. */
export function thrownBy({ terminals, program }: System, motor: number): Record<TurnoutPosition, string[]> {
  const teller = new Teller(program);
  const drive = terminals.wanted('drive', motor);
  const expr = drive && teller.ruleOf(drive.name)?.expr;
  if (expr?.op !== 'RS' && expr?.op !== 'SR') return { straight: [], diverging: [] };
  const asks = new Set(terminals.ofKind('request').map(({ name }) => name));
  const read = (part: Expr) => [...namesRead(part)];
  const of = (side: Expr): string[] =>
    allOf(side)
      .filter((part) => read(part).some((name) => asks.has(name)))
      .flatMap((part) => anyOf(part))
      .map((part) => allOf(part).filter((one) => !(one.op === 'not' && read(one).some((name) => asks.has(name)))))
      .filter((parts) => parts.length > 0 && !parts.some((one) => read(one).some((name) => asks.has(name))))
      .map((parts) => parts.map((one) => teller.say(one)).join('. '));
  return { straight: of(expr.reset), diverging: of(expr.set) };
}

/** Whether the rule that drives a motor reads a request to lie otherwise than so, which is made now. */
export function isAskedOtherwise(
  { terminals, program }: System,
  values: Int32Array,
  motor: number,
  to: string,
): boolean {
  const drive = terminals.wanted('drive', motor);
  const expr = drive && program.declarations.find(({ name }) => name === drive.name)?.expr;
  if (!expr) return false;
  const read = namesRead(expr);
  return terminals
    .ofKind('request')
    .some(({ name, which, slot }) => read.has(name) && which !== to && values[slot] === 1);
}
