import { describe, expect, test } from 'vitest';
import { PATTERNS } from '@/core/patterns';
import { SWITCH_IDS, type Switch } from '@/core/proof';
import { covering, smallest } from '../../tools/fuzz/covering';
import { type FuzzOutcome, fuzz } from '../../tools/fuzz/fuzz';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomPatterns } from '../../tools/fuzz/random-patterns';
import { withRandomSensors } from '../../tools/fuzz/random-sensors';
import { isWhole, ofSweep } from './sweep';

/** What works by itself came later than the layouts below that are told by their numbers. */
const AUTOMATIC = PATTERNS.flatMap(({ id, off, keepsReleases }) => (off || keepsReleases ? [id] : []));
/** Those that come first show every mishap and table by themselves. */
const PARTS = [7, 0, 1, 2, 3, 4, 5, 6].slice(0, ofSweep(8));
const LAYOUTS_EACH = 40;
/** Tables of which every kind is on one of the layouts gone through at least; of the others some kinds are too rare for so few. */
const WHOLE_TABLES = ['turnout', 'crossing', 'motor', 'track power', 'what people do'];

describe('any mishap of any rehearsal is a harm that the proof finds, and any state it settles in a state of the proof', () => {
  const effects: FuzzOutcome['effects'] = {};
  const found = new Set<string>();
  const met = new Set<string>();
  let told = 0;
  let confirmed = 0;
  test.each(PARTS)('320 layouts drawn from every table of kinds, people doing anything: part %i of 8', (part) => {
    const lines: string[] = [];
    const seed = 20_000 + part * LAYOUTS_EACH;
    const options = { layouts: LAYOUTS_EACH, seed, runs: 3, minutes: 4, mostStates: isWhole ? 90_000 : 50_000 };
    const outcome = fuzz(options, (line) => lines.push(line));
    expect(lines).toEqual([]);
    expect(outcome.compared).toBeGreaterThan(LAYOUTS_EACH * 0.4);
    for (const [of, kinds] of Object.entries(outcome.effects))
      for (const [id, { drawn, effective }] of Object.entries(kinds)) {
        effects[of] ??= {};
        const all = effects[of][id];
        effects[of][id] = { drawn: drawn + (all?.drawn ?? 0), effective: effective + (all?.effective ?? 0) };
      }
    for (const one of Object.values(outcome.told)) {
      told += one.told;
      confirmed += one.confirmed;
    }
    for (const hazard of Object.keys(outcome.found)) found.add(hazard);
    for (const hazard of Object.keys(outcome.met)) met.add(hazard);
  });
  test.each(['trains touch', 'two trains in a block', 'face to face', 'points set wrong', 'proceed over a train'])(
    '%s: proofs of them find it, and rehearsals come to it by chance',
    (hazard) => expect([found.has(hazard), met.has(hazard)]).toEqual([true, true]),
  );
  test('every kind of such a table was on one of them, and one of each table made a run another one', () => {
    for (const of of WHOLE_TABLES)
      expect(
        Object.entries(effects[of]!).flatMap(([id, { drawn }]) => (drawn === 0 ? [id] : [])),
        of,
      ).toEqual([]);
    for (const [of, kinds] of Object.entries(effects))
      expect(
        Object.values(kinds).some(({ effective }) => effective > 0),
        of,
      ).toBe(true);
  });
  test('of what proofs tell of them, rehearsals that are driven there come to four of five', () => {
    expect(told).toBeGreaterThan(PARTS.length * 10);
    expect(confirmed / told).toBeGreaterThan(0.8);
  });
  /** A layout on which signals, sensors and points work in ways drawn by chance, of those that there were then; sensors of any kind on two of three. */
  const ofAnyKind = (seed: number) => {
    const plain = withRandomPatterns(randomLayout(seed), seed, [
      'arrival locking',
      'set routes',
      'flank protection',
      'position assumed',
      ...AUTOMATIC,
    ]);
    return seed % 3 === 0 ? plain : withRandomSensors(plain, seed);
  };
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
