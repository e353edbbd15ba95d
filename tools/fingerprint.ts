import { checkDesign } from '../src/core/design';
import { writeProgram } from '../src/core/logic';
import { ProofRun } from '../src/core/proof';
import { type Command, replay } from '../src/core/simulation';
import type { LayoutDocument } from '../src/core/survey';
import { compileSystem, Digest } from '../src/core/system';
import { EXAMPLES, exampleLayout } from '../src/demo/examples';
import { learningOval } from '../src/demo/learning-oval';
import { ondrelValley } from '../src/demo/ondrel-valley';
import { passingLoop } from '../src/demo/passing-loop';
import { Draw } from './fuzz/draw';
import { randomLayout } from './fuzz/random-layout';

const GENERATED = 20;
const TICKS = 15_000;
const MOST_STATES = 6000;
const SEEDS = [3, 4, 5];

function digest(text: string): string {
  const hash = new Digest();
  for (const character of text) hash.add(character.codePointAt(0)!);
  return hash.text;
}

/** Five minutes in which everything runs and somebody throws what he can. */
function traceOf(document: LayoutDocument, seed: number): string {
  const draw = new Draw(seed);
  const motors = checkDesign(document).scheme.partition.graph.motors.map(({ id }) => id);
  const commands: { tick: number; command: Command }[] = document.trains.map(({ id }) => ({
    tick: 5,
    command: { kind: 'run', train: id, on: true },
  }));
  for (let tick = 100; tick < TICKS && motors.length > 0; tick += 150) {
    const turnout = motors[draw.below(motors.length)]!;
    commands.push({ tick, command: { kind: 'throw', turnout, to: draw.chance(0.5) ? 'straight' : 'diverging' } });
  }
  return replay(compileSystem(document), seed, TICKS, commands).traceHash;
}

/** What a layout comes to: its rules, its findings, its runs, and how its proof begins. Two versions that print the same do the same. */
function fingerprint(document: LayoutDocument): Record<string, unknown> {
  const design = checkDesign(document);
  const proof = new ProofRun(compileSystem(document), MOST_STATES);
  while (!proof.step(1000));
  const { states, moves } = proof.progress;
  return {
    name: document.name,
    rules: design.system.program.declarations.length,
    program: digest(writeProgram(design.system.program)),
    findings: Object.fromEntries(
      design.findings.map(({ id, kind, severity, says }) => [`${severity} ${kind} ${id}`, says]),
    ),
    runs: SEEDS.map((seed) => traceOf(document, seed)),
    states,
    moves,
    verdicts: Object.fromEntries(
      proof
        .result()
        .verdicts.map(({ property, result, counterexample }) => [
          property,
          [result, ...(counterexample ?? []).map(({ says }) => says)],
        ]),
    ),
  };
}

/** The demo, every example, and layouts drawn by chance. */
const LAYOUTS: LayoutDocument[] = [
  ondrelValley(),
  learningOval(),
  passingLoop(['up', 'down']),
  ...EXAMPLES.map(exampleLayout),
  ...Array.from({ length: GENERATED }, (_, i) => randomLayout(i + 1)),
];
console.log(JSON.stringify(LAYOUTS.map(fingerprint), undefined, 1));
