import type { Expr, Program } from './expr';
import { type Present, presentValue } from './present-value';

/** More cases than this are not gone through, and fewer of a long condition: so many of its parts are looked at. */
const MOST_CASES = 100_000;
const MOST_PARTS = 5_000_000;

/** Nothing can be said: there are too many cases. */
export const TOO_MANY = 'too many cases';

/**
 * The value that a condition has whatever its names are; undefined where it can be both. It is exact: every name is free, one
 * of an enumeration in each of its values, and so is every memory inside.
 */
export function constantOf(
  expr: Expr,
  { enums }: Pick<Program, 'enums'>,
  typeOf: (name: string) => string | undefined,
): 0 | 1 | undefined | typeof TOO_MANY {
  const free = new Map<string, number>();
  const memories = new Map<string, string>();
  const note = (name: string) => free.set(name, enums[typeOf(name) ?? '']?.length ?? 2);
  let parts = 0;
  const plain = (part: Expr): Expr => {
    parts += 1;
    switch (part.op) {
      case 'name':
        note(part.name);
        return part;
      case 'previous': {
        const name = `before ${part.name}`;
        free.set(name, enums[typeOf(part.name) ?? '']?.length ?? 2);
        return { op: 'previous', name: part.name };
      }
      case 'not':
        return { op: 'not', of: plain(part.of) };
      case 'and':
      case 'or':
        return { op: part.op, of: part.of.map(plain) };
      case 'is':
        return { op: 'is', left: plain(part.left), right: plain(part.right) };
      case 'if': {
        const [when, then, otherwise] = [plain(part.when), plain(part.then), plain(part.otherwise)];
        return { op: 'if', when, then, otherwise };
      }
      case 'true':
      case 'false':
      case 'value':
        return part;
      default: {
        const key = JSON.stringify(part);
        const name = memories.get(key) ?? `memory ${memories.size}`;
        memories.set(key, name);
        free.set(name, 2);
        return { op: 'name', name };
      }
    }
  };
  const whole = plain(expr);
  const names = [...free];
  const most = Math.min(MOST_CASES, MOST_PARTS / parts);
  const put = new Map<string, number>();
  const present: Present = {
    enums,
    typeOf,
    read: (name, before) => put.get(before ? `before ${name}` : name),
  };
  const met = new Set<number>();
  let cases = 0;
  const look = (at: number): void => {
    if (met.size === 2 || ++cases > most) return;
    const value = presentValue(whole, present);
    if (value !== undefined) {
      met.add(value);
      return;
    }
    const [name, count] = names[at]!;
    for (let v = 0; v < count; v++) {
      put.set(name, v);
      look(at + 1);
    }
    put.delete(name);
  };
  look(0);
  if (met.size === 2) return undefined;
  if (cases > most) return TOO_MANY;
  return [...met][0] as 0 | 1;
}

/** Every memory in a condition, itself included: its set or input, and its reset. */
export function memoriesIn(
  expr: Expr,
  into: Extract<Expr, { op: 'SR' | 'RS' }>[] = [],
): Extract<Expr, { op: 'SR' | 'RS' }>[] {
  switch (expr.op) {
    case 'SR':
    case 'RS':
      into.push(expr);
      memoriesIn(expr.set, into);
      memoriesIn(expr.reset, into);
      break;
    case 'not':
      memoriesIn(expr.of, into);
      break;
    case 'and':
    case 'or':
      for (const part of expr.of) memoriesIn(part, into);
      break;
    case 'if':
      for (const part of [expr.when, expr.then, expr.otherwise]) memoriesIn(part, into);
      break;
    case 'TON':
    case 'TOF':
    case 'TP':
    case 'R_TRIG':
    case 'F_TRIG':
      memoriesIn(expr.in, into);
      break;
  }
  return into;
}
