import { lampsOut } from '../kinds';
import type { System } from '../system';
import { faultKind } from './kind';

/** The aspects of a signal by their numbers in the rules, the most restrictive first. */
const numbersOf = ({ aspectSystems, aspects }: System, of: number): number[] =>
  aspectSystems[of]!.aspects.map((aspect) => aspects.findIndex(({ id }) => id === aspect.id));

/** The lamp is out that makes most of what is shown. */
export const lampOut = faultKind({
  title: 'A lamp is out',
  says: (name) => `a lamp of ${name} is out`,
  at: ['aspect', 'read'],
  puts(system, of, was) {
    const numbers = numbersOf(system, of);
    const { aspects } = system.aspectSystems[of]!;
    const left = lampsOut(system.aspectSystems[of]!)
      .filter(({ aspect }) => aspects.indexOf(aspect) === numbers.indexOf(was))
      .map(({ read }) => (read ? aspects.indexOf(read) : 0));
    return left.length === 0 ? was : numbers[Math.max(...left)];
  },
  compared: true,
});

export const signalDead = faultKind({
  title: 'Its wire breaks, or its relay is dead',
  says: (name) => `the wire of ${name} is broken, or its relay is dead`,
  at: ['aspect', 'read'],
  puts(system, of) {
    const { broken } = system.readings[of]!.signal;
    return broken && numbersOf(system, of).at(broken === 'stop' ? 0 : -1);
  },
  compared: true,
});
