import { Bench, checkDesign, proposeSignals } from '../src/core/design';
import { compileScheme, writeRules } from '../src/core/patterns';
import { type LayoutDocument, signalsOf } from '../src/core/survey';
import { generatedLine } from '../src/demo/generated';

/** What the bench needs to time: what is done, and how often. */
type Median = (times: number, work: () => void) => number;

/** How long the rules of a hundred blocks take, what a changed text of a signal’s rules does, and every place against every signal. */
export function signalTimes(median: Median): Record<'rules' | 'keystroke' | 'matrix' | 'propose', number> {
  const line: LayoutDocument = generatedLine(100);
  const scheme = compileScheme(line);
  median(20, () => writeRules(scheme));
  const bench = new Bench(checkDesign(line));
  bench.try({ occupied: [], points: {} });
  const { id } = signalsOf(line)[60]!;
  const { text } = bench.rulesAbout(id);
  const typed = text.replace('not occupied.', 'true and not occupied.');
  if (bench.readRules(id, typed).put.length !== 1) throw new Error('What was typed changes no rule.');
  bench.matrix({});
  const bare = { ...line, features: line.features.filter(({ kind }) => kind !== 'signal') };
  return {
    rules: median(41, () => writeRules(scheme)),
    keystroke: median(21, () => bench.readRules(id, typed)),
    matrix: median(9, () => bench.matrix({})),
    propose: median(5, () => proposeSignals(bare)),
  };
}
