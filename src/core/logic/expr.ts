/**
 * The rule language: a scan program as in IEC 61131-3. Every name is evaluated once a scan; every use of a name reads
 * this scan's value, and only PREVIOUS breaks a cycle. Latches, edges and timers say what they hold at power-up.
 */
export type Expr =
  | { op: 'true' }
  | { op: 'false' }
  /** A value of an enumeration; which one follows from the other side of the comparison or from the rule's type. */
  | { op: 'value'; value: string }
  | { op: 'name'; name: string }
  | { op: 'previous'; name: string }
  | { op: 'not'; of: Expr }
  | { op: 'and'; of: Expr[] }
  | { op: 'or'; of: Expr[] }
  | { op: 'is'; left: Expr; right: Expr }
  | { op: 'if'; when: Expr; then: Expr; otherwise: Expr }
  /** SR: set dominates. RS: reset dominates. */
  | { op: 'SR' | 'RS'; set: Expr; reset: Expr; starts: boolean }
  | { op: 'TON' | 'TOF' | 'TP'; in: Expr; ms: number; starts: boolean }
  /** Edges; `starts` is the remembered input, so that a standing input is no edge at power-up. */
  | { op: 'R_TRIG' | 'F_TRIG'; in: Expr; starts: boolean };

export type Role = 'input' | 'rule' | 'output';

export interface Declaration {
  name: string;
  /** 'bool' or the name of an enumeration. */
  type: string;
  role: Role;
  /** Absent for inputs. */
  expr?: Expr;
  /** Of a rule of somebody's own: what was generated in its place; not part of the text form. */
  generated?: Expr;
  /** Why it exists; not part of the text form. */
  why?: Why;
  /** What it means outside the rules; not part of the text form. */
  terminal?: TerminalMark;
}

/** Of an input, an output or a flag: its kind, the number of what it belongs to, and which of several it is there. */
export interface TerminalMark {
  kind: string;
  of: number;
  which?: string;
}

export interface Why {
  pattern: string;
  /** The id of the thing it serves. */
  about: string;
  /** A sentence for the value true, and one for false; for enumerations, {} stands for the value. */
  yes: string;
  no: string;
  /** When people take it as it is, so that an answer does not go behind it; 'when not' is about another thing than is asked about. */
  fact?: 'always' | 'when so' | 'when not';
}

export interface Program {
  scanMs: number;
  enums: Record<string, string[]>;
  declarations: Declaration[];
  /** What people call the parts of names that are ids; not part of the text form, which is written in their words. */
  called?: Record<string, string>;
}

export const name = (n: string): Expr => ({ op: 'name', name: n });
export const previous = (n: string): Expr => ({ op: 'previous', name: n });
export const value = (v: string): Expr => ({ op: 'value', value: v });
export const not = (of: Expr): Expr => ({ op: 'not', of });
export const is = (left: Expr, right: string): Expr => ({ op: 'is', left, right: value(right) });
export const when = (condition: Expr, then: Expr, otherwise: Expr): Expr => ({
  op: 'if',
  when: condition,
  then,
  otherwise,
});

/** And of terms; none is true, one is itself. */
export function and(...of: Expr[]): Expr {
  return of.length === 0 ? { op: 'true' } : of.length === 1 ? of[0]! : { op: 'and', of };
}
/** Or of terms; none is false, one is itself. */
export function or(...of: Expr[]): Expr {
  return of.length === 0 ? { op: 'false' } : of.length === 1 ? of[0]! : { op: 'or', of };
}

/** The expressions directly inside one. */
export function partsOf(expr: Expr): Expr[] {
  switch (expr.op) {
    case 'not':
      return [expr.of];
    case 'and':
    case 'or':
      return expr.of;
    case 'is':
      return [expr.left, expr.right];
    case 'if':
      return [expr.when, expr.then, expr.otherwise];
    case 'SR':
    case 'RS':
      return [expr.set, expr.reset];
    case 'TON':
    case 'TOF':
    case 'TP':
    case 'R_TRIG':
    case 'F_TRIG':
      return [expr.in];
    default:
      return [];
  }
}

/** Names read in this scan or, by PREVIOUS, of the scan before. */
export function namesRead(expr: Expr, into: Set<string> = new Set()): Set<string> {
  if (expr.op === 'name' || expr.op === 'previous') into.add(expr.name);
  for (const part of partsOf(expr)) namesRead(part, into);
  return into;
}

/** Names read in this scan, PREVIOUS left out. */
export function namesIn(expr: Expr, into: Set<string> = new Set()): Set<string> {
  if (expr.op === 'name') into.add(expr.name);
  for (const part of partsOf(expr)) namesIn(part, into);
  return into;
}

/** With other names, those of the scan before included. */
export function renamed(expr: Expr, rename: (name: string) => string): Expr {
  const into = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(into);
    if (typeof part !== 'object' || part === null) return part;
    const node = Object.fromEntries(Object.entries(part).map(([key, value]) => [key, into(value)])) as Record<
      string,
      unknown
    >;
    if (node.op === 'name' || node.op === 'previous') node.name = rename(node.name as string);
    return node;
  };
  return into(expr) as Expr;
}

/** The longest time that any timer of a program runs, in ms; 0 without timers. */
export function longestTimerMs({ declarations }: Program): number {
  const longest = (expr: Expr): number => Math.max('ms' in expr ? expr.ms : 0, ...partsOf(expr).map(longest));
  return Math.max(0, ...declarations.map(({ expr }) => (expr ? longest(expr) : 0)));
}
