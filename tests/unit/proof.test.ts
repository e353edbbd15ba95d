import { describe, expect, test } from 'vitest';
import { causesIn } from '@/core/design';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, type Property, STANDARD_SWITCHES, type Switch, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { HAZARD_IDS, replay } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';
import { spinHazards } from '../../tools/spin';

function prove(document: LayoutDocument, most?: number, on?: ReadonlySet<Switch>) {
  const run = new ProofRun(compileSystem(document), most, on);
  while (!run.step(5000));
  const proof = run.result(causesIn(document));
  const of = (property: Property) => proof.verdicts.find((v) => v.property === property)!;
  return { run, proof, of, failing: proof.verdicts.filter((v) => v.result === 'fails').map((v) => v.property) };
}
const withoutSignal = (name: string): LayoutDocument => {
  const d = learningOval();
  return { ...d, features: d.features.filter((f) => !(f.kind === 'signal' && f.name === name)) };
};
function unseen(document: LayoutDocument, kind: string, seen: (axle: number) => boolean): LayoutDocument {
  const vehicles = document.vehicles.map((v) =>
    v.kind === kind
      ? { ...v, axles: v.axles.map((axle, i) => ({ ...axle, feeds: seen(i) ? 'resistor' : 'nothing' }) as const) }
      : v,
  );
  return { ...document, vehicles };
}

describe('what is sound is proved, every state of it', () => {
  test.each([
    ['the learning oval', learningOval(), 196],
    ['an oval with one train', withTrains(ring('One', 4, 120), 1, 120), 81],
    ['five blocks and two trains', withTrains(ring('Five', 5, 120), 2, 120), 736],
    ['six blocks and three trains', withTrains(ring('Six', 6, 120), 3, 120), 3106],
  ])('%s', (_, document, states) => {
    const { proof, failing } = prove(document);
    expect(failing).toEqual([]);
    expect(proof).toMatchObject({ finished: true, states });
  });
  test.each([
    ['two opposing trains on a single line with a loop', passingLoop(['up', 'down'])],
    ['two following trains there', passingLoop(['up', 'up'])],
  ])('%s, with everything tried that people do as a rule, and with nothing of it', (_, document) => {
    const all = prove(document);
    expect(all.failing).toEqual([]);
    expect(all.proof.finished).toBe(true);
    const few = prove(document, undefined, new Set());
    expect(few.failing).toEqual([]);
    expect(few.proof.states).toBeLessThan(all.proof.states / 10);
  });
  /** The same ring with its line begun elsewhere, so that the join of its ends comes to lie `cm` further back. */
  const begunElsewhere = (document: LayoutDocument, byCm: number): LayoutDocument => {
    const length = document.lines[0]!.length.tenthUm;
    const shifted = <T extends { at: { tenthUm: number } }>(thing: T): T => {
      const tenthUm = (thing.at.tenthUm - byCm * 1e5 + length) % length;
      return { ...thing, at: cm(tenthUm / 1e5) };
    };
    return {
      ...document,
      features: document.features.map(shifted),
      blocks: document.blocks.map((b) => ({ ...b, anchor: shifted(b.anchor) })),
      sensors: document.sensors.map((d) => ({ ...d, anchor: shifted(d.anchor) })),
      trains: document.trains.map((t) => ({ ...t, start: t.start && shifted(t.start) })),
    };
  };
  test.each([15, 37, 52, 58, 75, 110])('where a ring’s line begins makes no difference: %d cm on', (byCm) => {
    const long = withTrains(ring('Ring', 4, 120), 2, 120);
    expect(prove(begunElsewhere(long, byCm)).proof).toMatchObject({ states: 196, finished: true });
    expect(prove(begunElsewhere(long, byCm)).failing).toEqual([]);
    const missing = withoutSignal('S2');
    expect(prove(begunElsewhere(missing, byCm)).failing).toEqual(prove(missing).failing);
    expect(prove(missing).failing).toContain('two trains in a block');
  });
  test('the same layout has the same states in the same order, whatever the slices', () => {
    const [a, b] = [
      new ProofRun(compileSystem(passingLoop(['up', 'down']))),
      new ProofRun(compileSystem(passingLoop(['up', 'down']))),
    ];
    for (let i = 0; i < 30; i++) a.step(100);
    b.step(3000);
    expect(a.progress).toEqual(b.progress);
  });
  test('a search that is cut short proves nothing', () => {
    const { proof } = prove(passingLoop(['up', 'down']), 2000);
    expect(proof.finished).toBe(false);
    expect(proof.verdicts.map((v) => v.result)).not.toContain('holds');
  });
});

