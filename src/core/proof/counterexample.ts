import type { Explorer } from './explore';
import { type Course, choiceOf, indexOf, kindOf, moveOf } from './moves';

/** Where no train runs. */
const NO_COURSE: Course = { runMm: 0, longMm: 0 };

/** One thing that is done in a step: its kind by number in MOVES, which thing, and which choice. */
export interface Deed extends Course {
  kind: number;
  index: number;
  choice: number;
}

/** One step of a counterexample, in words: one thing that is done, or two within one scan. */
export interface CounterexampleStep {
  says: string;
  deeds: Deed[];
  /** Signals that go to stop in it, and motors of points that begin to move, or to lie. */
  drops: number[];
  moved: number[];
}

/** Tells the way to a state and one step on from it, in words. `at` is called with the model before each step, and after the last. */
export function tellCounterexample(
  explorer: Explorer,
  to: number,
  last?: number,
  at?: () => void,
): CounterexampleStep[] {
  const { model } = explorer;
  const codes = [...explorer.path(to), ...(last === undefined ? [] : [last])];
  const state = new Int32Array(model.words);
  explorer.search.set.read(0, state);
  model.unpack(state);
  const steps: CounterexampleStep[] = [];
  const atStop = () => model.system.readings.map((_, signal) => model.isAtStop(signal));
  const lying = () => [...model.present.turnouts];
  for (const code of codes) {
    at?.();
    const [before, lay] = [atStop(), lying()];
    const parts = model.pairs.partsOf(code);
    const says = parts.map((part) => moveOf(part).tell(model, indexOf(part), choiceOf(part)));
    const together = says.map((text, i) => (i === 0 ? text : text[0]!.toUpperCase() + text.slice(1)));
    const [drops, moved]: [number[], number[]] = [[], []];
    steps.push({
      drops,
      moved,
      says: parts.length === 1 ? together[0]! : `At once: ${together.join(' ')}`,
      deeds: parts.map((part) => {
        const [index, choice] = [indexOf(part), choiceOf(part)];
        return { kind: kindOf(part), index, choice, ...(moveOf(part).course?.(model, index, choice) ?? NO_COURSE) };
      }),
    });
    model.apply(code);
    model.unpack(model.pack());
    atStop().forEach((stop, signal) => {
      if (stop && !before[signal]) drops.push(signal);
    });
    lying().forEach((state, motor) => {
      if (state !== lay[motor]) moved.push(motor);
    });
  }
  at?.();
  return steps;
}
