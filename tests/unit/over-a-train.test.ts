import { describe, expect, test } from 'vitest';
import { causesIn } from '@/core/design';
import { divideTrack } from '@/core/detection';
import { promisesFree } from '@/core/kinds';
import { ProofModel, ProofRun, type Switch, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { lettingIn, readSignals, standsOn } from '@/core/signals';
import { frameOf, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf, systemOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack } from '@/core/track';
import { ring, withTrains } from '@/demo/learning-oval';
import { spinHazards } from '../../tools/spin';

/** A signal that lets trains on where one stands is a hazard by itself: whether a second train comes is another matter. */

const HAZARD = 'proceed over a train';
const oval = () => withTrains(ring('Four', 4, 120), 1, 120);
const unseen = (d: LayoutDocument): LayoutDocument => ({
  ...d,
  vehicles: d.vehicles.map((one) =>
    one.kind === 'coach' ? { ...one, axles: one.axles.map((axle) => ({ ...axle, feeds: 'nothing' as const })) } : one,
  ),
});
function proved(d: LayoutDocument, on = new Set<Switch>()) {
  const run = new ProofRun(compileSystem(d), 400_000, on);
  while (!run.step(5000));
  return { run, verdict: run.result(causesIn(d)).verdicts.find(({ property }) => property === HAZARD)! };
}
const spin = (d: LayoutDocument) =>
  spinHazards(writePromela(new ProofModel(compileSystem(d), new Set())), [[HAZARD]])[0]!;

describe('a signal that shows proceed where one stands', () => {
  test('never, where every end of the train is seen; Spin says the same', () => {
    expect(proved(oval()).verdict.result).toBe('holds');
    expect(spin(oval())).toMatchObject({ errors: 0, complete: true });
  });
  test('behind coaches that nothing sees, with one train alone: found, explained, come to in a rehearsal, and by Spin', () => {
    const d = unseen(oval());
    const { run, verdict } = proved(d);
    expect(verdict.result).toBe('fails');
    expect(verdict.cause?.says).toMatch(/^S\d shows proceed into B\d, where Red train stands\.$/);
    expect(verdict.cause?.why).toMatch(
      /^B\d read free while Red train stood in it: nothing of the part that stood there is noticed\.$/,
    );
    expect(verdict.cause?.fixes.length).toBeGreaterThan(0);
    expect(steerCounterexample(run.explorer.model, HAZARD, verdict.counterexample!).confirmed).toBe(true);
    expect(spin(d)).toMatchObject({ errors: 1 });
    expect(run.result().verdicts.find(({ property }) => property === 'two trains in a block')!.result).toBe('holds');
  });
  test('a rehearsal tells it while it lasts', () => {
    const hazards = (d: LayoutDocument) => {
      const run = new Rehearsal(compileSystem(d), 1);
      const told = new Set<string>();
      for (let tick = 0; tick < 50 * 60; tick++) {
        run.step();
        if (tick % 10 === 0)
          for (const { id, of } of frameOf(run).hazards)
            told.add(`${id}: ${of.map((name) => name.replace(/\d/, '')).join(', ')}`);
      }
      return [...told];
    };
    expect(hazards(oval())).toEqual([]);
    expect(hazards(unseen(oval()))).toEqual([`${HAZARD}: S, Red train`]);
  });
  test('an aspect on sight says nothing of what stands there', () => {
    const d = unseen(oval());
    for (const signal of signalsOf(d)) signal.system = 'low-signal';
    expect(systemOf(d, 'low-signal').aspects.map(promisesFree)).toEqual([false, false]);
    expect(proved(d).verdict.result).toBe('holds');
    expect(spin(d)).toMatchObject({ errors: 0 });
  });
  test('a train that is just coming past the signal does not count, one that has passed it does', () => {
    const partition = divideTrack(oval(), compileTrack(oval()));
    const [way] = lettingIn(readSignals(oval(), partition));
    const beyond = way!.blocks[0]!;
    expect([[beyond], [way!.rear], [way!.rear, beyond], []].map((held) => standsOn(way!, held))).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });
});
