import { type Expr, namesRead } from '../../logic';
import type { System } from '../../system';

/**
 * The locks, by their places among the values, all of which must be off for a request for a motor to do anything: they stand between it and every rule that
 * reads it. None when some rule reads the request in another way.
 */
export function locksOf({ terminals, program, partition }: System, motor: number): number[] {
  const asks = new Set(terminals.ofKind('request').flatMap(({ of, name }) => (of === motor ? [name] : [])));
  const motorOf = new Map(partition.graph.motors.map((_, m) => [terminals.wanted('drive', m)?.name, m]));
  const locks: number[] = [];
  for (const { name, expr } of program.declarations) {
    if (!expr || ![...namesRead(expr)].some((read) => asks.has(read))) continue;
    const driven = motorOf.get(name);
    const lock = driven === undefined ? undefined : terminals.find('locked', driven);
    if (!lock || expr.op !== 'RS' || !isGuarded(expr.set, lock.name) || !isGuarded(expr.reset, lock.name)) return [];
    locks.push(lock.slot);
  }
  return locks;
}

const isGuarded = (part: Expr, lock: string): boolean =>
  part.op === 'and' && part.of.some((one) => one.op === 'not' && one.of.op === 'name' && one.of.name === lock);
