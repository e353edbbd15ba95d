import { checkDesign } from '../../src/core/design';
import { fewestAxles } from '../../src/core/detection';
import { suggestGaps, usualWishes } from '../../src/core/divide';
import { compileProgram, Emitted, Interpreter } from '../../src/core/logic';
import { type Rehearsal, replay, TICK_MS } from '../../src/core/simulation';
import { compileSystem } from '../../src/core/system';
import { straighten } from '../../src/core/track';
import { generatedLine, generatedYard } from '../../src/demo/generated';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { automaticFigures } from './automatic';
import { coverageOfTraffic, uncut } from './coverage';
import type { CoreFigure } from './figure';
import { manyRules, scanMs } from './many-rules';
import { proofFigures } from './proofs';
import { signalFigures } from './signals';

const HALF_HOUR = 1_800_000 / TICK_MS;

/** What the core takes for what, without server or page: run from one bundle, as users do. */
export const CORE_FIGURES: readonly CoreFigure[] = [
  {
    name: 'sections, rules and findings, 100 blocks',
    unit: 'ms',
    most: 15,
    times: 41,
    warming: 20,
    ready() {
      const line = generatedLine(100);
      return () => void checkDesign(line);
    },
  },
  {
    name: 'sections, rules and findings, 1000 blocks',
    unit: 'ms',
    most: 120,
    times: 11,
    ready() {
      const line = generatedLine(1000);
      return () => void checkDesign(line);
    },
  },
  {
    name: 'straightened drawing, 1000 blocks',
    unit: 'ms',
    times: 5,
    ready() {
      const line = generatedLine(1000);
      return () => void straighten({ ...line });
    },
  },
  {
    name: 'rule program compiled, 100 blocks',
    unit: 'ms',
    times: 5,
    ready() {
      const { program } = compileSystem(generatedLine(100));
      return () => void compileProgram(program);
    },
  },
  {
    name: 'fewest resistor axles, 60 wagons and 10 trains',
    unit: 'ms',
    most: 2000,
    times: 5,
    warming: 1,
    ready: () => () => void fewestAxles(generatedYard(60, 10), { blind: 3_000_000, tail: 400_000 }),
  },
  {
    name: 'suggested gaps, 100 blocks',
    unit: 'ms',
    most: 500,
    times: 9,
    ready() {
      const [line, cut] = [uncut(100), generatedLine(100)];
      return () => void suggestGaps(line, { ...usualWishes(cut), trains: 80 });
    },
  },
  {
    name: 'suggested gaps, 1000 blocks',
    unit: 'ms',
    times: 3,
    warming: 1,
    ready() {
      const [line, cut] = [uncut(1000), generatedLine(1000)];
      return () => void suggestGaps(line, { ...usualWishes(cut), trains: 700 });
    },
  },
  {
    name: 'what sensors say of 20 trains in each of 100 blocks',
    unit: 'ms',
    most: 30,
    times: 9,
    ready: coverageOfTraffic,
  },
  ...signalFigures,
  ...automaticFigures,
  {
    name: '5,000 equations, one scan, emitted',
    unit: 'ms',
    most: 0.1,
    times: 11,
    ready: () => scanMs(new Emitted(manyRules(5000), false)),
  },
  {
    name: '5,000 equations, one scan, interpreted',
    unit: 'ms',
    times: 11,
    ready: () => scanMs(new Interpreter(manyRules(5000), false)),
  },
  {
    name: '5,000 equations emitted and started',
    unit: 'ms',
    times: 5,
    ready() {
      const compiled = manyRules(5000);
      return () => void new Emitted(compiled);
    },
  },
  {
    name: 'demo rehearsed, without the server',
    unit: 'x real time',
    least: 10_000,
    times: 5,
    warming: 2,
    ready() {
      const document = ondrelValley();
      return () => {
        const from = performance.now();
        const run: Rehearsal = replay(compileSystem(document), 1, HALF_HOUR, []);
        if (run.tick !== HALF_HOUR) throw new Error('It stopped short.');
        return 1_800_000 / (performance.now() - from);
      };
    },
  },
  ...proofFigures,
];
