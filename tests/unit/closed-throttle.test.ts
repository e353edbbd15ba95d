import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { ProofRun, steerCounterexample } from '@/core/proof';
import { Rehearsal } from '@/core/simulation';
import type { LayoutDocument, Sensor } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';

const onDc = (document: LayoutDocument): LayoutDocument => ({ ...document, power: 'two-rail DC' });
const failing = (document: LayoutDocument) => {
  const proof = new ProofRun(compileSystem(document), 200_000);
  while (!proof.step(20_000));
  return proof.result().verdicts.filter(({ result }) => result === 'fails');
};
const withKind = (document: LayoutDocument, kind: Sensor['kind']): LayoutDocument => ({
  ...document,
  sensors: document.sensors.map((one) => ({ ...one, kind })),
});

describe('plain DC', () => {
  test.each(['current', 'isolated rail'] as const)(
    'a %s section notices a train while it runs, and not while it stands',
    (kind) => {
      const d = onDc(withKind(withTrains(ring('One', 4, 120), 1, 120), kind));
      const run = new Rehearsal(compileSystem(d), 1);
      const seen = () => d.sensors.some(({ id }) => run.controller.evaluator.valueOf(`detect.${id}`) === 1);
      const { id } = d.trains[0]!;
      let [agreed, standing] = [0, 0];
      for (let tick = 0; tick < 4000; tick++) {
        if (tick % 400 === 0) run.command({ kind: 'run', train: id, on: tick % 800 === 0 });
        run.step();
        const { speed } = run.plant.trains[0]!;
        expect([tick, seen()]).toEqual([tick, speed > 0]);
        agreed += 1;
        if (speed === 0) standing += 1;
      }
      expect(standing).toBeGreaterThan(500);
      expect(agreed - standing).toBeGreaterThan(500);
    },
  );
  test('on a digital supply the same train is noticed always', () => {
    const run = new Rehearsal(compileSystem(withTrains(ring('One', 4, 120), 1, 120)), 1);
    for (let tick = 0; tick < 500; tick++) {
      run.step();
      expect(run.system.sensors.some(({ id }) => run.controller.evaluator.valueOf(`detect.${id}`) === 1)).toBe(true);
    }
  });
  test('the proof finds the train that stands unseen; with a supply that is always there it does not', () => {
    expect(failing(learningOval())).toEqual([]);
    const found = failing(onDc(learningOval()));
    const two = found.find(({ property }) => property === 'two trains in a block')!;
    /** The other one stands where it begins, and only one has current. */
    const withCurrent = two.counterexample!.filter(({ says }) => says.includes('has current again'));
    expect(withCurrent).toHaveLength(1);
    const { model } = new ProofRun(compileSystem(onDc(learningOval())), 1).explorer;
    expect(steerCounterexample(model, 'two trains in a block', two.counterexample!).confirmed).toBe(true);
  });
  test('what needs no current sees it all the same', () => {
    const d = onDc(withTrains(ring('Spots', 4, 120), 1, 120));
    const at = d.trains[0]!.start!.at.tenthUm - 1e5;
    d.sensors = [
      { ...d.sensors[0]!, kind: 'optical', anchor: { ...d.sensors[0]!.anchor, at: { tenthUm: at, typed: '' } } },
    ];
    const run = new Rehearsal(compileSystem(d), 1);
    run.step();
    expect(run.controller.evaluator.valueOf(`detect.${d.sensors[0]!.id}`)).toBe(1);
  });
  test('a finding says so of sections, and of nothing else', () => {
    const kinds = (d: LayoutDocument) => checkDesign(d).findings.map(({ kind }) => kind);
    expect(kinds(onDc(learningOval()))).toContain('detector blind at a closed throttle');
    expect(kinds(onDc(withKind(learningOval(), 'isolated rail')))).toContain('detector blind at a closed throttle');
    expect(kinds(learningOval())).not.toContain('detector blind at a closed throttle');
  });
});
