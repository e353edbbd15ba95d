import { and, type Expr, name, or } from '../logic';
import type { Motor } from '../track';
import { contactArms } from './contact-arms';
import { routesBeside } from './flank-protection';
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

/** Points are locked while a train is cleared over them, or beside them where they guard its route, or was a moment ago: it may be about to take the route. */
export const routeLocking: Pattern = {
  id: ID,
  options: [RELEASE],
  lock(scheme, motor, book) {
    const { id: about, name: called } = motor;
    const group = groupOf(scheme, motor);
    const over = group.flatMap((one) => clearedOver(scheme, one));
    if (over.length === 0) return [];
    const ms = Math.max(...group.map((one) => optionOf(scheme, RELEASE, pointsOf(scheme, one))));
    const where = group.some((one) => routesBeside(scheme, one).length > 0) ? 'over or beside' : 'over';
    book.rule(
      names.cleared(motor),
      'bool',
      { op: 'TOF', in: or(...over), ms, starts: true },
      {
        about,
        yes: `A train is cleared ${where} ${called}, or was a moment ago`,
        no: `No train is cleared ${where} ${called}`,
      },
    );
    return [{ expr: name(names.cleared(motor)), says: `a train is cleared ${where} it, or was a moment ago` }];
  },
};

/** A route over a motor, or one that it guards, is cleared and a train in rear of its signal may be about to take it. Arms that follow the points clear none. */
function clearedOver(scheme: Scheme, motor: Motor): Expr[] {
  const bySignal = new Map<number, Expr[]>();
  for (const route of [...scheme.routesOver[motor.index]!, ...routesBeside(scheme, motor)]) {
    if (isChosen(contactArms, route.reading.signal)) continue;
    const { index } = route.reading;
    bySignal.set(index, [...(bySignal.get(index) ?? []), name(names.go(route))]);
  }
  return [...bySignal].map(([signal, routes]) => {
    const rear = scheme.partition.blocks[scheme.readings[signal]!.rear]!;
    return and(or(...routes), name(names.occupied(rear)));
  });
}
