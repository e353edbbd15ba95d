import type { Expr, Program } from '../logic';
import { names } from '../patterns';

/**
 * The names of the locks, all of which must be off, that stand between a request for a turnout and everything it can do. None
 * when some rule reads the request in another way.
 */
export function locksOf(program: Program, motor: { id: string }): string[] {
  const asks = [names.ask(motor, 'straight'), names.ask(motor, 'diverging')];
  const reads = (expr: Expr | undefined) => asks.some((ask) => JSON.stringify(expr)?.includes(JSON.stringify(ask)));
  const readers = program.declarations.filter(({ expr }) => reads(expr));
  const locks = readers.map(({ name, expr }) => {
    const lock = name.replace(/^drive\./, 'locked.');
    const guarded = (part: Expr) =>
      part.op === 'and' && part.of.some((p) => p.op === 'not' && p.of.op === 'name' && p.of.name === lock);
    return expr?.op === 'RS' && guarded(expr.set) && guarded(expr.reset) ? lock : undefined;
  });
  return locks.every((lock) => lock !== undefined) ? locks : [];
}
