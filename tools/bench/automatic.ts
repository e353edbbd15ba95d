import { checkDesign, exploreCycle } from '../../src/core/design';
import { type LayoutDocument, signalsOf } from '../../src/core/survey';
import { compileSystem } from '../../src/core/system';
import { EXAMPLES, exampleLayout } from '../../src/demo/examples';
import { generatedLine } from '../../src/demo/generated';
import type { CoreFigure } from './figure';

const CYCLES = ['turns', 'three', 'pulse', 'push', 'overtaken', 'roam'];

/** A line of forty blocks on which trains set the route of every signal. */
function workedByTrains(): LayoutDocument {
  const d = generatedLine(40);
  for (const signal of signalsOf(d)) signal.patterns = ['trains set routes'];
  return d;
}

export const automaticFigures: readonly CoreFigure[] = [
  {
    name: 'cycle of an example with its own trains, the longest',
    unit: 'ms',
    most: 1000,
    times: 3,
    warming: 1,
    ready() {
      const designs = CYCLES.map((id) => checkDesign(exampleLayout(EXAMPLES.find((one) => one.id === id)!)));
      return () => {
        const took = designs.map((design) => {
          const from = performance.now();
          const work = exploreCycle(design);
          while (!work.next().done);
          return performance.now() - from;
        });
        return Math.max(...took);
      };
    },
  },
  {
    name: 'automatic working of 40 blocks compiled',
    unit: 'ms',
    most: 50,
    times: 15,
    ready() {
      const line = workedByTrains();
      return () => void compileSystem({ ...line, features: [...line.features] }).compiled;
    },
  },
];
