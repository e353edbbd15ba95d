import { type OptionView, optionsAt } from '../patterns';
import { type Refusal, refusalOf } from '../system';
import type { Design } from './check-design';

/** What holds each motor of some points, as the rules stand. */
export interface PointsView {
  /** What can be set about the patterns that work there. */
  options: OptionView[];
  motors: (Refusal & {
    id: string;
    name: string;
    /** What drives it asks for its lock, so that it is locked or free to move at any time. */
    locks: boolean;
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
    motors: motors.map(({ id: motor, name, index }) => ({
      id: motor,
      name,
      locks: system.locks[index] !== undefined,
      ...refusalOf(system, index),
    })),
  };
}
