import { lampsOut } from '../kinds';
import { isWired } from '../patterns';
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

/** One push was missed, or was one too many. A contact of the points cannot come to differ from them so. Common practice, no source. */
export const controlDrifted = faultKind({
  title: 'A control that steps at each push is one aspect off',
  says: (name) => `the control of ${name}, which steps to the next aspect at each push, is one aspect off`,
  at: ['aspect', 'read'],
  strikes: ({ readings }, of) => !isWired(readings[of]!.signal),
  puts(system, of, was) {
    const numbers = numbersOf(system, of);
    return numbers[(numbers.indexOf(was) + 1) % numbers.length];
  },
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
