import { describe, expect, test } from 'vitest';
import type { TapeEntry } from '@/core/plant';
import { ProofModel, SWITCH_IDS } from '@/core/proof';
import { drawnLayout, systemOf } from '../../tools/fuzz/drawn-layout';

/** Where on the track a running distance of a train lies: the piece, and how far along it from the end at which it is entered, by both of its ends. */
function placeOn(tape: readonly TapeEntry[], runningMm: number) {
  const entry = tape.find(({ from, to }) => from - 0.01 <= runningMm && runningMm <= to + 0.01)!;
  const [inMm, leftMm] = [runningMm - entry.from, entry.to - runningMm];
  return entry.exit === 1 ? { piece: entry.piece, inMm, leftMm } : { piece: entry.piece, inMm: leftMm, leftMm: inMm };
}

/** The number of the placement in which a train begins. */
const BEGINS = 0;

describe('where a train stands to turn back', () => {
  test('its tail lies where its nose is said to be afterwards: at every turn of 60 drawn layouts', () => {
    let looked = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const model = new ProofModel(systemOf(drawnLayout(seed)), new Set(SWITCH_IDS));
      for (const { id, placements, grounds } of model.trains) {
        const { lengthMm } = model.system.plant.trains.find((train) => train.id === id)!.consist;
        expect(grounds.length).toBe(placements.length);
        for (const { tape, noseMm, turns } of placements)
          for (const { to, standsMm, beyondMm } of turns) {
            const next = placements[to]!;
            expect(standsMm[0]).toBeGreaterThanOrEqual(-0.01);
            expect(standsMm[1]).toBeLessThanOrEqual(noseMm[1] - noseMm[0] + 0.01);
            for (const share of [0.01, 0.5, 0.99]) {
              const offset = standsMm[0] + share * (standsMm[1] - standsMm[0]);
              const tail = placeOn(tape, noseMm[0] + offset - lengthMm);
              const nose = placeOn(next.tape, next.noseMm[0] + beyondMm - offset);
              expect(nose.piece).toBe(tail.piece);
              expect(
                [Math.abs(nose.inMm - tail.inMm), Math.abs(nose.leftMm - tail.leftMm)].every((d) => d < 0.05),
              ).toBe(true);
              looked += 1;
            }
          }
      }
    }
    expect(looked).toBeGreaterThan(500);
  });

  test('one that stands without current from the beginning goes nowhere, whichever way it is turned', () => {
    let looked = 0;
    for (let seed = 1; seed <= 300 && looked < 3; seed++) {
      const { trains } = new ProofModel(systemOf(drawnLayout(seed)), new Set(SWITCH_IDS));
      for (const { placements } of trains) {
        const wants = (at: number) => placements[at]!.advances.every(({ rests, fedBy }) => rests === 'ends' && fedBy);
        if (!wants(BEGINS) || placements[BEGINS]!.turns.length === 0) continue;
        looked += 1;
        for (const { to } of placements[BEGINS]!.turns) {
          const back = placements[to]!.turns.map((turn) => wants(turn.to));
          expect([wants(to), back]).toEqual([true, [true]]);
          expect(placements[to]!.turned).not.toBe(placements[BEGINS]!.turned);
        }
      }
    }
    expect(looked).toBeGreaterThan(2);
  });
});
