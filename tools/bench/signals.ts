import { Bench, checkDesign, lockingTable, proposeSignals, triedFixes } from '../../src/core/design';
import { compileScheme, writeRules } from '../../src/core/patterns';
import { signalsOf } from '../../src/core/survey';
import { generatedLine, generatedStation } from '../../src/demo/generated';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import type { CoreFigure } from './figure';

/** A bench of a hundred blocks on which something was tried already. */
function tried(): Bench {
  const bench = new Bench(checkDesign(generatedLine(100)));
  bench.try({ occupied: [], points: {} });
  return bench;
}

export const signalFigures: readonly CoreFigure[] = [
  {
    name: 'all rules written, 100 blocks and 120 signals',
    unit: 'ms',
    most: 30,
    times: 41,
    warming: 20,
    ready() {
      const scheme = compileScheme(generatedLine(100));
      return () => void writeRules(scheme);
    },
  },
  {
    name: 'routes, rules and locking table of a station, 60 turnouts and 80 signals',
    unit: 'ms',
    most: 1000,
    times: 5,
    warming: 1,
    ready() {
      const station = generatedStation(30);
      return () => void lockingTable(checkDesign({ ...station, features: [...station.features] }));
    },
  },
  {
    name: 'locking table of the demo',
    unit: 'ms',
    most: 20,
    times: 11,
    warming: 4,
    ready() {
      const design = checkDesign(ondrelValley());
      void design.system.program;
      return () => void lockingTable(design);
    },
  },
  {
    name: 'a keystroke in the rules to its verdict, 100 blocks',
    unit: 'ms',
    most: 50,
    times: 21,
    ready() {
      const bench = tried();
      const { id } = signalsOf(generatedLine(100))[60]!;
      const typed = bench.rulesAbout(id).text.replace('not occupied.', 'true and not occupied.');
      if (bench.readRules(id, typed).put.length !== 1) throw new Error('What was typed changes no rule.');
      return () => void bench.readRules(id, typed);
    },
  },
  {
    name: 'every place against every signal, 100 blocks',
    unit: 'ms',
    most: 60,
    times: 9,
    ready() {
      const bench = tried();
      return () => void bench.matrix({});
    },
  },
  {
    name: 'the fixes of a finding tried, 100 blocks',
    unit: 'ms',
    most: 200,
    times: 9,
    ready() {
      const line = generatedLine(100);
      const gone = signalsOf(line)[60]!;
      const document = { ...line, features: line.features.filter(({ id }) => id !== gone.id) };
      const { findings } = checkDesign(document);
      const finding = findings.find(({ fixes }) => fixes.length > 0);
      if (!finding || triedFixes(document, findings, finding).offered.length === 0)
        throw new Error('Without one of its signals nothing of the line is mended by a fix.');
      return () => void triedFixes(document, findings, finding);
    },
  },
  {
    name: 'signals proposed, 100 blocks',
    unit: 'ms',
    most: 5000,
    times: 5,
    warming: 1,
    ready() {
      const line = generatedLine(100);
      const bare = { ...line, features: line.features.filter(({ kind }) => kind !== 'signal') };
      return () => void proposeSignals(bare);
    },
  },
];
