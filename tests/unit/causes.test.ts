import { describe, expect, test } from 'vitest';
import { type Cause, causesIn } from '@/core/design';
import { divideTrack } from '@/core/detection';
import { ProofRun, type Verdict } from '@/core/proof';
import type { Edit, LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack } from '@/core/track';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';
import { withAllAccepted } from './accepted';
import { done } from './editing';
import { ofSweep } from './sweep';

const MOST_STATES = 4000;
function failures(document: LayoutDocument): (Verdict<Cause> & { result: 'fails' })[] {
  const run = new ProofRun(compileSystem(document), MOST_STATES);
  while (!run.step(2000));
  return run
    .result(causesIn(document))
    .verdicts.filter((verdict): verdict is Verdict<Cause> & { result: 'fails' } => verdict.result === 'fails');
}
const blocksOf = (d: LayoutDocument) => divideTrack(d, compileTrack(d));
const reasons = (d: LayoutDocument) => failures(d).flatMap(({ cause }) => cause?.why ?? []);

const SPOILT = [
  ...Array.from({ length: ofSweep(180) }, (_, seed) => randomLayout(seed)),
  ...Array.from({ length: ofSweep(80) }, (_, seed) => randomPoints(seed)),
  /** Sound but for how trains start, and for one signal. */
  ...Array.from({ length: ofSweep(40) }, (_, seed) => {
    const { document } = withAllAccepted(randomLayout(seed));
    const first = document.features.findIndex(({ kind }) => kind === 'signal');
    return { ...document, features: document.features.filter((__, i) => i !== first) };
  }),
];

describe('causes of what a proof finds', () => {
  test('are facts of the layout, and their advice is possible', () => {
    const told = new Map<string, number>();
    for (const d of SPOILT) {
      const { blocks, sections } = blocksOf(d);
      const watched = (name: string) =>
        sections[blocks.find((block) => block.name === name)!.section]!.sensors.length > 0;
      const onTrack = d.trains.filter(({ start }) => start).length;
      for (const { property, counterexample, cause } of failures(d)) {
        const { why = '', advice = '', fixes } = cause!;
        const says = `${d.name}, ${property}: ${why} ${advice}`;
        const steps = (counterexample ?? []).map((step) => step.says).join(' ');
        const count = (kind: string) => told.set(kind, (told.get(kind) ?? 0) + 1);
        const undetected = /^No detector sees a train in (.+)\.$/.exec(why);
        if (undetected) {
          count('no detector');
          expect(watched(undetected[1]!), says).toBe(false);
        }
        if (/Give the block a detector/.test(advice)) expect(why, says).toMatch(/No detector sees|is only/);
        const unseen = /^(.+) read free while (.+) stood in it: nothing/.exec(why);
        if (unseen) {
          count('unseen');
          expect(watched(unseen[1]!), says).toBe(true);
          expect(
            d.trains.map(({ name }) => name),
            says,
          ).toContain(unseen[2]);
        }
        const passed = /^(\S+) showed \S+ before .+, and (.+) passed it/.exec(why);
        if (passed) {
          count('passed');
          expect(steps, says).toMatch(new RegExp(`${passed[2]} passes ${passed[1]} (at stop|though)`));
        }
        const signal = /^No signal holds a train at /.test(why);
        if (signal) {
          count('no signal');
          expect(fixes, says).toHaveLength(1);
        }
        if (/^Both .* start there/.test(why)) {
          count('start');
          expect(onTrack, says).toBeGreaterThan(1);
        }
        if (/ones? train off|Take .* off the track/.test(advice + fixes.map((fix) => fix.says).join()))
          expect(onTrack, says).toBeGreaterThan(1);
      }
    }
    for (const kind of ['no signal', 'unseen', 'start']) expect(told.get(kind), kind).toBeGreaterThan(0);
  });
  test('are no longer given once their fact is made untrue', () => {
    let made = 0;
    for (const d of SPOILT.slice(0, ofSweep(160))) {
      for (const { cause } of failures(d)) {
        const { why = '', fixes } = cause!;
        if (!/^No signal holds|^No detector sees/.test(why) || !fixes[0]) continue;
        made += 1;
        expect(reasons(done(d, fixes[0].edit as Edit).document), `${d.name}: ${why}`).not.toContain(why);
      }
    }
    expect(made).toBeGreaterThan(2);
  });
});
