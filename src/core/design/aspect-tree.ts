import type { AspectSystem } from '../kinds';
import { type Program, presentValue } from '../logic';
import { expectedOf, names, type Scheme } from '../patterns';
import type { SignalReading } from '../signals';
import { systemOf } from '../survey';

/** What a signal shows for one of its routes, by what lies beyond. */
export interface TreeBranch {
  /** What has to be so beyond the route; empty where nothing there matters. */
  when: string[];
  aspect: string;
}
export interface AspectTree {
  /** While it is cleared for none of its routes. */
  stop: string;
  /** Of each route, by its id. */
  routes: Record<string, TreeBranch[]>;
}

/** Values of names that are put as so; whatever else the rule asks is not known. */
type Put = ReadonlyMap<string, number>;

/** A state of what lies beyond a route, for people: where the next signal leads, as far as that matters. */
interface State {
  says: string;
  leads?: string;
  put: Put;
}
/** Each in words; where a signal that leads straight on comes to the same as one that leads aside, it is not said where it leads. */
function sayStates(states: readonly State[]): string[] {
  const leading = new Map<string, string | undefined>();
  for (const { says, leads } of states) leading.set(says, leading.has(says) ? undefined : leads);
  return [...leading].map(([says, leads]) => (leads ? `${says}, ${leads}` : says));
}

/** What each state of the routes and of the next signals makes of a signal, read off its own rule in the program. */
export function aspectTree(scheme: Scheme, program: Program, reading: SignalReading): AspectTree {
  const { document, routesOf, aspects } = scheme;
  const rule = program.declarations.find(({ name }) => name === names.shows(reading.signal))!;
  const shownWith = (put: Put): string | undefined => {
    const present = {
      enums: program.enums,
      typeOf: (name: string) => program.declarations.find((one) => one.name === name)?.type,
      read: (name: string) => put.get(name),
    };
    const shows = presentValue(rule.expr!, present, 'aspect');
    return shows === undefined ? undefined : aspects[shows]!.id;
  };
  /** What holds it back, each by its name: none of them, or one alone. */
  const held = expectedOf(scheme, reading).flatMap(({ expr, says }) =>
    expr.op === 'name' ? [{ name: expr.name, says }] : [],
  );
  const free = held.map(({ name }): [string, number] => [name, 0]);
  const own = routesOf[reading.index]!;
  const routes = own.map((route) => {
    const cleared = new Map<string, number>([[names.proceed(reading.signal), 1], ...free]);
    for (const other of own) cleared.set(names.go(other), other === route ? 1 : 0);
    const { ending } = route.route;
    const next = ending.kind === 'signal' ? scheme.readings[ending.signal]! : undefined;
    const branches: { aspect: string; states: State[] }[] = [];
    const last: State[] = next ? beyond(scheme, next) : [{ says: 'nothing holds it back', put: new Map() }];
    const holding = held.map(({ name, says }): State => ({ says, put: new Map([...last.at(-1)!.put, [name, 1]]) }));
    for (const state of [...holding, ...last]) {
      const aspect = shownWith(new Map([...cleared, ...state.put]));
      if (aspect === undefined) continue;
      const known = branches.find((branch) => branch.aspect === aspect);
      if (known) known.states.push(state);
      else branches.push({ aspect, states: [state] });
    }
    const tree = branches.map(({ aspect, states }) => ({
      aspect,
      when: branches.length === 1 ? [] : sayStates(states),
    }));
    return [route.id, tree] as const;
  });
  return { stop: systemOf(document, reading.signal.system).aspects[0].id, routes: Object.fromEntries(routes) };
}

/** The states of the next signal that a signal before it can tell apart. */
function beyond(scheme: Scheme, { index, signal }: SignalReading): State[] {
  const system = systemOf(scheme.document, signal.system);
  const farthest = Math.max(0, ...scheme.aspects.map(({ stopsIn }) => (Number.isFinite(stopsIn) ? stopsIn : 0)));
  const routes = scheme.routesOf[index]!;
  const state = (proceeds: boolean, aside: boolean | undefined, stops: number): Put =>
    new Map<string, number>([
      [names.proceed(signal), proceeds ? 1 : 0],
      ...routes.map((route): [string, number] => [
        names.go(route),
        proceeds && route.route.aside === (aside ?? route.route.aside) ? 1 : 0,
      ]),
      ...Array.from({ length: farthest }, (_, i): [string, number] => [
        names.stopsIn(signal, i + 1),
        stops === i + 1 ? 1 : 0,
      ]),
    ]);
  const leads = [false, true].filter((aside) => routes.some(({ route }) => route.aside === aside));
  const going = leads.flatMap((aside) =>
    [...Array.from({ length: Math.max(0, farthest - 1) }, (_, i) => i + 1), Number.POSITIVE_INFINITY].map((stops) => ({
      says: `${signal.name} ${saysBeyond(system, stops)}`,
      leads: leads.length > 1 ? (aside ? 'aside' : 'straight on') : undefined,
      put: state(true, leads.length > 1 ? aside : undefined, stops),
    })),
  );
  return [{ says: `${signal.name} at ${system.aspects[0].id}`, put: state(false, undefined, 0) }, ...going];
}

const saysBeyond = (system: AspectSystem, stops: number): string => {
  if (!Number.isFinite(stops)) return 'shows proceed';
  const announcing = system.aspects.find(({ stopsIn }) => stopsIn === stops);
  return announcing
    ? `at ${announcing.id}`
    : `shows proceed up to a stop ${stops === 1 ? 'at the next' : `${stops} signals on`}`;
};
