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
        "Ondrel Valley: 0dea42c0a9e1eb8c",
        "Learning oval: 238422229c61748e",
        "Random 1: c42c91b0f2c7be2c",
        "Random 2: 300bbca172c9b0d5",
        "Random 3: 8988ea0b409b2e5f",
        "Random 4: f9c5ee5073b56464",
        "Random 5: e706813678a0d46a",
        "Random 6: 2877186f6d65c253",
        "Random 7: b23c11013cbbceb5",
        "Random 8: f1d0d90bacc2b5bf",
        "Random 9: f91d11532adf474f",
        "Random 10: 596d5b92b372bdb6",
      ]
    `);
  });
  /** In whatever order they are written: a rule is worked out after those that it reads. */
  it('their rules', () => {
    const rules = (layout: LayoutDocument) => writeProgram(compileSystem(layout).program).split('\n').sort().join('\n');
    expect(LAYOUTS.map((layout) => `${layout.name}: ${digest(rules(layout))}`)).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: 37d85b4f25f81473",
        "Learning oval: 1d7027eebb8312d2",
        "Random 1: 5a4787a4e62c4a98",
        "Random 2: 4bd824294766b955",
        "Random 3: 1fb9a8f03ada0a6c",
        "Random 4: 95bebed728c783ab",
        "Random 5: d4c1dc207fe2405c",
        "Random 6: ab9e2d81391d029d",
        "Random 7: a7f4d1b448c3bf68",
        "Random 8: 8f71a6e8d9b137d4",
        "Random 9: 38b7bc920be8f20e",
        "Random 10: 0a6b970b9fd40237",
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
        "Ondrel Valley: cedd26937a485d0f",
        "Learning oval: e251885364167d4f",
        "Random 1: 964a3ce03edac69c",
        "Random 2: fc54ddd88a6fa624",
        "Random 3: ff227dccf7d48f10",
        "Random 4: a4d0afbd75810381",
        "Random 5: 2bdace0ef77af7f2",
        "Random 6: a8e9dc8076bc67bc",
        "Random 7: 7f99efae0bf01212",
        "Random 8: a351b0ff05921b03",
        "Random 9: 19e884d1ba16eb6d",
        "Random 10: 16acc8abdeff1ab7",
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
