import { and, type Expr, name, or } from '../logic';
import { groupOf } from './groups';
import * as names from './names';
import type { Pattern } from './pattern';
import type { Scheme } from './scheme';

/** Points are locked while a train is cleared over them, or was a moment ago: it may be about to take the route. */
export const routeLocking: Pattern = {
  id: 'route locking',
  lock(scheme, motor, book) {
    const { id: about, name: called } = motor;
    const over = groupOf(scheme, motor).flatMap(({ index }) => clearedOver(scheme, index));
    book.rule(
      names.cleared(motor),
      'bool',
      { op: 'TOF', in: or(...over), ms: scheme.releaseMs, starts: true },
      {
        about,
        yes: `A train is cleared over ${called}, or was a moment ago`,
        no: `No train is cleared over ${called}`,
      },
    );
    return [{ expr: name(names.cleared(motor)), says: 'a train is cleared over it, or was a moment ago' }];
  },
};

/** A route over a motor is cleared and a train in rear of its signal may be about to take it. */
function clearedOver(scheme: Scheme, motor: number): Expr[] {
  const bySignal = new Map<number, Expr[]>();
  for (const route of scheme.routesOver[motor]!) {
    const { index } = route.reading;
    bySignal.set(index, [...(bySignal.get(index) ?? []), name(names.go(route))]);
  }
  return [...bySignal].map(([signal, routes]) => {
    const rear = scheme.partition.blocks[scheme.readings[signal]!.rear]!;
    return and(or(...routes), name(names.occupied(rear)));
  });
}
