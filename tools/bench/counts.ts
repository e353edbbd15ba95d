import { readFileSync } from 'node:fs';
import { checkDesign } from '../../src/core/design';
import { ProofRun } from '../../src/core/proof';
import { compileSystem } from '../../src/core/system';
import { generatedLine } from '../../src/demo/generated';
import { learningOval } from '../../src/demo/learning-oval';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { passingLoop } from '../../src/demo/passing-loop';
import { busyOval } from './proofs';

/** What was counted, by its name. */
export type Counts = Record<string, number>;

/** The counts that are kept: none may become more without its reason in CHANGELOG.md. */
export const KEPT = JSON.parse(readFileSync(new URL('./counts.json', import.meta.url), 'utf8')) as Counts;

/** What a whole proof looks at: none of it depends on the machine’s mood. */
function ofProof(name: string, run: ProofRun): Counts {
  while (!run.step(10_000));
  const { states, moves } = run.progress;
  const { questions, misses, probes, bytesAState } = run.explorer.counts;
  return {
    [`${name}: states`]: states,
    [`${name}: moves`]: moves,
    [`${name}: questions to the rules`]: questions,
    [`${name}: of these answered by scanning`]: misses,
    [`${name}: probes of the state set`]: probes,
    [`${name}: bytes a state`]: Math.ceil(bytesAState),
  };
}

/** Everything that is counted in the core. */
export const countAll = (): Counts => ({
  'Ondrel Valley: equations and inputs': compileSystem(ondrelValley()).program.declarations.length,
  'Ondrel Valley: findings': checkDesign(ondrelValley()).findings.length,
  'line of 100 blocks: equations and inputs': compileSystem(generatedLine(100)).program.declarations.length,
  ...ofProof('learning oval', new ProofRun(compileSystem(learningOval()))),
  ...ofProof('oval of 12 blocks and 4 trains', busyOval()),
  ...ofProof('passing loop', new ProofRun(compileSystem(passingLoop(['up', 'down'])))),
});

/** Counts beside those that are kept, a line each, and how many are over. */
export function sayCounts(all: Counts): { lines: string[]; over: number; all: Counts } {
  const rows = Object.entries(all).map(([name, value]) => ({ name, value, kept: KEPT[name] }));
  const isOver = ({ value, kept }: (typeof rows)[number]) => kept === undefined || value > kept;
  return {
    lines: rows.map(
      (row) => `${isOver(row) ? 'OVER' : 'ok  '}  ${row.name.padEnd(56)} ${row.value}  (kept: ${row.kept})`,
    ),
    over: rows.filter(isOver).length,
    all,
  };
}
