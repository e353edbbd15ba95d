import { and, type Expr, name, or } from '../logic';
import { contactArms } from './contact-arms';
import { groupOf } from './groups';
import * as names from './names';
import { isChosen, type Pattern, type PatternOption } from './pattern';
import { pointsOf } from './points-of';
import type { Scheme } from './scheme';
import { optionOf } from './setting-of';

const ID = 'route locking';
const RELEASE: PatternOption = {
  pattern: ID,
  option: 'releaseMs',
  at: 'points',
  says: 'Stays locked after a route over it was put back for, in seconds',
  least: 0,
  most: 600_000,
  usual: ({ releaseMs }) => releaseMs,
};

/** Points are locked while a train is cleared over them, or was a moment ago: it may be about to take the route. */
export const routeLocking: Pattern = {
  id: ID,
  options: [RELEASE],
  lock(scheme, motor, book) {
    const { id: about, name: called } = motor;
    const group = groupOf(scheme, motor);
    const over = group.flatMap(({ index }) => clearedOver(scheme, index));
    if (over.length === 0) return [];
    const ms = Math.max(...group.map((one) => optionOf(scheme, RELEASE, pointsOf(scheme, one))));
    book.rule(
      names.cleared(motor),
      'bool',
      { op: 'TOF', in: or(...over), ms, starts: true },
      {
        about,
        yes: `A train is cleared over ${called}, or was a moment ago`,
        no: `No train is cleared over ${called}`,
      },
    );
    return [{ expr: name(names.cleared(motor)), says: 'a train is cleared over it, or was a moment ago' }];
  },
};

/** A route over a motor is cleared and a train in rear of its signal may be about to take it. Arms that follow the points clear none. */
function clearedOver(scheme: Scheme, motor: number): Expr[] {
  const bySignal = new Map<number, Expr[]>();
  for (const route of scheme.routesOver[motor]!) {
    if (isChosen(contactArms, route.reading.signal)) continue;
    const { index } = route.reading;
    bySignal.set(index, [...(bySignal.get(index) ?? []), name(names.go(route))]);
  }
  return [...bySignal].map(([signal, routes]) => {
    const rear = scheme.partition.blocks[scheme.readings[signal]!.rear]!;
    return and(or(...routes), name(names.occupied(rear)));
  });
}
