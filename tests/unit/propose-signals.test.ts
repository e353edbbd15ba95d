import { describe, expect, test } from 'vitest';
import { checkDesign, placeProposed, proposeSignals } from '@/core/design';
import { ProofRun } from '@/core/proof';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { generatedLine } from '@/demo/generated';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { passingLoop } from '@/demo/passing-loop';
import { fork } from './fork';
import { randomLine } from './random-line';

const bare = (d: LayoutDocument): LayoutDocument => ({ ...d, features: d.features.filter((f) => f.kind !== 'signal') });
const placed = (d: LayoutDocument, some: ReturnType<typeof proposeSignals>['signals']): LayoutDocument => {
  if (some.length === 0) return d;
  const result = applyEdit(d, placeProposed(some));
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
function hazards(d: LayoutDocument): string[] {
  const proof = new ProofRun(compileSystem(d), 60_000);
  while (!proof.step(20_000));
  return proof
    .result()
    .verdicts.filter(({ result }) => result === 'fails')
    .map(({ property }) => property);
}
const openPoints = (d: LayoutDocument) =>
  checkDesign(d).findings.filter(({ kind, severity }) => kind === 'points without protection' && severity !== 'note');

describe('signals that could be placed', () => {
  test('stand where a signalman put those of the demo, read the same way', () => {
    const d = ondrelValley();
    const key = ({ line, at, governs }: { line: string; at: number; governs: string }) => `${line} ${at} ${governs}`;
    const own = signalsOf(d).map(({ line, at, governs }) => key({ line, at: at.tenthUm, governs }));
    /** Out of the quay the shunter calls: that signal was left out on purpose. */
    const left = 'pd 12000000 down';
    expect(new Set(proposeSignals(bare(d)).signals.map(key))).toEqual(new Set([...own, left]));
    const { signals, standing } = proposeSignals(d);
    expect([signals.map(key), standing]).toEqual([[left], own.length]);
  });
  test('protect every turnout that a train can reach, on forty random lines', () => {
    let looked = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const d = bare(randomLine(seed));
      const { signals } = proposeSignals(d);
      if (signals.length === 0) continue;
      looked += 1;
      const before = openPoints(d).map(({ id }) => id);
      for (const { id } of openPoints(placed(d, signals))) expect(before, `layout ${seed}`).toContain(id);
      const { signals: again } = proposeSignals(placed(d, signals));
      expect(again, `layout ${seed}: placed once, nothing is left to propose in the same directions`).toEqual([]);
    }
    expect(looked).toBeGreaterThan(20);
  });
  test('what is said to be missing without one is found missing when it is left out', () => {
    const d = bare(fork('three-aspect'));
    const { signals } = proposeSignals({ ...d, movements: [] });
    for (const left of signals.filter(({ purpose }) => purpose === 'points')) {
      const rest = placed(
        d,
        signals.filter((one) => one !== left),
      );
      const says = checkDesign(rest).findings.filter(({ kind }) => /points without protection|no signal at/.test(kind));
      expect(says.length, left.says).toBeGreaterThan(0);
    }
  });
  test('in the one direction in which trains run; of a ring, the fewest are one more than trains', () => {
    for (const trains of [1, 2, 3]) {
      const d = bare(withTrains(ring('Twelve', 12, 150), trains, 150));
      const { signals } = proposeSignals(d);
      expect(signals.map(({ governs }) => governs)).toEqual(Array(12).fill('up'));
      const few = signals.filter(({ needed }) => needed);
      expect(few).toHaveLength(Math.max(2, trains + 1));
      expect(signals.every(({ purpose }) => purpose === 'spacing')).toBe(true);
    }
  });
  /** The referee tries every set of the proposed signals, and asks the proof of each. */
  test.each([
    ['a ring of four blocks', withTrains(ring('Four', 4, 150), 2, 150), 3],
    ['a ring of five blocks', withTrains(ring('Five', 5, 150), 2, 150), 3],
    ['a ring of five blocks, three trains', withTrains(ring('Five', 5, 150), 3, 150), 4],
    ['a crossing loop run one way', passingLoop(['up', 'up']), 3],
  ])('the fewest are as few as any that keep trains apart and running: %s', (_, layout, count) => {
    const d = bare(layout);
    const { signals } = proposeSignals(d);
    const few = signals.filter(({ needed }) => needed);
    expect(few).toHaveLength(count);
    expect(hazards(placed(d, few))).toEqual([]);
    for (let some = 0; some < 1 << signals.length; some++) {
      const chosen = signals.filter((__, i) => (some >> i) & 1);
      if (chosen.length < count) expect(hazards(placed(d, chosen)), `${some}`).not.toEqual([]);
    }
  });
  test('not into what is left out on purpose, which is said', () => {
    const d = bare(fork('three-aspect'));
    const [main] = d.lines;
    const length = (cm: number) => ({ tenthUm: cm * 1e5, typed: `${cm} cm` });
    const yard = {
      id: 'a1',
      name: 'Yard',
      line: main!.id,
      from: length(600),
      to: length(890),
      purpose: '',
      admits: 'nothing' as const,
      whenEmpty: undefined,
      speedKmh: undefined,
      comesIn: undefined,
      leavesOut: 'few trains',
    };
    const all = proposeSignals(d).signals.length;
    const { signals, leftOut } = proposeSignals({ ...d, areas: [yard] });
    expect(signals.length).toBeLessThan(all);
    expect(signals.some(({ at, governs }) => at === 650e5 && governs === 'up')).toBe(false);
    expect(leftOut).toEqual(['Yard']);
  });
  test('with four aspects where two blocks are shorter than a train brakes', () => {
    const short = bare(withTrains(ring('Short', 8, 60), 1, 60));
    const fast = {
      ...short,
      trains: short.trains.map((train) => ({ ...train, topSpeedKmh: 130, brakingMmPerS2: 60 })),
    };
    expect(new Set(proposeSignals(short).signals.map(({ system }) => system))).toEqual(new Set(['three-aspect']));
    expect(new Set(proposeSignals(fast).signals.map(({ system }) => system))).toEqual(new Set(['four-aspect']));
  });
  test('of a hundred blocks', () => {
    expect(proposeSignals(bare(generatedLine(100))).signals).toHaveLength(120);
  });
});
