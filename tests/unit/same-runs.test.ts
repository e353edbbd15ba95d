import { describe, expect, it } from 'vitest';
import { checkDesign } from '@/core/design';
import { writeProgram } from '@/core/logic';
import { ProofRun } from '@/core/proof';
import { type Command, replay } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem, Digest } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { Draw, randomLine } from './random-line';

/** Two minutes in which everything runs and somebody throws what he can. */
function twoMinutes(document: LayoutDocument): string {
  const draw = new Draw(7);
  const commands: { tick: number; command: Command }[] = document.trains.map(({ id }) => ({
    tick: 5,
    command: { kind: 'run', train: id, on: true },
  }));
  for (let tick = 100; tick < 6000 && document.turnouts.length > 0; tick += 150) {
    const turnout = document.turnouts[draw.below(document.turnouts.length)]!.id;
    commands.push({ tick, command: { kind: 'throw', turnout, to: draw.chance(0.5) ? 'straight' : 'diverging' } });
  }
  return replay(compileSystem(document), 3, 6000, commands).traceHash;
}

function digest(text: string): string {
  const hash = new Digest();
  for (const character of text) hash.add(character.codePointAt(0)!);
  return hash.text;
}

function firstStates(document: LayoutDocument): string {
  const proof = new ProofRun(compileSystem(document), 3000);
  while (!proof.step(1000));
  const { states, moves } = proof.progress;
  return `${states} states, ${moves} moves, ${proof
    .result()
    .verdicts.map(({ result }) => result[0])
    .join('')}`;
}

const LAYOUTS = [smallValley(), learningOval(), ...Array.from({ length: 10 }, (_, i) => randomLine(i + 1))];

/** A change of how the program is built changes nothing of what it does. Where one is meant to, it is told with the change. */
describe('what does the same as before, on the demo and on generated layouts', () => {
  it('their runs', () => {
    expect(LAYOUTS.map((layout) => `${layout.name}: ${twoMinutes(layout)}`)).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: 0289e6f9bdf8554d",
        "Learning oval: 2054359ec09cc51a",
        "Random 1: f448bc12e2e83656",
        "Random 2: f0280ff52e0b27b9",
        "Random 3: 05fbfe673876a303",
        "Random 4: 7aa1646c60709ad0",
        "Random 5: 8f60be766f089c7a",
        "Random 6: 2877186f6d65c253",
        "Random 7: 266d51a51ab3e211",
        "Random 8: ad462603787e4ed7",
        "Random 9: 2e238189076071ad",
        "Random 10: f3e4b0c08050ae7c",
      ]
    `);
  });
  /** In whatever order they are written: a rule is worked out after those that it reads. */
  it('their rules', () => {
    const rules = (layout: LayoutDocument) => writeProgram(compileSystem(layout).program).split('\n').sort().join('\n');
    expect(LAYOUTS.map((layout) => `${layout.name}: ${digest(rules(layout))}`)).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: e50aebce7d0d4ed2",
        "Learning oval: fb1e65df565151a3",
        "Random 1: 46f21745720fea19",
        "Random 2: e3a60868c50378f4",
        "Random 3: 61deb3810502ed1d",
        "Random 4: 4118cd160ae68d8a",
        "Random 5: 0cd9bfb161db50cd",
        "Random 6: f0513ac02681d9fc",
        "Random 7: 0b397a25c84b39b9",
        "Random 8: 9bce81e93c04ccf5",
        "Random 9: 99b43323cff8f0bf",
        "Random 10: 65f9bcaaa97ab736",
      ]
    `);
  });
  it('what is found in them', () => {
    expect(
      LAYOUTS.map(
        (layout) =>
          `${layout.name}: ${digest(JSON.stringify(checkDesign(layout).findings.map(({ id: _, subject: __, ...finding }) => finding)))}`,
      ),
    ).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: d224f4b0e57d34ec",
        "Learning oval: e251885364167d4f",
        "Random 1: 0e6791e93d2027b5",
        "Random 2: 2f88baebc8f45637",
        "Random 3: ea885db551a5f929",
        "Random 4: 3e07d6b3f58a9ccf",
        "Random 5: 9c754ee4759c1c38",
        "Random 6: 86819779e1235de5",
        "Random 7: 215852d0b85e7a4c",
        "Random 8: 3878a83e7781b482",
        "Random 9: ffa93f1e6cdb2c42",
        "Random 10: 54a55e38d1a17d84",
      ]
    `);
  });
  it('their first states', () => {
    expect(LAYOUTS.map((layout) => `${layout.name}: ${firstStates(layout)}`)).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: 8238 states, 23113 moves, uuuuuuuuuuuu",
        "Learning oval: 196 states, 387 moves, hhhhhhhhhhhh",
        "Random 1: 5959 states, 19323 moves, uuuuuuuuuuuu",
        "Random 2: 3556 states, 15519 moves, uuuuuuuuuuuu",
        "Random 3: 6451 states, 19982 moves, uuuuuuuuuuuu",
        "Random 4: 7286 states, 22044 moves, uuuuuuuuuuuu",
        "Random 5: 5038 states, 23040 moves, uuuuuuuuuuuu",
        "Random 6: 4328 states, 25290 moves, uufuuuuuuuuu",
        "Random 7: 3941 states, 17204 moves, uuuuuuuuuuuu",
        "Random 8: 5423 states, 17467 moves, uuuuuuuuuuuu",
        "Random 9: 5289 states, 17976 moves, uuuuuuuuuuuu",
        "Random 10: 4681 states, 18155 moves, uuuuuuuuuuuu",
      ]
    `);
  });
});
