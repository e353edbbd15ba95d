import { describe, expect, it } from 'vitest';
import { checkDesign } from '@/core/design';
import { writeProgram } from '@/core/logic';
import { ProofRun } from '@/core/proof';
import { type Command, replay, TraceHash } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
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
  return replay(document, 3, 6000, commands).traceHash;
}

function digest(text: string): string {
  const hash = new TraceHash();
  for (const character of text) hash.add(character.codePointAt(0)!);
  return hash.digest;
}

function firstStates(document: LayoutDocument): string {
  const proof = new ProofRun(document, 3000);
  while (!proof.step(1000));
  const { states, moves } = proof.progress;
  return `${states} states, ${moves} moves, ${proof
    .result()
    .verdicts.map(({ result }) => result[0])
    .join('')}`;
}

const LAYOUTS = [ondrelValley(), learningOval(), ...Array.from({ length: 10 }, (_, i) => randomLine(i + 1))];

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
  it('their rules', () => {
    expect(
      LAYOUTS.map((layout) => `${layout.name}: ${digest(writeProgram(checkDesign(layout).program))}`),
    ).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: bdb96b0ec5a21ad2",
        "Learning oval: 66952c5f0de3c0a3",
        "Random 1: 0fe1e4c5c9388359",
        "Random 2: ebf2d678832020c4",
        "Random 3: 8acb4711dcf241ed",
        "Random 4: e6a374e6ff880e5a",
        "Random 5: d1ae89218fff717d",
        "Random 6: 557efd50aae7500c",
        "Random 7: 935e7a95b96a4869",
        "Random 8: 5a52dcc49d4edf98",
        "Random 9: d08933d31a2290ef",
        "Random 10: 43029ffa2e9d73c6",
      ]
    `);
  });
  it('what is found in them', () => {
    expect(
      LAYOUTS.map((layout) => `${layout.name}: ${digest(JSON.stringify(checkDesign(layout).findings))}`),
    ).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: 556e4d36eaa6ea0a",
        "Learning oval: e251885364167d4f",
        "Random 1: 11666d0b3ef48d77",
        "Random 2: 025fabd699637f6a",
        "Random 3: a061448732a90d9b",
        "Random 4: eaee09d3c6e0070f",
        "Random 5: 1f988a54402a2728",
        "Random 6: 6a5bc62f7453ac33",
        "Random 7: a6a9feb1ca57b0ad",
        "Random 8: 2b5486a2bb0cfc1e",
        "Random 9: 957c86c19232b23d",
        "Random 10: 879646e6f865d6ba",
      ]
    `);
  });
  it('their first states', () => {
    expect(LAYOUTS.map((layout) => `${layout.name}: ${firstStates(layout)}`)).toMatchInlineSnapshot(`
      [
        "Ondrel Valley: 8238 states, 23113 moves, uuuuuuuuuu",
        "Learning oval: 196 states, 387 moves, hhhhhhhhhh",
        "Random 1: 5959 states, 19323 moves, uuuuuuuuuu",
        "Random 2: 3556 states, 15519 moves, uuuuuuuuuu",
        "Random 3: 6451 states, 19982 moves, uuuuuuuuuu",
        "Random 4: 7286 states, 22044 moves, uuuuuuuuuu",
        "Random 5: 5038 states, 23040 moves, uuuuuuuuuu",
        "Random 6: 4328 states, 25290 moves, uufuuuuuuu",
        "Random 7: 3941 states, 17204 moves, uuuuuuuuuu",
        "Random 8: 5423 states, 17467 moves, uuuuuuuuuu",
        "Random 9: 5289 states, 17976 moves, uuuuuuuuuu",
        "Random 10: 4681 states, 18155 moves, uuuuuuuuuu",
      ]
    `);
  });
});
