import type { Finding } from '../findings';
import { ADMISSIONS } from '../kinds';
import { showLength, type TenthUm } from '../measure';
import {
  type FlankGuard,
  flankProtection,
  flanksOf,
  guardsOf,
  holdsNothing,
  type NamedRoute,
  type Scheme,
} from '../patterns';
import type { Edit } from '../survey';
import { routesIn } from './route-conflicts';

/** One way by which something can come to the side of routes, with what could hold it off, and these routes. */
interface OpenSide {
  at: { id: string; name: string };
  line: string;
  from: TenthUm;
  guard: Exclude<FlankGuard, { by: 'signal' }>;
  routes: NamedRoute[];
}

/** Tracks that come to the side of a route, outside of areas in which crews look out for each other, and neither a signal nor points that are asked to lie so hold off what stands there. */
export function flankFindings(scheme: Scheme): Finding<Edit>[] {
  const { document, partition } = scheme;
  return openSides(scheme).map(({ at, line, from, guard, routes }): Finding<Edit> => {
    const track = document.lines.find(({ id }) => id === line)!.name;
    const beside = sayRoutes(routes);
    const place = `${track} at ${showLength(from, document.shownUnit)}`;
    const common = { kind: 'side of a route that nothing guards', subject: at.id } as const;
    if (guard.by === 'end')
      return {
        ...common,
        id: `flank ${at.id} ${line}`,
        /** Where trains come from there, that nothing protects the points is told, as grave as it is. */
        severity: 'note',
        says: `Nothing holds off what stands before ${at.name} by ${place}: no signal, and no points that lead it aside. It can roll or drive into the side of ${beside}.`,
        figures: [],
        advice: 'Place a signal there, or points that lead aside; or see that nothing stands there.',
        fixes: [],
      };
    const { name, id, points } = partition.graph.motors[guard.motor]!;
    const thing = partition.graph.points[points]!;
    return {
      ...common,
      id: `flank ${at.id} ${line} ${id}`,
      severity: 'check',
      says: `What comes by ${place} to ${at.name} can run into the side of ${beside}. ${name} would lead it aside while it lies ${guard.position}, but nobody asks that of it.`,
      figures: [],
      fixes: [
        {
          says: `Let ${thing.name} guard the routes beside it`,
          edit: { do: 'use pattern', id: thing.id, pattern: flankProtection.id, on: true },
        },
      ],
    };
  });
}

function openSides(scheme: Scheme): OpenSide[] {
  const found = new Map<string, OpenSide>();
  for (const route of routesIn(scheme)) {
    if (holdsNothing(route.reading.signal)) continue;
    for (const { at, line, from, guards } of flanksOf(scheme, route)) {
      if (guards.every(({ by }) => by === 'signal')) continue;
      const ends = guards.flatMap((guard) => (guard.by === 'end' ? [guard] : []));
      if ([{ line, at: from }, ...placesOf(scheme, at.id), ...ends].some((place) => isOnSight(scheme, place))) continue;
      for (const guard of guards) {
        if (guard.by === 'signal') continue;
        const { motors } = scheme.partition.graph;
        const isAsked = guardsOf(scheme, route).some(
          ({ motor, position }) =>
            guard.by === 'points' && motor === motors[guard.motor] && position === guard.position,
        );
        if (isAsked) continue;
        const key = `${at.id} ${line} ${guard.by === 'points' ? guard.motor : ''}`;
        const known = found.get(key);
        if (!known) found.set(key, { at, line, from, guard, routes: [route] });
        else if (!known.routes.includes(route)) known.routes.push(route);
      }
    }
  }
  return [...found.values()];
}

/** A place in an area, or at its edge, into which nobody is let by signals. */
const isOnSight = ({ document: { areas } }: Scheme, { line, at }: { line: string; at: TenthUm }): boolean =>
  areas.some(
    ({ admits, line: on, from, to }) =>
      admits !== undefined && !ADMISSIONS[admits].signals && on === line && at >= from.tenthUm && at <= to.tenthUm,
  );

const placesOf = ({ document: { turnouts, crossings } }: Scheme, id: string): { line: string; at: TenthUm }[] =>
  [
    ...turnouts,
    ...crossings.flatMap(({ id: of, a, b }) => [
      { ...a, id: of },
      { ...b, id: of },
    ]),
  ]
    .filter((one) => one.id === id)
    .map(({ line, at }) => ({ line, at: at.tenthUm }));

function sayRoutes(routes: readonly NamedRoute[]): string {
  const [first, ...others] = routes.map(({ reading, to }) => `${reading.signal.name} to ${to}`);
  if (others.length === 0) return first!;
  return others.length === 1 ? `${first} and ${others[0]}` : `${first} and ${others.length} more routes`;
}
