import { describe, expect, test } from 'vitest';
import type { Switch } from '@/core/proof';
import { Rehearsal, TICK_MS } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';
import { explored } from '../../tools/fuzz/covering';

/**
 * Whatever a rehearsal comes to must be among the states of the proof. What the rule program shows once it has settled, the
 * value of every name, is compared: the two meet only in the survey and the rules, not in how trains move.
 */
const settledValuesOf = (document: LayoutDocument): Set<string> =>
  explored(compileSystem(document), Number.POSITIVE_INFINITY, new Set<Switch>(['throw back', 'one scan']))!.settled;

/** Small and repeatable; not for anything that needs good chance. */
const chance = (seed: number) => () => {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
  return seed / 2 ** 32;
};

const MINUTES = 20;
const TICKS = (MINUTES * 60_000) / TICK_MS;
const POWER_UP_TICKS = 1500;
/** Of the scans of a rehearsal, this many alike in a row count as settled. */
const ALIKE = 3;

/** Runs trains by chance, halted and let go, points thrown now and then; returns settled values that no state of the proof has. */
function unknownIn(document: LayoutDocument, seed: number, known: Set<string>): { unknown: string[]; met: number } {
  const run = new Rehearsal(compileSystem(document), seed);
  const next = chance(seed);
  const met = new Set<string>();
  let last = '';
  let alike = 0;
  for (const train of document.trains) run.command({ kind: 'run', train: train.id, on: false });
  const posts = run.system.posts;
  for (let tick = 0; tick < TICKS; tick++) {
    for (const { id, readings } of posts) {
      if (tick <= POWER_UP_TICKS || next() >= 0.004) continue;
      if (next() < 0.5) run.command({ kind: 'man', post: id, on: next() < 0.5 });
      else run.command({ kind: 'give', signal: readings[0]!.signal.id, on: next() < 0.5 });
    }
    if (tick > POWER_UP_TICKS && next() < 0.005) {
      const train = document.trains[Math.floor(next() * document.trains.length)]!;
      run.command({ kind: 'run', train: train.id, on: next() < 0.7 });
    }
    if (tick > POWER_UP_TICKS && document.turnouts.length > 0 && next() < 0.005) {
      const turnout = document.turnouts[Math.floor(next() * document.turnouts.length)]!;
      run.command({ kind: 'throw', turnout: turnout.id, to: next() < 0.5 ? 'straight' : 'diverging' });
    }
    run.step();
    const values = run.system.compiled.names.map((name) => run.controller.evaluator.valueOf(name)).join('');
    alike = values === last ? alike + 1 : 0;
    last = values;
    if (alike === ALIKE && tick > POWER_UP_TICKS) met.add(values);
  }
  return { unknown: [...met].filter((values) => !known.has(values)), met: met.size };
}

/** Its first signal is cleared from a post; the second goes by a timer. */
function withPost(document: LayoutDocument): LayoutDocument {
  const [first, second] = signalsOf(document);
  first!.patterns = ['authority'];
  second!.patterns = ['timed caution'];
  return document;
}
const onDc = (document: LayoutDocument): LayoutDocument => ({ ...document, power: 'two-rail DC' });

describe('a rehearsal comes to nothing that the proof has not looked at', () => {
  test.each([
    ['the learning oval', learningOval()],
    ['a post and a timer', withPost(withTrains(ring('Post', 4, 120), 1, 120))],
    ['six blocks and three trains', withTrains(ring('Six', 6, 120), 3, 120)],
    ['two opposing trains on a single line with a loop', passingLoop(['up', 'down'])],
    ['two following trains there', passingLoop(['up', 'up'])],
    ['the learning oval on plain DC, where trains that stand are not noticed', onDc(learningOval())],
  ])('%s', (_, document) => {
    const known = settledValuesOf(document);
    for (const seed of [1, 2, 3]) {
      const { unknown, met } = unknownIn(document, seed, known);
      expect(met).toBeGreaterThan(10);
      expect(unknown).toEqual([]);
    }
  });
  test('which says something: a proof with one train does not cover a rehearsal with two', () => {
    const { unknown } = unknownIn(learningOval(), 1, settledValuesOf(withTrains(ring('One', 4, 120), 1, 120)));
    expect(unknown.length).toBeGreaterThan(5);
  });
});
