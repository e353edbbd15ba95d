import { describe, expect, test } from 'vitest';
import { STANDARD_SWITCHES, SWITCH_IDS, type Switch } from '@/core/proof';
import { covering, smallest } from '../../tools/fuzz/covering';
import { fuzz } from '../../tools/fuzz/fuzz';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomPatterns } from '../../tools/fuzz/random-patterns';
import { withRandomSensors } from '../../tools/fuzz/random-sensors';
import { ofSweep } from './sweep';

const PARTS = [0, 1, 2, 3].slice(0, ofSweep(4));
const LAYOUTS_EACH = 75;

describe('any mishap of any rehearsal is a harm that the proof finds, and any state it settles in a state of the proof', () => {
  test.each(PARTS)('300 random layouts, sound and spoilt, tame operators and wild: part %i of 4', (part) => {
    const lines: string[] = [];
    const options = {
      layouts: LAYOUTS_EACH,
      seed: 20_000 + part * LAYOUTS_EACH,
      runs: 4,
      minutes: 5,
      mostStates: 40_000,
    };
    const { compared, found, met } = fuzz(options, (line) => lines.push(line));
    expect(lines).toEqual([]);
    expect(compared).toBeGreaterThan(LAYOUTS_EACH * 0.6);
    for (const hazard of ['trains touch', 'two trains in a block', 'face to face', 'points set wrong']) {
      expect(found[hazard] ?? 0, `${hazard}, found by proofs`).toBeGreaterThan(2);
      expect(met[hazard] ?? 0, `${hazard}, met by rehearsals`).toBeGreaterThan(0);
    }
  });
  test('and where signals are held by hand, and trains are lifted off and set down', () => {
    const on = new Set<Switch>(SWITCH_IDS);
    let compared = 0;
    const met = new Set<string>();
    for (let seed = 21_000; seed < 21_060; seed++) {
      const result = covering(randomLayout(seed), [seed * 2, seed * 2 + 1], 5, 15_000, { on });
      expect(result.contradictions, `layout ${seed}`).toEqual([]);
      if (result.finished) compared += 1;
      for (const hazard of result.met) met.add(hazard);
    }
    expect(compared).toBeGreaterThan(15);
    expect(met.has('signal drops in the face of a train') && met.has('two trains in a block')).toBe(true);
  });
  /** A layout on which signals, sensors and points work in ways drawn by chance; sensors of any kind on two of three. */
  const ofAnyKind = (seed: number) => {
    const plain = withRandomPatterns(randomLayout(seed), seed);
    return seed % 3 === 0 ? plain : withRandomSensors(plain, seed);
  };
  test('and where signals work in any of the ways that can be chosen, by any system, over any sensors, and people do anything', () => {
    let compared = 0;
    const found = new Set<string>();
    for (let seed = 30_000; seed < 30_000 + ofSweep(80); seed++) {
      const on = new Set<Switch>(seed % 2 === 0 ? SWITCH_IDS : STANDARD_SWITCHES);
      const result = covering(ofAnyKind(seed), [seed * 2, seed * 2 + 1], 4, 20_000, { on });
      expect(result.contradictions, `layout ${seed}`).toEqual([]);
      if (result.finished) compared += 1;
      for (const hazard of result.met) found.add(hazard);
    }
    expect(compared).toBeGreaterThan(ofSweep(80) / 3);
    expect(found.has('proceed over a train') && found.has('two trains in a block')).toBe(true);
  });
  test.each([
    [40_089, 'a train that stands in three blocks, one after the other, while nothing notices it'],
    [40_267, 'a train lifted out of a section that is cut off'],
    [40_442, 'a train set down, and how it is said to have come in'],
  ])('layout %i, which once contradicted its proof: %s', (seed) => {
    const on = new Set<Switch>(SWITCH_IDS);
    const { finished, contradictions } = covering(ofAnyKind(seed), [seed * 2, seed * 2 + 1], 5, 30_000, { on });
    expect([finished, contradictions]).toEqual([true, []]);
  });
  test('which says something: a proof of the layout without its second train is contradicted', () => {
    let contradicted = 0;
    for (let seed = 20_000; seed < 20_040; seed++) {
      const whole = randomLayout(seed);
      if (whole.trains.length < 2) continue;
      const blind = { ...whole, trains: whole.trains.slice(0, 1) };
      contradicted += covering(whole, [seed], 3, 20_000, { proved: blind }).contradictions.length > 0 ? 1 : 0;
    }
    expect(contradicted).toBeGreaterThan(3);
  });
  test('a layout that contradicts itself is made smaller as long as it does', () => {
    const whole = randomLayout(20_003);
    const signals = whole.features.filter((f) => f.kind === 'signal').length;
    expect(signals + whole.trains.length).toBeGreaterThan(1);
    const small = smallest(whole, (d) => d.sensors.length >= 1);
    expect(small.trains).toEqual([]);
    expect(small.sensors).toHaveLength(1);
  });
});