describe('what is unsafe fails, with the shortest way to it in words, and the rehearsal comes to it', () => {
  const counterexample = (document: LayoutDocument, property: Property) => {
    const { run, of } = prove(document, undefined, new Set());
    const verdict = of(property);
    expect(verdict.result).toBe('fails');
    const steered = steerCounterexample(run.explorer.model, property, verdict.counterexample!);
    return { says: verdict.counterexample!.map((s) => s.says), steered };
  };
  test('an oval with a signal left out: a train runs into an occupied block', () => {
    const { says, steered } = counterexample(withoutSignal('S2'), 'two trains in a block');
    expect(says).toEqual([]);
    expect(steered.confirmed).toBe(true);
    const { cause } = prove(withoutSignal('S2')).of('two trains in a block');
    expect(cause).toMatchObject({
      says: 'Red train and Blue train are both in B2.',
      why: 'No signal holds a train at 180 cm on Oval, where Red train comes into B2.',
      fixes: [{ edit: { do: 'add signal', line: 'oval', at: cm(180), governs: 'up' } }],
    });
  });
  test('coaches that no detector sees: their block reads free while they stand in it', () => {
    const document = unseen(learningOval(), 'coach', () => false);
    const { says, steered } = counterexample(document, 'two trains in a block');
    expect(says).toContain('Blue train is no longer seen in B2, though a part of it is still there.');
    expect(says).toContain('Detector B2 has seen nothing for its hold time.');
    expect(says.at(-1)).toMatch(/^Red train passes S2 at (caution|clear), comes into B2\.$/);
    expect(steered.confirmed).toBe(true);
    const again = replay(compileSystem(document), steered.seed, steered.ticks, steered.commands);
    expect(again.tick).toBe(steered.ticks);
  });
  test('a long railcar seen at its nose alone: points move under it', () => {
    const seen = unseen(passingLoop(['up']), 'railcar', (axle) => axle === 0);
    const document = { ...seen, vehicles: seen.vehicles.map((v) => ({ ...v, length: cm(70) })) };
    const { says, steered } = counterexample(document, 'points moved under a train');
    expect(says.at(-1)).toMatch(/^Somebody asks for [AB]0 to lie (diverging|straight)\.$/);
    expect(steered.confirmed).toBe(true);
  });
  test('as many trains as blocks: nothing can ever move', () => {
    const { says, steered } = counterexample(withTrains(ring('Full', 3, 120), 3, 120), 'deadlock');
    expect(says).toEqual([]);
    expect(steered.confirmed).toBe(true);
  });
  test('both roads of the loop taken, and a third train on the single line: deadlock, and nothing worse', () => {
    const document = passingLoop(['up', 'down', 'up']);
    expect(prove(document, undefined, new Set()).failing).toEqual(['deadlock']);
    expect(counterexample(document, 'deadlock').steered.confirmed).toBe(true);
  });
  test('without signals opposing trains meet on the single line', () => {
    const d = passingLoop(['up', 'down']);
    const document = { ...d, features: d.features.filter((f) => f.kind !== 'signal' || /^[EW]/.test(f.name)) };
    const { failing } = prove(document, undefined, new Set());
    expect(failing).toContain('face to face');
    expect(failing).toContain('trains touch');
  });
});

/** Two trains, each of which stands in more than half the blocks of a ring, so that each can be in the other's last block. */
function longTrains(blockCm: number, trainCm: number): LayoutDocument {
  const d = withTrains(ring('Long trains', 4, blockCm), 2, blockCm);
  for (const vehicle of d.vehicles) {
    vehicle.length = cm(trainCm);
    vehicle.axles = [1, trainCm / 2, trainCm - 1].map((at) => ({ at: cm(at), feeds: 'motor' }));
  }
  d.trains = d.trains.map((one, i) => ({
    ...one,
    vehicles: one.vehicles.slice(0, 1),
    start: { line: 'oval', at: cm(blockCm * (1.5 + 2 * i) - 2), facing: 'up' },
  }));
  return d;
}

describe('two on a ring that stand in two blocks each', () => {
  test('do not touch: one is before the other in the one block, and behind it in the next', () => {
    const { proof, of, failing } = prove(longTrains(60, 62));
    expect(proof.finished).toBe(true);
    expect(failing).toEqual(['deadlock']);
    expect(of('trains touch').result).toBe('holds');
  });
  test('touch where a signal is missing', () => {
    const d = longTrains(60, 66);
    d.features = d.features.filter((f) => !(f.kind === 'signal' && f.name === 'S2'));
    const { of, run } = prove(d);
    const { result, counterexample } = of('trains touch');
    expect(result).toBe('fails');
    expect(steerCounterexample(run.explorer.model, 'trains touch', counterexample!).confirmed).toBe(true);
  });
});

const BY_HAND = new Set<Switch>(['hold', 'lift']);

describe('the verdicts against Debian’s Spin, on the model written out for it', { timeout: 900_000 }, () => {
  test.each([
    ['the learning oval', learningOval()],
    ['a signal left out', withoutSignal('S3')],
    ['long trains on a ring', longTrains(60, 62)],
    ['coaches not seen', unseen(learningOval(), 'coach', () => false)],
    ['as many trains as blocks', withTrains(ring('Full', 3, 120), 3, 120)],
    ['the passing loop', passingLoop(['up', 'down'])],
    ['the passing loop, full', passingLoop(['up', 'down', 'up'])],
    ['railcars seen at the nose', unseen(passingLoop(['up', 'down']), 'railcar', (axle) => axle === 0)],
  ])('%s', (name, document) => {
    const plain = new Set<Switch>();
    const more =
      document.turnouts.length > 0 ? [] : [STANDARD_SWITCHES, ...(name === 'the learning oval' ? [BY_HAND] : [])];
    for (const on of [plain, ...more]) {
      const { failing } = prove(document, undefined, on);
      const told = HAZARD_IDS.filter((hazard) => hazard !== 'rules never settle');
      const holding = told.filter((hazard) => !failing.includes(hazard));
      const found = told.filter((hazard) => failing.includes(hazard));
      const model = writePromela(new ProofModel(compileSystem(document), on));
      const [none, ...each] = spinHazards(model, [holding, ...found.map((hazard) => [hazard])]);
      expect(none).toMatchObject({ errors: 0, complete: true });
      for (const [i, hazard] of found.entries()) expect({ hazard, ...each[i] }).toMatchObject({ hazard, errors: 1 });
    }
  });
});
