import { contactLoads, isDriven, names, type OptionView, optionsAt, sayThrow } from '../patterns';
import type { TurnoutPosition } from '../survey';
import { type Refusal, refusalOf, thrownBy } from '../system';
import { type AutomaticView, automaticAt } from './automatic-view';
import type { Design } from './check-design';

/** What holds each motor of some points, as the rules stand. */
export interface PointsView {
  /** What can be set about the patterns that work there. */
  options: OptionView[];
  /** What works there by itself. */
  automatic: AutomaticView[];
  /** Rules of somebody’s own by which trains throw it, in words. */
  throwRules: { id: string; says: string }[];
  motors: (Refusal & {
    id: string;
    name: string;
    /** Runs that hold it until their train has arrived: signal and route, in words, and the rule that says whether one is under way. */
    runs: { signal: string; route: string; says: string; rule: string }[];
    /** What drives it asks for its lock, so that it is locked or free to move at any time. */
    locks: boolean;
    /** A person throws it, and its lock holds nothing. */
    byHand: boolean;
    /** What throws it without anybody asking, by the position. */
    thrown: Record<TurnoutPosition, string[]>;
    /** What its contacts work. */
    loads: string[];
  })[];
}

/** Undefined where there are no points of that id, or they have no motor. */
export function viewPoints({ system, scheme }: Design, id: string): PointsView | undefined {
  const { graph } = system.partition;
  const motors = graph.motors.filter(({ points }) => graph.points[points]!.id === id);
  if (motors.length === 0) return undefined;
  const points = [...scheme.document.turnouts, ...scheme.document.crossings].find((one) => one.id === id);
  return {
    options: points ? optionsAt(scheme, 'points', points) : [],
    automatic: automaticAt(
      system,
      motors.map((one) => one.id),
    ),
    throwRules: scheme.document.throwRules
      .filter((rule) => motors.some((one) => one.id === rule.motor))
      .map((rule) => ({ id: rule.id, says: sayThrow(scheme, rule) })),
    motors: motors.map((one) => {
      const { id: motor, name, index } = one;
      return {
        id: motor,
        name,
        byHand: !isDriven(scheme, one),
        loads: contactLoads(scheme, one),
        runs: system.releases
          .filter((release) => release.motors.includes(index))
          .map(({ signal, route, to }) => {
            const { id: from, name: called } = system.readings[signal]!.signal;
            const rule = names.underWay({ reading: { signal: { id: from } }, id: route });
            return { signal: from, route, says: `${called} to ${to}`, rule };
          }),
        locks: system.locks[index] !== undefined,
        thrown: thrownBy(system, index),
        ...refusalOf(system, index),
      };
    }),
  };
}
