import { describe, expect, test } from 'vitest';
import { ProofModel, ProofRun } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { frameOf, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { ring, withTrains } from '@/demo/learning-oval';
import { spinHazards } from '../../tools/spin';

/** Signals lit only when a train comes: a dark one is taken for its most restrictive aspect. Common practice, no source. */
function layout(trains: number, lit: boolean, seen = true): LayoutDocument {
  const d = withTrains(ring('Four', 4, 150), trains, 150);
  if (lit) for (const signal of signalsOf(d)) signal.patterns = ['approach lit'];
  if (!seen)
    d.vehicles = d.vehicles.map((one) => ({
      ...one,
      axles: one.axles.map((axle) => ({ ...axle, feeds: 'nothing' as const })),
    }));
  return d;
}
function failing(d: LayoutDocument): string[] {
  const proof = new ProofRun(compileSystem(d), 400_000);
  while (!proof.step(20_000));
  return proof
    .result()
    .verdicts.filter(({ result }) => result === 'fails')
    .map(({ property }) => property);
}

describe('signals lit on approach', () => {
  test('change nothing for trains that are noticed: the same is proved, and Spin agrees', () => {
    expect(failing(layout(2, false))).toEqual([]);
    expect(failing(layout(2, true))).toEqual([]);
    const [look] = spinHazards(writePromela(new ProofModel(compileSystem(layout(1, true)))), [
      ['stop not announced in time', 'signal drops in the face of a train', 'two trains in a block'],
    ]);
    expect([look!.errors, look!.complete]).toEqual([0, true]);
  });
  test('a train runs as far as without them in ten minutes, whatever is dark behind it', () => {
    const runs = [false, true].map((lit) => {
      const d = layout(1, lit);
      const run = new Rehearsal(compileSystem(d), 5);
      run.command({ kind: 'run', train: d.trains[0]!.id, on: true });
      const shown = new Set<string>();
      let slowest = Number.POSITIVE_INFINITY;
      for (let tick = 0; tick < 50 * 120; tick++) {
        run.step();
        if (tick > 50 * 10) slowest = Math.min(slowest, run.plant.trains[0]!.speed);
        for (const shows of Object.values(frameOf(run).shows)) shown.add(shows);
      }
      return { at: run.plant.positionOf(0), slowest, shown: [...shown].sort() };
    });
    expect(runs[1]!.shown).toEqual(['dark', 'lit']);
    expect(runs[0]!.slowest).toBeGreaterThan(0);
    expect(runs[1]!.at).toEqual(runs[0]!.at);
  });
  test('a train that nothing notices waits before a dark signal: in a rehearsal, and as a standstill in the proof', () => {
    const speeds = [false, true].map((lit) => {
      const d = layout(1, lit, false);
      const run = new Rehearsal(compileSystem(d), 5);
      run.command({ kind: 'run', train: d.trains[0]!.id, on: true });
      for (let tick = 0; tick < 50 * 60; tick++) run.step();
      return run.plant.trains[0]!.speed > 0;
    });
    expect(speeds).toEqual([true, false]);
    expect(failing(layout(1, false, false))).not.toContain('deadlock');
    expect(failing(layout(1, true, false))).toContain('deadlock');
  });
});
